import { randomBytes } from 'node:crypto';
import {
  AuthorityAnswer,
  Exploration,
  Hint,
  KnownName,
  Means,
  Name,
  RRset,
  ResourceRecord,
  Sighting,
  Source,
  TYPE_CODES,
  TsigKey,
  counted,
  groupRecords,
  isReverse,
  plain,
  readSoa,
  rrsetKey,
  sameData,
  typeMnemonic,
} from '@wanderon/core';
import { Nsec3Walked, SurveyOptions, exploreZone, limited, transferStream, walkNsec3, walkZone } from '@wanderon/net';
import { observed, TRANSFER_BOUNDS } from '../network/network';
import { AskedAuthorities } from './askAuthorities';
import { Progress } from '../live/tellProgress';
import { SurveyWish, SurveyWorld } from './surveyWorld';

/** What is in the zone, how it was come by, and what is known to be missing. */
export interface Inventory {
  readonly means: Means;
  /** The strongest first. */
  readonly sightings: readonly Sighting[];
  readonly hints: readonly Hint[];
  /** What speaks against a transfer being what everybody is answered, in sentences. */
  readonly views: readonly string[];
  readonly asked: number;
}

/** Records above which the zone is transferred from one server only; the others are held against it by their serial. */
const LARGE = 50_000;

/** By the strongest means there is: transfer from each authority, the NSEC chain, questions. What servers said against a transfer is noted in the answers. */
export async function takeInventory(world: SurveyWorld, wish: SurveyWish, key: TsigKey | undefined, asked: AskedAuthorities): Promise<Inventory> {
  const broken: Broken[] = [];
  return (await byTransfer(world, wish, key, asked.answers, broken)) ?? (await byQuestions(world, wish, asked, broken));
}

/** What a transfer brought before it broke off: true of the zone, and not all of it. */
export interface Broken {
  readonly sighting: Sighting;
  readonly words: string;
}

/** The records of a whole zone; where that breaks off, those that came, without the set that was under way. */
async function transferred(
  world: SurveyWorld,
  { zone, signal }: SurveyWish,
  address: string,
  key: TsigKey | undefined,
): Promise<{ readonly records: readonly ResourceRecord[]; readonly problem: string | undefined }> {
  const records: ResourceRecord[] = [];
  const all = (async () => {
    for await (const part of transferStream(world.client, { address }, zone, { ...TRANSFER_BOUNDS, key, signal }))
      for (const record of part) records.push(record);
  })();
  const got = await observed(all);
  if (got.ok) return { records, problem: undefined };
  // What had to be ended since it never ends says nothing that is worth keeping.
  const last = got.kind === 'limit' ? undefined : records.at(-1);
  return { records: last ? records.filter((one) => !(one.type === last.type && one.owner.equals(last.owner))) : [], problem: got.problem };
}

/** From each authority that gives it; undefined where none does. What broke off goes to `broken`. */
export async function byTransfer(
  world: SurveyWorld,
  wish: SurveyWish,
  key: TsigKey | undefined,
  answers: AuthorityAnswer[],
  broken: Broken[],
): Promise<Inventory | undefined> {
  const { onProgress } = wish;
  const sightings: Sighting[] = [];
  const views: string[] = [];
  let large = false;
  let done = 0;
  const sound = answers.map((answer, index) => ({ answer, index })).filter(({ answer }) => answer.authoritative);
  await limited(sound, 2, async ({ answer, index }) => {
    if (large) return;
    onProgress?.({ doing: `Asking ${answer.server} (${answer.address}) for the whole zone`, asked: done, left: sound.length - done });
    const { records, problem } = await transferred(world, wish, answer.address, key);
    done += 1;
    if (problem !== undefined) {
      answers[index] = { ...answer, problem };
      const source: Source = { kind: 'transfer', server: answer.server, address: answer.address, serial: answer.serial };
      const words = `The transfer from ${plain(answer.server)} (${answer.address}) broke off after ${counted(records.length, 'record')}: ${problem}.`;
      if (records.length > 0) broken.push({ sighting: { source, sets: groupRecords(records), complete: false }, words });
      return;
    }
    const { serial } = readSoa(records[0]!.data);
    large ||= records.length > LARGE;
    if (serial !== answer.serial && (await isStill(world, wish, answer)))
      views.push(
        `${plain(answer.server)} (${answer.address}) gives serial ${serial} by transfer and answers ${answer.serial} to questions: a view of its own for the key.`,
      );
    answers[index] = { ...answer, transferred: true, serial };
    sightings.push({ source: { kind: 'transfer', server: answer.server, address: answer.address, serial }, sets: groupRecords(records), complete: true });
  });
  if (sightings.length === 0) return undefined;
  // The newest version first; of one version the first server's.
  const order = (source: Source): number => answers.findIndex((answer) => answer.address === source.address);
  sightings.sort((a, b) => (((b.source.serial! - a.source.serial!) | 0) === 0 ? order(a.source) - order(b.source) : (b.source.serial! - a.source.serial!) | 0));
  const newest = sightings[0]!;
  const atOne = sightings.filter((sighting) => sighting.source.serial === newest.source.serial);
  return {
    means: { kind: 'transfer', differing: Math.max(0, ...atOne.slice(1).map((other) => differing(newest.sets, other.sets))) },
    sightings,
    hints: [],
    views,
    asked: 0,
  };
}

