import {
  AuthorityAnswer,
  Evidence,
  Hint,
  MAY_BE_MADE,
  Message,
  MergedSet,
  Name,
  RRset,
  Sample,
  TYPE_CODES,
  Variation,
  ZoneAnswers,
  comparedSets,
  elsewhere,
  groupRecords,
  judgeSamples,
  keyQuestions,
  plain,
  readSoa,
  sameAnswer,
  typeMnemonic,
} from '@wanderon/core';
import { limited } from '@wanderon/net';
import { observed } from '../network/network';
import { SurveyWish, SurveyWorld } from './surveyWorld';

/** Questions that are put again; in a larger zone for the sets that come first. */
const QUESTIONS = 20_000;
/** Looks at each set that a host may make up, at the first server: as many as show answers that rotate; at so many sets. */
const LOOKS = 3;
const LOOKED_AGAIN = 400;
export interface ComparedAnswers {
  /** The zone was changed while it was surveyed. */
  readonly edited: boolean;
  readonly variations: ReadonlyMap<MergedSet, Variation>;
  /** Answers that differ from the inventory, as evidence beside it. */
  readonly others: ReadonlyMap<MergedSet, readonly Evidence[]>;
  /** What some server answers that the inventory has nothing of. */
  readonly hints: readonly Hint[];
  /** Sets that were not asked for again, or that some authority did not answer. */
  readonly left: number;
}

/** Asks every authority for every set, mail and policy first, and holds the answers against each other and the inventory. */
export async function compareAnswers(
  world: SurveyWorld,
  wish: SurveyWish,
  merged: readonly MergedSet[],
  answers: readonly AuthorityAnswer[],
  heard: (address: string, name: Name, type: number) => Message | undefined,
): Promise<ComparedAnswers> {
  const { zone } = wish;
  const authorities = answers.filter((answer) => answer.authoritative);
  const sets = merged.map((one) => one.set);
  const zoneAnswers = new ZoneAnswers(zone, sets);
  const bySet = new Map(merged.map((one) => [one.set, one]));
  let asked = 0;
  const ask = async (address: string, owner: Name, type: number): Promise<Sample['seen'] | 'no answer' | 'too long'> => {
    const known = heard(address, owner, type);
    if (!known && wish.isEnough?.()) return 'no answer';
    if (!known && asked++ % 20 === 0) wish.onProgress?.({ doing: `Holding each server against the others: ${owner.toString()}`, asked });
    const got = known ? ({ ok: true, value: known } as const) : await observed(world.client.ask({ address }, owner, type, { signal: wish.signal }));
    if (!got.ok && got.kind === 'truncated') return 'too long';
    if (!got.ok || got.value.rcode > 3) return 'no answer';
    return groupRecords(got.value.answers.filter((record) => record.type === type && record.owner.equals(owner)))[0];
  };
  const compared = comparedSets(zone, sets);
  const again = new Set(compared.filter((set) => MAY_BE_MADE.has(set.type)).slice(0, LOOKED_AGAIN));
  const most = Math.floor(QUESTIONS / Math.max(1, authorities.length));
  const others = new Map<MergedSet, readonly Evidence[]>();
  const unheard = new Set<RRset>();
  const judged = await limited(compared.slice(0, most), 8, async (set): Promise<[MergedSet, (edited: boolean) => Variation]> => {
    const one = bySet.get(set)!;
    const stored = one.evidence.find(({ source, agrees }) => agrees && source.kind === 'transfer')?.source;
    const made = again.has(set);
    const samples: Sample[] = [];
    for (const [index, { server, address }] of authorities.entries()) {
      // What was found by asking this server was answered once already.
      const found = made ? undefined : one.evidence.find(({ source }) => source.address === address && (source.kind === 'answer' || source.kind === 'walk'));
      for (let look = 0; look < (made && index === 0 ? LOOKS : 1); look++) {
        const seen = found ? found.seen : await ask(address, set.owner, set.type);
        if (seen !== 'no answer' && seen !== 'too long') samples.push({ server, address, seen });
        else if (look === 0) unheard.add(set);
      }
    }
    const expected = zoneAnswers.own(set.owner, set.type);
    const judge = (edited: boolean): Variation => judgeSamples(set, expected, stored, samples, wish.fronts, edited);
    const variation = judge(false);
    // Where answers change by themselves, any of them says as little as another.
    const odd = samples.filter(
      (sample, index) => !sameAnswer(set.type, sample.seen, expected) && samples.findIndex((other) => isRepeated(set.type, sample, other)) === index,
    );
    if (odd.length > 0 && !variation.restless)
      others.set(
        one,
        odd.map(({ server, address, seen }) => ({ source: { kind: 'answer', server, address, serial: undefined }, because: undefined, seen, agrees: false })),
      );
    return [one, judge];
  });
  // Where something is not as it was transferred, somebody may have edited the zone since; a host that makes its answers leaves the serial alone.
  const odd = judged.some(([, judge]) => judge(false).fronted !== undefined);
  const edited = odd && (await limited(authorities, 4, (authority) => wasEdited(world, wish, authority))).some(Boolean);
  const variations = judged.map(([one, judge]): [MergedSet, Variation] => [one, judge(edited)]);
  const byQuestions = merged.some(({ evidence }) => evidence.some(({ source }) => source.kind === 'answer'));
  const hints = await limited(keyQuestions(zone, sets), 4, async ({ name: owner, type }): Promise<Hint[]> => {
    const samples: Sample[] = [];
    // Where questions were put, the first server was asked for these already.
    for (const { server, address } of byQuestions ? authorities.slice(1) : authorities) {
      const seen = await ask(address, owner, type);
      if (seen === 'too long' && !zoneAnswers.own(owner, type))
        return [
          {
            name: owner,
            unread: typeMnemonic(type),
            text: `${typeMnemonic(type)} is here and could not be read at ${plain(server)}: the answer is too long for UDP, and it takes no TCP`,
          },
        ];
      if (seen !== 'no answer' && seen !== 'too long') samples.push({ server, address, seen });
    }
    const words = elsewhere(type, zoneAnswers.own(owner, type), samples);
    return words ? [{ name: owner, text: `${words} as ${typeMnemonic(type)} here, and that is not in what was found` }] : [];
  });
  return { variations: new Map(variations), edited, others, hints: hints.flat(), left: Math.max(0, compared.length - most) + unheard.size };
}

/** Its serial is another one than when it was asked first. */
async function wasEdited(world: SurveyWorld, { zone, signal }: SurveyWish, { address, serial }: AuthorityAnswer): Promise<boolean> {
  const again = await observed(world.client.ask({ address }, zone, TYPE_CODES.SOA, { signal }));
  const record = again.ok ? again.value.answers.find((one) => one.type === TYPE_CODES.SOA && one.owner.equals(zone)) : undefined;
  return record !== undefined && readSoa(record.data).serial !== serial;
}

function isRepeated(type: number, one: Sample, other: Sample): boolean {
  return one.address === other.address && sameAnswer(type, one.seen, other.seen);
}
