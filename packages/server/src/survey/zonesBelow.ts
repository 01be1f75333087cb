import { AuthorityAnswer, CATALOGUE, Name, NameMap, RRset, TYPE_CODES, ZoneBelow } from '@wanderon/core';
import { limited } from '@wanderon/net';
import { observed } from '../network/network';
import { SurveyWish, SurveyWorld } from './surveyWorld';

/** Names that are asked whether a zone of their own begins there. */
const NAMES = 5000;
/** Names of websites and mail, the underscored ones left out. */
const LIKELY = [...CATALOGUE['website']!, ...CATALOGUE['mail']!].filter((label) => !label.includes('_'));

/**
 * Zones of their own below this one that its server holds and this zone does not delegate: no transfer of this zone shows
 * them, and what they answer looks like data of it. Found by asking the SOA of every name found, of those above it, and,
 * where nothing was asked before (`likely`), of names that often have one.
 */
export async function zonesBelow(
  world: SurveyWorld,
  { zone, signal, onProgress }: SurveyWish,
  sets: readonly RRset[],
  answers: readonly AuthorityAnswer[],
  likely: boolean,
): Promise<ZoneBelow[]> {
  const authority = answers.find((answer) => answer.authoritative);
  if (!authority) return [];
  const { server, address } = authority;
  const cuts = new NameMap<true>();
  for (const set of sets) if (set.type === TYPE_CODES.NS && !set.owner.equals(zone)) cuts.set(set.owner, true);
  const names = new NameMap<true>();
  const add = (name: Name): void => {
    for (let at = name; at.isBelow(zone) && !names.has(at); at = at.parent) if (!at.isWildcard) names.set(at, true);
  };
  for (const set of sets) add(set.owner);
  if (likely) for (const label of LIKELY) add(zone.child(label));
  const isDelegated = (name: Name): boolean => {
    for (let at = name; at.isBelow(zone); at = at.parent) if (cuts.has(at)) return true;
    return false;
  };
  const asked = [...names.names()].filter((name) => !isDelegated(name)).slice(0, NAMES);
  let done = 0;
  const found = await limited(asked, 8, async (name): Promise<ZoneBelow[]> => {
    if (done++ % 20 === 0) onProgress?.({ doing: `Looking for zones below: ${name.toString()}`, asked: done, left: asked.length - done });
    const got = await observed(world.client.ask({ address }, name, TYPE_CODES.SOA, { signal }));
    const isZone = got.ok && got.value.authoritative && got.value.answers.some((record) => record.type === TYPE_CODES.SOA && record.owner.equals(name));
    return isZone ? [{ name: name.toString(), server, address }] : [];
  });
  return found.flat();
}