/** It still answers questions with the serial that it had before: the zone was not changed meanwhile. */
async function isStill(world: SurveyWorld, { zone, signal }: SurveyWish, { address, serial }: AuthorityAnswer): Promise<boolean> {
  const again = await observed(world.client.ask({ address }, zone, TYPE_CODES.SOA, { signal }));
  if (!again.ok) return false;
  const record = again.value.answers.find((one) => one.type === TYPE_CODES.SOA && one.owner.equals(zone));
  return record !== undefined && readSoa(record.data).serial === serial;
}

async function byQuestions(world: SurveyWorld, wish: SurveyWish, { answers, heard }: AskedAuthorities, broken: readonly Broken[]): Promise<Inventory> {
  const { zone, signal, given } = wish;
  const answering = answers.find((answer) => answer.authoritative);
  if (!answering)
    return {
      means: { kind: 'questions', address: '', asked: 0, remarks: [], file: undefined },
      sightings: broken.map(({ sighting }) => sighting),
      hints: [],
      views: broken.map(({ words }) => words),
      asked: 0,
    };
  const { server, address, serial } = answering;
  let before = 0;
  const telling = (doing: string): SurveyOptions => ({
    signal,
    isEnough: wish.isEnough,
    known: ({ name, type }) => heard(address, name, type),
    onProgress: (asked, now, left) => wish.onProgress?.({ doing: `${doing}: ${now.name.toString()}`, asked: before + asked, left } satisfies Progress),
  });
  const walked = await walkZone(world.client, { address }, zone, telling(`Walking the names that ${server} has signed`));
  before = walked.asked;
  if (walked.whole) {
    const source: Source = { kind: 'walk', server, address, serial: walked.serial };
    return {
      means: { kind: 'walk', address, serial: walked.serial, names: walked.names, whole: true, problems: [] },
      sightings: [{ source, sets: walked.sets, complete: true }],
      hints: [],
      views: [],
      asked: walked.asked,
    };
  }
  const siblings = (await wish.siblings()).flatMap((label) => siblingOf(zone, label));
  const ring =
    walked.names === 0 && answering.signed ? await walkHashes(world, wish, address, siblings, telling(`Collecting the hashed names of ${server}`)) : undefined;
  before += ring?.asked ?? 0;
  if (ring?.complete) return byHashes(ring, answering);
  // What a walk that broke off has seen is known to exist, and leads on.
  const known: KnownName[] = [
    ...[...walked.sets, ...given.sets].map((set) => ({ name: set.owner, types: [set.type] })),
    ...given.names.map((name) => ({ name, types: [] })),
    ...(wish.about ?? []).map((name) => ({ name, types: [], because: 'the move is about it' })),
    ...(wish.before ?? []).map(({ name, type }) => ({ name, types: [type], because: 'found in the survey before' })),
    ...(ring?.names ?? []).map(({ name, types }) => ({
      name,
      types: types.filter((type) => type !== TYPE_CODES.RRSIG),
      because: 'its hash stands in the zone',
    })),
    ...siblings,
  ];
  const exploration = new Exploration(zone, () => `${randomBytes(9).toString('hex')}-nobody`, known);
  await exploreZone(world.client, { address }, exploration, telling(`Asking ${server}`));
  const { sets, hints, remarks, asked } = exploration.report();
  const over = wish.isEnough?.() === true;
  // What a walk fetched is asked for again, as long as there is time for it.
  const walk: Sighting[] =
    over && walked.sets.length > 0 ? [{ source: { kind: 'walk', server, address, serial: walked.serial }, sets: walked.sets, complete: false }] : [];
  const left = over
    ? [`The time for a survey was over before all was asked${exploration.waiting > 0 ? `: ${counted(exploration.waiting, 'question')} known to be left` : ''}.`]
    : [];
  const reasons = new Map(sets.map(({ set, because }) => [rrsetKey(set.owner, set.type), because]));
  const found = sets.map(({ set }) => set);
  return {
    means: {
      kind: 'questions',
      address,
      asked: asked + before,
      range: isReverse(exploration.zone),
      remarks: [...(walked.names > 0 ? walked.problems.slice(0, 3) : []), ...(ring?.problems.slice(0, 3) ?? []), ...remarks],
      file: undefined,
    },
    sightings: [
      ...walk,
      {
        source: { kind: 'answer', server, address, serial },
        sets: found,
        complete: false,
        because: (set) => reasons.get(rrsetKey(set.owner, set.type)),
      },
      ...broken.map(({ sighting }) => sighting),
    ],
    hints,
    views: [...broken.map(({ words }) => words), ...left],
    asked: asked + before,
  };
}

