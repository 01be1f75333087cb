import { DENIED_TYPE, SetKey, TYPE_CODES, ZoneSight, keyOf, query, signsAgain, unsignedOf } from '@wanderon/core';
import { SIGNED } from '@wanderon/net';
import { Network, observed } from '../../network/network';
import { WorkContext } from '../context';

/** What a server that serves keys gave beside its sets; where a DS is to come back, also what bears no signature by them. */
export async function withSignatures({ leg, zone }: WorkContext, { client }: Network, address: string, sight: ZoneSight): Promise<ZoneSight> {
  const apex: SetKey = keyOf(zone, TYPE_CODES.DNSKEY);
  const keys = sight.sets[apex]?.data ?? [];
  if (keys.length === 0 || !signsAgain(leg.plan, leg)) return sight;
  const asked = [TYPE_CODES.DNSKEY, TYPE_CODES.SOA, DENIED_TYPE].map((type) => observed(client.exchange({ address }, query(zone, type, { edns: SIGNED }))));
  const answers = (await Promise.all(asked)).flatMap((one) => (one.ok && one.value.rcode === 0 ? [one.value] : []));
  // What was not answered is no observation: what was seen before stands.
  const before = leg.seen.zones.find((one) => one.address === address)?.sightings.at(-1)?.value.unsigned;
  return { ...sight, unsigned: answers.length < asked.length ? before : unsignedOf(zone, keys, answers, leg.now) };
}
