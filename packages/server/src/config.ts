import { isIpv4, isIpv6, parsePrefix } from '@wanderon/core';
import { z } from 'zod';

const lookout = z.object({
  name: z.string().min(1).max(60),
  address: z.string().refine((text) => isIpv4(text) || isIpv6(text), 'a lookout needs an IPv4 or IPv6 address'),
  note: z.string().default(''),
});

/** `Name=address,Name=address` */
const lookouts = z
  .string()
  .default('')
  .transform((text) =>
    text
      .split(',')
      .filter((part) => part.trim() !== '')
      .map((part) => ({ name: part.split('=')[0]!.trim(), address: (part.split('=')[1] ?? '').trim() })),
  )
  .pipe(z.array(lookout));

const route = z.object({ address: z.string(), port: z.number(), transport: z.enum(['udp', 'tcp']), toAddress: z.string(), toPort: z.number() });

/** Everything the server is told from outside, by environment variables; docs/operations.md describes each. */
/** The bootstrap registry for domain names, where RFC 9224 §8 puts it. */
const BOOTSTRAP_REGISTRY = 'https://data.iana.org/rdap/dns.json';

const configSchema = z.object({
  WANDERON_DATABASE: z.string().regex(/^postgres(ql)?:\/\//, 'is the address of a PostgreSQL database: postgresql://user@host:port/name'),
  WANDERON_SECRET_KEY: z
    .string()
    .transform((text) => Buffer.from(text, 'base64'))
    .refine((key) => key.length === 32, 'is 32 octets in base64, as `openssl rand -base64 32` makes them'),
  /** Keys that secrets may still be sealed with, with commas, until they are all renewed. */
  WANDERON_FORMER_KEYS: z
    .string()
    .default('')
    .transform((text) => text.split(',').flatMap((part) => (part.trim() === '' ? [] : [Buffer.from(part, 'base64')])))
    .refine((keys) => keys.every((key) => key.length === 32), 'holds what is not 32 octets in base64'),
  /** Minutes without anybody there after which a session ends, and hours after which it ends all the same. */
  WANDERON_SESSION_IDLE_MINUTES: z.coerce.number().min(1).max(10_080).default(120),
  WANDERON_SESSION_HOURS: z.coerce.number().min(1).max(720).default(12),
  WANDERON_PUBLIC_ADDRESS: z.url({ protocol: /^https?$/, error: 'is the address people open, such as https://moves.agency.example' }),
  WANDERON_PORT: z.coerce.number().int().min(0).max(65_535).default(8080),
  WANDERON_LISTEN: z.string().default('127.0.0.1'),
  WANDERON_LOOKOUTS: lookouts,
  /** Whether moves are also watched by asking afresh from the root down, and from the resolvers of this machine. */
  WANDERON_OWN_RESOLVERS: z.enum(['yes', 'no']).default('yes'),
  WANDERON_ROOT_HINTS: z.string().default('/usr/share/dns/root.hints'),
  /** Where the list of registration data services is fetched; `none`: registries are not asked. */
  WANDERON_RDAP_LIST: z
    .union([z.literal('none'), z.url({ protocol: /^https$/, error: 'is an address that begins with https://, or none' })])
    .default(BOOTSTRAP_REGISTRY)
    .transform((address) => (address === 'none' ? undefined : address)),
  /** A file that takes the place of that list (RFC 9224 §3). */
  WANDERON_RDAP_SERVICES: z.string().optional(),
  /** Ranges that are not public, and that servers may be asked in and pages fetched from all the same, with commas. */
  WANDERON_PROBE_ALLOW: z
    .string()
    .default('')
    .transform((text, context) =>
      text
        .split(',')
        .filter((part) => part.trim() !== '')
        .map((part) => {
          const prefix = parsePrefix(part.trim());
          if (prefix) return prefix;
          context.addIssue({ code: 'custom', message: `holds ${part.trim()}, which is not a range of addresses such as 10.1.0.0/16` });
          return z.NEVER;
        }),
    ),
  /** Ranges of addresses of proxies in front of it, with commas: who came to them counts as the one who asks. Empty: none. */
  WANDERON_TRUSTED_PROXIES: z
    .string()
    .default('')
    .transform((text, context) => {
      const ranges = text.split(',').flatMap((part) => part.trim() || []);
      for (const range of ranges)
        if (!parsePrefix(range)) context.addIssue({ code: 'custom', message: `holds ${range}, which is not a range of addresses such as 10.1.0.0/16` });
      return ranges;
    }),
  /** Messages a second that one name server is sent at most: others use it as well. */
  WANDERON_QUESTIONS_PER_SECOND: z.coerce.number().min(1).max(100_000).default(250),
  /** Minutes that one survey may take in all. */
  WANDERON_SURVEY_MINUTES: z.coerce.number().min(0.1).max(1440).default(30),
  /** Domains of a sweep that one process surveys at a time. */
  WANDERON_SWEEP_WORKERS: z.coerce.number().int().min(1).max(16).default(6),
  /** Seconds between two looks at servers that are waited for. */
  WANDERON_LOOK_EVERY: z.coerce.number().min(1).max(3600).default(60),
  /** Seconds that a cache is assumed to keep anything at least. */
  WANDERON_CACHE_FLOOR: z.coerce.number().min(0).max(86_400).default(0),
  /** Seconds added after the parent was seen to publish, for anycast instances that we do not see. */
  WANDERON_ANYCAST_ALLOWANCE: z.coerce.number().min(0).max(86_400).default(0),
  /** The same for instances of anycast DNS hosts, old and new. */
  WANDERON_HOST_ALLOWANCE: z.coerce.number().min(0).max(86_400).default(0),
  WANDERON_ADMIN_LOGIN: z
    .string()
    .regex(/^[a-z0-9._-]{2,40}$/)
    .default('admin'),
  WANDERON_ADMIN_PASSWORD: z.string().min(12).optional(),
  /** Of the link at which the first administrator makes the account; good for one start, and while nobody has one. */
  WANDERON_FIRST_LINK: z.string().min(20).max(100).optional(),
  /** The lab's control address; unset in real use. */
  WANDERON_LAB: z.url().optional(),
  /** For tests against real servers on loopback: where documentation addresses lead, as JSON. */
  WANDERON_ROUTES: z
    .string()
    .default('[]')
    .transform((text) => JSON.parse(text) as unknown)
    .pipe(z.array(route)),
  WANDERON_LOG: z.enum(['fatal', 'error', 'warn', 'info', 'debug', 'silent']).default('info'),
});
export type Config = z.infer<typeof configSchema>;

export const CONFIG = Symbol('config');

/** Throws an Error that names every variable that is wrong. */
export function readConfig(environment: NodeJS.ProcessEnv): Config {
  const read = configSchema.safeParse(environment);
  if (read.success) return read.data;
  const lines = read.error.issues.map((issue) => `  ${issue.path.join('.')} ${issue.message}`);
  throw new Error(`The configuration is not complete:\n${[...new Set(lines)].join('\n')}`);
}
