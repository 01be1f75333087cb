import { keyIds } from '../dns/childSync';
import { Message } from '../dns/message';
import { Name } from '../dns/name';
import { parseRdata } from '../dns/rdata';
import { ResourceRecord } from '../dns/record';
import { TYPE_CODES, typeMnemonic } from '../dns/typeNames';
import { Instant } from '../timetable/instant';

/** A type for private use (RFC 6895 §3.1), of which an apex holds nothing: what comes back is a denial. */
export const DENIED_TYPE = 65_300;

/**
 * What a server of a zone that is signed gave without a signature by one of its keys, in words; nothing where all of it bears one.
 * `answers`: to questions with the DO bit (RFC 4035 §3.1) for the apex's keys, its SOA, and `DENIED_TYPE` there. It is looked whether a
 * signature is there, by which key, and for which time (RFC 4034 §3.1): the signature itself is not worked out.
 *
 *     unsignedOf(zone, keys, [toKeys, toSoa, toDenied], now)  // ['NSEC of zone.example.']
 */
export function unsignedOf(zone: Name, keys: readonly string[], answers: readonly Message[], now: Instant): string[] {
  const known = keyIds(keys.map((text) => parseRdata(TYPE_CODES.DNSKEY, text)));
  const bare = answers.flatMap((answer) => [...bareIn(answer.answers, zone, known, now), ...bareIn(answer.authorities, zone, known, now)]);
  const denies = answers.some(({ authorities }) => authorities.some((record) => record.type === TYPE_CODES.NSEC || record.type === TYPE_CODES.NSEC3));
  return [...new Set([...bare, ...(denies ? [] : ['proof of what is not there'])])].sort();
}

/** Sets of the zone in one section that no signature covers which holds now. */
function bareIn(section: readonly ResourceRecord[], zone: Name, keys: ReadonlySet<string>, now: Instant): string[] {
  const signatures = section.filter((record) => record.type === TYPE_CODES.RRSIG && signs(record.data, keys, now));
  return section.flatMap(({ owner, type }) => {
    if (type === TYPE_CODES.RRSIG || !owner.isAtOrBelow(zone)) return [];
    const covered = signatures.some((one) => one.owner.equals(owner) && ((one.data[0]! << 8) | one.data[1]!) === type);
    // The names of a denial's own records are made up anew with each change of the zone.
    return covered ? [] : [type === TYPE_CODES.NSEC3 ? 'NSEC3' : `${typeMnemonic(type)} of ${owner.toString()}`];
  });
}

/** A signature (RFC 4034 §3.1) by one of the keys, in its time: instants are 32 bits that go round (RFC 1982). */
function signs(data: Uint8Array, keys: ReadonlySet<string>, now: Instant): boolean {
  if (data.length < 18) return false;
  const view = new DataView(data.buffer, data.byteOffset, data.length);
  const [until, from] = [view.getUint32(8), view.getUint32(12)];
  const at = Math.floor(now) >>> 0;
  return keys.has(`${view.getUint16(16)}/${data[2]}`) && ((until - at) | 0) >= 0 && ((at - from) | 0) >= 0;
}
