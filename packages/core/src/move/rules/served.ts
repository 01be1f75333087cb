import { TYPE_CODES } from '../../dns/typeNames';
import { listWords, plain, setWords } from '../../survey/words';
import { sameNameSet } from '../../watch/verdict';
import { Instant } from '../../timetable/instant';
import { rebuildsZone } from '../account';
import { Leg } from '../leg';
import { answeredRows } from '../fronted';
import { SetKey, keyOf, keyOfRow, ownerOf, typeOf } from '../plan';
import { AnswerSight } from '../seen';
import { SAYS_LITTLE } from '../../slips/recordSlips';
import { slipSeen } from '../slipsSeen';
import { StepRule, Way, asideWay, stands } from './rule';

/** How one server of the new host answers, held against the plan. */
export interface ReadBack {
  readonly server: string;
  readonly address: string;
  readonly at: Instant | null;
  readonly problem: string | null;
  /** It refuses to answer for the zone, as servers do to which nobody has added the domain. */
  readonly refused: boolean;
  readonly differs: readonly { readonly key: SetKey; readonly answer: AnswerSight }[];
  /** Planned sets that it has never answered for, one way or the other. */
  readonly unanswered: readonly SetKey[];
  /** Its apex NS set is the new one. */
  readonly apexNew: boolean;
  /** That set, where it is another. */
  readonly apex: AnswerSight | undefined;
}

/** What every server of the new host answered at the last look; in a repoint leg, every authority. */
export function readBack(leg: Leg): ReadBack[] {
  return leg.once('read back', () =>
    leg.plan.newServers.map(({ server, address }) => {
      const seen = leg.seen.zones.find((one) => one.address === address);
      const sighting = seen?.sightings.at(-1);
      const nothing = { server, address, refused: false, at: sighting?.last ?? null, differs: [], unanswered: [], apexNew: false, apex: undefined };
      if (seen?.silence) return { ...nothing, refused: seen.silence.refused, problem: seen.silence.problem };
      if (!sighting) return { ...nothing, problem: 'it was not asked yet' };
      if (sighting.value.refused) return { ...nothing, refused: true, problem: 'it refuses to answer for the zone' };
      const ns = sighting.value.sets[keyOf(leg.plan.zone, TYPE_CODES.NS)];
      const apexNew = leg.plan.kind === 'repoint' || (ns !== undefined && sameNameSet(ns.data, leg.plan.newNameservers));
      const differs = leg.wanted.otherwise(sighting.value).map((key) => ({ key, answer: sighting.value.sets[key]! }));
      return {
        ...nothing,
        problem: null,
        differs,
        unanswered: plannedKeys(leg).filter((key) => !seen!.sightings.some((one) => one.value.sets[key] !== undefined)),
        apexNew,
        apex: apexNew ? undefined : ns,
      };
    }),
  );
}

/** Sets of which a server of the new host has to give the planned data; not those that a cut hands on to others. */
function plannedKeys(leg: Leg): readonly SetKey[] {
  return leg.once('planned keys', () => {
    if (!rebuildsZone(leg.plan)) return [];
    const { wanted } = leg;
    return answeredRows(leg.plan).flatMap((row) => {
      const key = keyOfRow(row);
      return row.planned && wanted.isOwn(key) && (wanted.data(key)?.length ?? 0) > 0 ? [key] : [];
    });
  });
}

/** Whether all servers of a host refuse to answer for the zone: the domain was most likely not added there. */
export function isRefusedByAll(servers: readonly Pick<ReadBack, 'refused'>[]): boolean {
  return servers.length > 0 && servers.every((server) => server.refused);
}

export function isServed(one: ReadBack): boolean {
  return one.problem === null && one.differs.length === 0 && one.unanswered.length === 0 && one.apexNew;
}

/** The new zone as every server of the new host answers it, at the addresses that the host gave. */
export const served: StepRule = {
  id: 'served',
  chapter: 'rebuild',
  title: 'Read the new zone back',
  label: undefined,
  after: ['push'],
  by: 'seen',
  counts: 'in turn',
  applies: (plan) => plan.kind === 'delegation',
  standing: (leg) => {
    const all = readBack(leg).filter((one) => !leg.said.aside.has(one.address));
    const lacking = all.filter((one) => !isServed(one));
    if (all.length > 0 && lacking.length === 0) return stands('done', { doneAt: Math.max(...all.map((one) => one.at ?? 0)) });
    if (all.length === 0) return stands('doing', { text: 'The nameservers of the new host have no address yet.' });
    return stands('doing', { text: readBackWords(leg, lacking), ways: waysOf(leg, lacking) });
  },
};