function walkHashes(
  world: SurveyWorld,
  wish: SurveyWish,
  address: string,
  siblings: readonly KnownName[],
  options: SurveyOptions,
): Promise<Nsec3Walked | undefined> {
  const { zone, given } = wish;
  const known = [
    ...given.sets.map((set) => set.owner),
    ...given.names,
    ...(wish.about ?? []),
    ...(wish.before ?? []).map((one) => one.name),
    ...siblings.map((one) => one.name),
  ];
  return walkNsec3(world.client, { address }, zone, known, options);
}

/** From a closed ring of hashes: what has no hash in it does not exist, and what no name was put to is a hint. */
function byHashes(ring: Nsec3Walked, { server, address }: AuthorityAnswer): Inventory {
  const { names, unmatched, sets, serial, problems, asked } = ring;
  const open =
    unmatched.length > 0
      ? [`${counted(unmatched.length, 'name exists', 'names exist')} by hash alone: what ${unmatched.length === 1 ? 'it is' : 'they are'} called is not known.`]
      : [];
  const all = [...open, ...problems];
  const types = (codes: readonly number[]): string =>
    codes
      .filter((code) => code !== TYPE_CODES.RRSIG)
      .map(typeMnemonic)
      .join(', ') || 'nothing of its own';
  return {
    means: { kind: 'walk', address, serial, names: names.length, whole: all.length === 0, problems: all },
    sightings: [{ source: { kind: 'walk', server, address, serial }, sets, complete: all.length === 0 }],
    hints: unmatched
      .slice(0, HINTS)
      .map((one) => ({ name: one.owner, text: `a name exists that has this hash, and holds ${types(one.types)}: give the name if you know it` })),
    views: [],
    asked,
  };
}

/** Hints that are given one by one. */
const HINTS = 100;

/** A name as it stands in another zone, here; none where it would be too long. */
function siblingOf(zone: Name, label: string): KnownName[] {
  const name = Name.tryParse(label, zone);
  return name ? [{ name, types: [], because: 'stands in other zones of yours' }] : [];
}

function differing(a: readonly RRset[], b: readonly RRset[]): number {
  const other = new Map(b.map((set) => [rrsetKey(set.owner, set.type), set]));
  let count = 0;
  for (const set of a) {
    const key = rrsetKey(set.owner, set.type);
    const there = other.get(key);
    other.delete(key);
    if (!there || there.ttl !== set.ttl || !sameData(set.type, set.data, there.data)) count += 1;
  }
  return count + other.size;
}

/** How many sets a zone file and the servers have otherwise; what signing makes, and what a host answers in place of what is stored at `fronted` names, is its own. */
export function againstFile(zone: Name, found: readonly RRset[], given: readonly RRset[], fronted: readonly Name[]): number {
  const own = (set: RRset): boolean => (set.owner.equals(zone) && OWN.has(set.type)) || fronted.some((name) => name.equals(set.owner));
  return differing(
    found.filter((set) => !own(set)).map((set) => ({ ...set, ttl: 0 })),
    given.filter((set) => !own(set)).map((set) => ({ ...set, ttl: 0 })),
  );
}

const OWN: ReadonlySet<number> = new Set([TYPE_CODES.SOA, TYPE_CODES.NS, TYPE_CODES.DNSKEY, TYPE_CODES.CDS, TYPE_CODES.CDNSKEY, TYPE_CODES.NSEC3PARAM]);
