import { SettingView } from '@wanderon/contract';
import { duration, printPrefix } from '@wanderon/core';
import { Config } from '../config';

/** How a setting is shown; a secret is told as set or not. */
interface Setting {
  readonly what: string;
  readonly show: ((config: Config) => string) | 'secret';
}

const list = (words: readonly string[]): string => (words.length === 0 ? 'none' : words.join(', '));

/** Everything that an installation can be told, as people call it; each name of the configuration is here, or shown to nobody. */
const SETTINGS: Readonly<Partial<Record<keyof Config, Setting>>> = {
  WANDERON_DATABASE: { what: 'Database', show: ({ WANDERON_DATABASE }) => withoutPassword(WANDERON_DATABASE) },
  WANDERON_SECRET_KEY: { what: 'Key under which secrets are sealed', show: 'secret' },
  WANDERON_FORMER_KEYS: { what: 'Keys that secrets may still be sealed with', show: 'secret' },
  WANDERON_PUBLIC_ADDRESS: { what: 'Address that people open', show: ({ WANDERON_PUBLIC_ADDRESS }) => WANDERON_PUBLIC_ADDRESS },
  WANDERON_PORT: { what: 'Port', show: ({ WANDERON_PORT }) => String(WANDERON_PORT) },
  WANDERON_LISTEN: { what: 'Address on which the server listens', show: ({ WANDERON_LISTEN }) => WANDERON_LISTEN },
  WANDERON_TRUSTED_PROXIES: { what: 'Proxies in front of it', show: ({ WANDERON_TRUSTED_PROXIES }) => list(WANDERON_TRUSTED_PROXIES) },
  WANDERON_SESSION_IDLE_MINUTES: { what: 'A session ends without anybody there after', show: (config) => duration(60 * config.WANDERON_SESSION_IDLE_MINUTES) },
  WANDERON_SESSION_HOURS: { what: 'A session ends all the same after', show: (config) => duration(3600 * config.WANDERON_SESSION_HOURS) },
  WANDERON_LOOKOUTS: {
    what: 'Resolvers of the configuration',
    show: ({ WANDERON_LOOKOUTS }) => list(WANDERON_LOOKOUTS.map(({ name, address }) => `${name} at ${address}`)),
  },
  WANDERON_OWN_RESOLVERS: { what: 'Asked afresh, and this machine’s resolvers', show: ({ WANDERON_OWN_RESOLVERS }) => WANDERON_OWN_RESOLVERS },
  WANDERON_ROOT_HINTS: { what: 'Root hints', show: ({ WANDERON_ROOT_HINTS }) => WANDERON_ROOT_HINTS },
  WANDERON_RDAP_LIST: {
    what: 'List of registration data services',
    show: ({ WANDERON_RDAP_LIST }) => WANDERON_RDAP_LIST ?? 'none: registries are not asked',
  },
  WANDERON_RDAP_SERVICES: {
    what: 'File that lists registration data services',
    show: ({ WANDERON_RDAP_SERVICES }) => WANDERON_RDAP_SERVICES ?? 'none',
  },
  WANDERON_PROBE_ALLOW: {
    what: 'Ranges that are not public and may be asked',
    show: ({ WANDERON_PROBE_ALLOW }) => list(WANDERON_PROBE_ALLOW.map(printPrefix)),
  },
  WANDERON_QUESTIONS_PER_SECOND: { what: 'Messages a second to one name server', show: (config) => String(config.WANDERON_QUESTIONS_PER_SECOND) },
  WANDERON_SURVEY_MINUTES: { what: 'A survey takes at most', show: (config) => duration(60 * config.WANDERON_SURVEY_MINUTES) },
  WANDERON_SWEEP_WORKERS: { what: 'Domains that are surveyed at a time', show: (config) => String(config.WANDERON_SWEEP_WORKERS) },
  WANDERON_LOOK_EVERY: { what: 'Servers that are waited for are asked every', show: (config) => duration(config.WANDERON_LOOK_EVERY) },
  WANDERON_CACHE_FLOOR: { what: 'Caches are assumed to keep an answer for at least', show: (config) => duration(config.WANDERON_CACHE_FLOOR) },
  WANDERON_ANYCAST_ALLOWANCE: { what: 'Added for registry servers that nobody sees', show: (config) => duration(config.WANDERON_ANYCAST_ALLOWANCE) },
  WANDERON_HOST_ALLOWANCE: { what: 'Added for nameservers of hosts that nobody sees', show: (config) => duration(config.WANDERON_HOST_ALLOWANCE) },
  WANDERON_LOG: { what: 'What is logged', show: ({ WANDERON_LOG }) => WANDERON_LOG },
};

/** What is set where, for people to read: never a secret, nor the password of the database. */
export function settingsOf(config: Config, environment: NodeJS.ProcessEnv): SettingView[] {
  return Object.entries(SETTINGS).map(([name, { what, show }]) => {
    const isSet = environment[name] !== undefined;
    return { name, what, isSet, value: show === 'secret' ? (isSet ? 'set' : 'none') : show(config) };
  });
}

/** The address of a database without what opens it, in whatever part of the address that stands. */
function withoutPassword(address: string): string {
  const url = new URL(address);
  if (url.password !== '') url.password = '…';
  url.search = '';
  return url.toString().replace('%E2%80%A6', '…');
}
