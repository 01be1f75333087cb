import { AuthorityAnswer, RRset, TYPE_CODES, ZoneBelow, possibleCuts } from '@wanderon/core';
import { limited } from '@wanderon/net';
import { observed } from '../network/network';
import { SurveyWish, SurveyWorld } from './surveyWorld';

/** Names that are asked whether a zone of their own begins there. */
const NAMES = 5000;
/**
 * Zones of their own below this one that its server holds and this zone does not delegate: no transfer of this zone shows
 * them, and what they answer looks like data of it. Found by asking the SOA of every name found, of those above it, and,
 * where nothing was asked before (`likely`), of names that often have one. `left`: names that were not asked, or not answered.
 */
export async function zonesBelow(
  world: SurveyWorld,
  { zone, signal, isEnough, onProgress }: SurveyWish,
  sets: readonly RRset[],
  answers: readonly AuthorityAnswer[],
  likely: boolean,
): Promise<{ found: ZoneBelow[]; left: number }> {
  const authority = answers.find((answer) => answer.authoritative);
  if (!authority) return { found: [], left: 0 };
  const { server, address } = authority;
  const possible = possibleCuts(zone, sets, likely);
  const asked = possible.slice(0, NAMES);
  let unheard = 0;
  let done = 0;
  const found = await limited(asked, 8, async (name): Promise<ZoneBelow[]> => {
    if (done++ % 20 === 0) onProgress?.({ doing: `Looking for zones below: ${name.toString()}`, asked: done, left: asked.length - done });
    const got = isEnough?.() ? undefined : await observed(world.client.ask({ address }, name, TYPE_CODES.SOA, { signal }));
    if (!got?.ok) unheard += 1;
    const isZone =
      got?.ok === true && got.value.authoritative && got.value.answers.some((record) => record.type === TYPE_CODES.SOA && record.owner.equals(name));
    return isZone ? [{ name: name.toString(), server, address }] : [];
  });
  return { found: found.flat(), left: possible.length - asked.length + unheard };
}