/** What servers of the new host lack, in one sentence. */
export function readBackWords(leg: Leg, lacking: readonly ReadBack[]): string {
  const refusing = lacking.filter((one) => one.refused);
  const silent = lacking.filter((one) => one.problem !== null && !one.refused);
  const differing = lacking.filter((one) => one.problem === null);
  const sets = new Set(differing.flatMap((one) => one.differs.map(({ key }) => setWords({ owner: ownerOf(key), type: typeOf(key) }))));
  const names = (all: readonly ReadBack[]): string => [...new Set(all.map((one) => one.server.replace(/\.$/, '')))].join(', ');
  return [
    sets.size > 0
      ? `${names(differing)} ${differing.length === 1 ? 'does' : 'do'} not serve ${[...sets].slice(0, 3).join(', ')}${sets.size > 3 ? ` and ${sets.size - 3} more` : ''} as planned.`
      : '',
    ...unansweredWords(lacking),
    ...apexWords(leg, differing),
    ...slipWords(leg, differing),
    ...(refusing.length > 0 ? [refusedWords(refusing, plain(leg.plan.zone.toString()))] : []),
    ...silent.map((one) => `${one.server.replace(/\.$/, '')}${one.address ? ` (${one.address})` : ''}: ${one.problem}.`),
  ]
    .filter(Boolean)
    .join(' ');
}

/** Servers that refuse: most often the domain was not added there. */
function refusedWords(servers: readonly ReadBack[], domain: string): string {
  const names = [...new Set(servers.map((one) => plain(one.server)))];
  return `${listWords(names)} ${names.length === 1 ? 'refuses' : 'refuse'} to answer for ${domain}: add the domain there, if that is not done.`;
}

/** Nameservers that a server of the new host names for the domain and that are none of the new set, or the reverse; each name is told. */
function apexWords({ plan }: Leg, differing: readonly ReadBack[]): string[] {
  const wanted = plan.newNameservers.map((name) => name.toLowerCase());
  return differing.flatMap(({ server, apexNew, apex }) => {
    if (apexNew) return [];
    const named = (apex?.data ?? []).map((name) => name.toLowerCase());
    if (named.length === 0) return [`${plain(server)} names no nameservers for the domain.`];
    const [extra, missing] = [named.filter((name) => !wanted.includes(name)), wanted.filter((name) => !named.includes(name))];
    const told = [
      extra.length > 0 ? `names ${listWords(extra.map(plain))} as nameserver, which ${extra.length === 1 ? 'is' : 'are'} not of the new set` : '',
      missing.length > 0 ? `does not name ${listWords(missing.map(plain))}` : '',
    ].filter(Boolean);
    return told.length > 0 ? [`${plain(server)} ${told.join(', and ')}.`] : [];
  });
}

/** What a server has not answered for at all: neither right nor wrong was seen. */
function unansweredWords(lacking: readonly ReadBack[]): string[] {
  return lacking.flatMap(({ server, unanswered }) => {
    if (unanswered.length === 0) return [];
    const names = unanswered.slice(0, 3).map((key) => setWords({ owner: ownerOf(key), type: typeOf(key) }));
    return [`${plain(server)} has not answered for ${names.join(', ')}${unanswered.length > 3 ? ` and ${unanswered.length - 3} more` : ''} yet.`];
  });
}

/** Slips that are told with the step; the others stand at their rows. */
const TOLD_SLIPS = 2;

/** The slips that explain what differs, each set once. */
function slipWords(leg: Leg, differing: readonly ReadBack[]): string[] {
  const told = new Map<SetKey, string>();
  for (const { address, differs } of differing)
    for (const { key, answer } of differs) {
      if (told.size >= TOLD_SLIPS || told.has(key)) continue;
      const slip = slipSeen(leg, address, key, answer);
      if (slip && !SAYS_LITTLE.has(slip.code)) told.set(key, `${ownerOf(key).replace(/\.$/, '')} ${typeOf(key)}: ${slip.text}`);
    }
  return [...told.values()];
}

/** Somebody else's changes at the new host are adopted or set right; a server that is dead is set aside. */
function waysOf(leg: Leg, lacking: readonly ReadBack[]): Way[] {
  const pushed = leg.state.work.get('push');
  const edits = pushed?.outcome === 'done' && pushed.plan === leg.pushes ? lacking.filter((one) => one.differs.length > 0) : [];
  const silent = lacking.filter((one) => (one.problem !== null || one.unanswered.length > 0) && one.at !== null);
  const split = lacking.some(({ address, differs }) => differs.some(({ key, answer }) => slipSeen(leg, address, key, answer)?.code === 'text split'));
  return [
    // A panel splits a long text as it likes: there may be no other way to have it there.
    ...(split && edits.length === 0
      ? [{ act: 'adopt', subject: 'split', label: 'Take the texts as they are split', means: 'Their readers join the parts: they mean the same.' } as const]
      : []),
    ...(edits.length > 0
      ? [
          { act: 'adopt', subject: '', label: 'Take what is served into the plan', means: 'The plan becomes what the new host answers.' } as const,
          { act: 'take', subject: '', label: 'Set it right', means: 'The plan is pushed again.' } as const,
        ]
      : []),
    ...silent.map((one) => asideWay(one.address, one.server)),
  ];
}
