import { Host } from '@wanderon/contract';
import {
  ACTS_OF_ROLE,
  DnsHabits,
  Edge,
  EntryStyle,
  FrontingWish,
  HostTask,
  KnownStyle,
  PlaceAct,
  RegistrarForm,
  Requirement,
  TSIG_ALGORITHMS,
  USUAL_FORM,
  USUAL_HABITS,
  WhereToClick,
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
  /** Of a registrar: how its page for nameservers is, is known. */
  known: boolean;
  /** Where one logs in. */
  login: string;
  where: Record<PlaceAct, Omit<WhereToClick, 'act'>>;
  /** How its panel wants names and values; an empty answer: nobody knows it yet. */
  style: { [Field in 'names' | 'apex' | 'targetDot' | 'text' | 'longText' | 'priority']: EntryStyle[Field] | '' } & {
    ttl: 'any' | 'list' | 'none' | '';
    ttls: string;
    leastTtl: string;
    lacks: string;
  };
  form: Omit<RegistrarForm, 'warnings'> & { warnings: string };
}

export function typedOf(host: Host | undefined): TypedHost {
  const style: KnownStyle = host?.entry ?? {};
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
    known: (host?.form ?? null) !== null,
    login: host?.login ?? '',
    where: whereOf(host),
    style: {
      ...{ names: style.names ?? '', apex: style.apex ?? '', targetDot: style.targetDot ?? '', text: style.text ?? '' },
      ...{ longText: style.longText ?? '', priority: style.priority ?? '' },
      ttl: ttlAnswer(style),
      ttls: style.ttls?.join(' ') ?? '',
      leastTtl: style.leastTtl ? String(style.leastTtl) : '',
      lacks: style.lacks?.join(' ') ?? '',
    },
    form: { ...form, warnings: form.warnings.join('\n') },
  };
}

/** As the contract takes it; what cannot be read is found by its schema. */
export function inputOf(typed: TypedHost, host: Host | undefined): unknown {
  const { name, role, note, algorithm, secret, known } = typed;
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
    entry: role === 'dns' ? knownStyle(typed.style) : null,
    login: typed.login,
    where: actsSaid(typed, host).map((act) => ({ act, ...typed.where[act] })),
    form: role === 'registrar' && known ? { ...typed.form, warnings: lines(typed.form.warnings) } : null,
    ...(secret ? { key: { name: typed.keyName, algorithm, secret } } : host?.keyName && keyName === '' ? { key: null } : {}),
  };
}

function whereOf(host: Host | undefined): TypedHost['where'] {
  const of = (act: PlaceAct) => {
    const { link = '', path = '', first = '' } = host?.where.find((one) => one.act === act) ?? {};
    return { link, path, first };
  };
  return { records: of('records'), zone: of('zone'), sign: of('sign'), site: of('site'), nameservers: of('nameservers'), ds: of('ds') };
}

/** What is done at a place of which something was said; whoever was asked for it and said nothing is not asked again. */
function actsSaid({ role, where }: TypedHost, host: Host | undefined): PlaceAct[] {
  const isSaid = (act: PlaceAct): boolean =>
    Object.values(where[act]).some((text) => text.trim() !== '') || host?.where.some((one) => one.act === act) === true;
  return ACTS_OF_ROLE[role].filter(isSaid);
}

function ttlAnswer({ ttls }: KnownStyle): TypedHost['style']['ttl'] {
  if (ttls === undefined) return '';
  return ttls === null ? 'none' : ttls.length > 0 ? 'list' : 'any';
}

/** What was answered of a panel; null where nothing was. */
function knownStyle({ ttl, ttls, leastTtl, lacks, ...answers }: TypedHost['style']): unknown {
  const said = Object.entries(answers).filter(([, answer]) => answer !== '');
  const times = ttl === '' ? {} : ttl === 'any' ? { ttls: [], leastTtl: Number(leastTtl) } : { ttls: ttl === 'none' ? null : words(ttls).map(Number) };
  const known = { ...Object.fromEntries(said), ...times, ...(lacks.trim() === '' ? {} : { lacks: words(lacks) }) };
  return Object.keys(known).length > 0 ? known : null;
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
export function fieldOf(path: readonly PropertyKey[], typed: TypedHost, host: Host | undefined): string {
  const [first, second, third] = path.map(String);
  if (first === 'where') return `where.${actsSaid(typed, host)[Number(second)] ?? 'records'}.${third ?? 'link'}`;
  if (first === 'key') return 'keyName';
  if (first === 'habits') return `habits.${second ?? 'company'}`;
  if (first === 'entry') return second === 'lacks' || second === 'leastTtl' ? `style.${second}` : 'style.ttls';
  if ((first === 'requires' || first === 'tasks' || first === 'form') && second !== undefined)
    return [first, second, ...(third && first !== 'form' ? [third] : [])].join('.');
  return first ?? 'name';
}
