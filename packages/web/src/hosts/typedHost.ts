import { Host } from '@wanderon/contract';
import {
  DnsHabits,
  Edge,
  EntryStyle,
  FrontingWish,
  HostTask,
  RegistrarForm,
  Requirement,
  TSIG_ALGORITHMS,
  USUAL_FORM,
  USUAL_HABITS,
  USUAL_STYLE,
} from '@wanderon/core';

const words = (text: string): string[] => text.split(/[\s,]+/).filter((word) => word !== '');
const lines = (text: string): string[] => text.split('\n').flatMap((line) => (line.trim() === '' ? [] : [line.trim()]));

/** The fields of a host as they are typed: lists of words are texts with one a line. */
export interface TypedHost {
  name: string;
  role: Host['role'];
  nameservers: string;
  addresses: string;
  fronts: string;
  aliasTarget: string;
  updateAddress: string;
  note: string;
  keyName: string;
  algorithm: (typeof TSIG_ALGORITHMS)[number];
  secret: string;
  /** It takes a zone only once the domain is delegated to it. */
  late: boolean;
  habits: {
    company: string;
    begins: string;
    locks: string;
    forwards: string;
    drops: boolean;
    edge: Edge;
    standIn: string;
    accounts: DnsHabits['accounts'];
    signs: DnsHabits['signs'];
    apexAlias: DnsHabits['apexAlias'];
    nameservers: DnsHabits['nameservers'];
    most: string;
    warnings: string;
  };
  fronting: FrontingWish;
  forcesHttps: boolean;
  issuers: string;
  holding: string;
  provisional: string;
  requires: Requirement[];
  tasks: HostTask[];
  /** The habits of its panel, or of its page, are known. */
  known: boolean;
  style: Omit<EntryStyle, 'ttls' | 'leastTtl' | 'lacks'> & { ttl: 'any' | 'list' | 'none'; ttls: string; leastTtl: string; lacks: string };
  form: Omit<RegistrarForm, 'warnings'> & { warnings: string };
}

export function typedOf(host: Host | undefined): TypedHost {
  const { ttls, leastTtl = 0, lacks = [], ...style }: EntryStyle = host?.entry ?? USUAL_STYLE;
  const form = host?.form ?? USUAL_FORM;
  const habits: DnsHabits = host?.habits ?? USUAL_HABITS;
  return {
    name: host?.name ?? '',
    role: host?.role ?? 'dns',
    nameservers: host?.nameservers.join('\n') ?? '',
    addresses: host?.addresses.join('\n') ?? '',
    fronts: host?.fronts.join('\n') ?? '',
    aliasTarget: host?.aliasTarget ?? '',
    updateAddress: host?.updateAddress ?? '',
    note: host?.note ?? '',
    keyName: host?.keyName ?? '',
    algorithm: 'hmac-sha256',
    secret: '',
    late: host?.holdsEarly === false,
    habits: {
      company: habits.company,
      begins: habits.begins.join('\n'),
      locks: habits.locks.join('\n'),
      forwards: habits.forwards.join('\n'),
      drops: habits.afterLeaving === 'drops',
      edge: habits.edge,
      standIn: habits.standIn,
      accounts: habits.accounts,
      signs: habits.signs,
      apexAlias: habits.apexAlias,
      nameservers: habits.nameservers,
      most: habits.most?.toString() ?? '',
      warnings: habits.warnings.join('\n'),
    },
    fronting: host?.fronting ?? 'either',
    forcesHttps: host?.forcesHttps ?? false,
    issuers: host?.issuers.join(' ') ?? '',
    holding: host?.holding.join('\n') ?? '',
    provisional: host?.provisional ?? '',
    requires: host?.requires ?? [],
    tasks: host?.tasks ?? [],
    known: (host?.entry ?? host?.form ?? null) !== null,
    style: {
      ...style,
      ttl: ttls === null ? 'none' : ttls.length > 0 ? 'list' : 'any',
      ttls: ttls?.join(' ') ?? '',
      leastTtl: leastTtl === 0 ? '' : String(leastTtl),
      lacks: lacks.join(' '),
    },
    form: { ...form, warnings: form.warnings.join('\n') },
  };
}

/** As the contract takes it; what cannot be read is found by its schema. */
export function inputOf(typed: TypedHost, host: Host | undefined): unknown {
  const { name, role, note, algorithm, secret, known } = typed;
  const { ttl, ttls, leastTtl, lacks, ...style } = typed.style;
  const keyName = typed.keyName.trim();
  const web = role === 'web';
  return {
    name,
    role,
    nameservers: role === 'dns' ? words(typed.nameservers) : [],
    addresses: role === 'registrar' ? [] : words(typed.addresses),
    fronts: role === 'dns' ? words(typed.fronts) : [],
    aliasTarget: web ? typed.aliasTarget.trim() || null : null,
    updateAddress: role === 'dns' ? typed.updateAddress.trim() || null : null,
    holdsEarly: role !== 'dns' || !typed.late,
    requires: web ? typed.requires : [],
    ...(web && {
      fronting: typed.fronting,
      forcesHttps: typed.forcesHttps,
      issuers: words(typed.issuers),
      holding: lines(typed.holding),
      provisional: typed.provisional,
    }),
    tasks: role === 'registrar' ? [] : typed.tasks,
    ...(role === 'dns' && { habits: habitsOf(typed.habits) }),
    note,
    entry: role === 'dns' && known ? { ...style, ...ttlsOf({ ttl, ttls, leastTtl }), lacks: words(lacks) } : null,
    form: role === 'registrar' && known ? { ...typed.form, warnings: lines(typed.form.warnings) } : null,
    ...(secret ? { key: { name: typed.keyName, algorithm, secret } } : host?.keyName && keyName === '' ? { key: null } : {}),
  };
}

function ttlsOf({ ttl, ttls, leastTtl }: Pick<TypedHost['style'], 'ttl' | 'ttls' | 'leastTtl'>): Pick<EntryStyle, 'ttls' | 'leastTtl'> {
  if (ttl === 'any') return { ttls: [], leastTtl: Number(leastTtl) };
  return { ttls: ttl === 'none' ? null : words(ttls).map(Number), leastTtl: 0 };
}

function habitsOf({ begins, locks, forwards, drops, most, warnings, ...others }: TypedHost['habits']): DnsHabits {
  return {
    ...others,
    begins: lines(begins),
    locks: lines(locks),
    forwards: words(forwards),
    afterLeaving: drops ? 'drops' : 'keeps',
    most: most.trim() === '' ? null : Number(most),
    warnings: lines(warnings),
  };
}

/** Where a problem of the contract's schema is told: at the field of the form that it came from. */
export function fieldOf(path: readonly PropertyKey[]): string {
  const [first, second, third] = path.map(String);
  if (first === 'key') return 'keyName';
  if (first === 'habits') return `habits.${second ?? 'company'}`;
  if (first === 'entry') return second === 'lacks' || second === 'leastTtl' ? `style.${second}` : 'style.ttls';
  if ((first === 'requires' || first === 'tasks' || first === 'form') && second !== undefined)
    return [first, second, ...(third && first !== 'form' ? [third] : [])].join('.');
  return first ?? 'name';
}
