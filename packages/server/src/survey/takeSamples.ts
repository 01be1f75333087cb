import { AuthorityAnswer, MAY_BE_MADE, MergedSet, Name, Sample, TYPE_CODES, Variation, groupRecords, inReadingOrder, judgeSamples } from '@wanderon/core';
import { limited } from '@wanderon/net';
import { observed } from '../network/network';
import { SurveyWish, SurveyWorld } from './surveyWorld';

/** Sets that are looked at again; in a larger zone those that are read first. */
const SETS = 400;
/** Looks at each set at the first server: as many as show answers that rotate. */
const LOOKS = 3;

/** Asks for addresses and aliases again, several times at the first authority and once at each other one. */
export async function takeSamples(
  world: SurveyWorld,
  wish: SurveyWish,
  merged: readonly MergedSet[],
  answers: readonly AuthorityAnswer[],
): Promise<{ variations: ReadonlyMap<MergedSet, Variation>; asked: number; left: number }> {
  const authorities = answers.filter((answer) => answer.authoritative);
  const bySet = new Map(merged.map((one) => [one.set, one]));
  // Addresses of servers of a zone below are given along, and are not answered for by this one.
  const cut = new Set(merged.flatMap(({ set }) => (set.type === TYPE_CODES.NS && !set.owner.equals(wish.zone) ? [set.owner.key] : [])));
  const belowCut = (owner: Name): boolean => {
    for (let at = owner; cut.size > 0 && at.isBelow(wish.zone); at = at.parent) if (cut.has(at.key)) return true;
    return false;
  };
  const all = inReadingOrder(
    wish.zone,
    merged.map((one) => one.set),
  ).filter((set) => MAY_BE_MADE.has(set.type) && !belowCut(set.owner));
  const chosen = all.slice(0, SETS);
  let asked = 0;
  const variations = await limited(chosen, 8, async (set): Promise<[MergedSet, Variation]> => {
    const one = bySet.get(set)!;
    const samples: Sample[] = [];
    for (const [index, { server, address }] of authorities.entries())
      for (let look = 0; look < (index === 0 ? LOOKS : 1); look++) {
        if (asked++ % 20 === 0) wish.onProgress?.({ doing: `Asking again whether answers vary: ${set.owner.toString()}`, asked });
        const got = await observed(world.client.ask({ address }, set.owner, set.type, { signal: wish.signal }));
        if (!got.ok || got.value.rcode > 3) continue;
        const there = groupRecords(got.value.answers.filter((record) => record.type === set.type && record.owner.equals(set.owner)))[0];
        samples.push({ server, address, seen: there });
      }
    return [
      one,
      judgeSamples(
        set,
        one.evidence.some(({ source, agrees }) => agrees && source.kind === 'transfer'),
        samples,
        wish.fronts,
      ),
    ];
  });
  return { variations: new Map(variations), asked, left: all.length - chosen.length };
}
