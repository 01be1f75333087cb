import { Name, RCODE, ResourceRecord, TYPE_CODES, parseRdata } from '@wanderon/core';
import { AuthZone, Found } from './authZone';

/** What a host makes of an answer before it leaves: habits that hide from a visitor what is stored. `server` counts from 0. */
export type Dressing = (found: Found, question: { readonly name: Name; readonly type: number }, zone: AuthZone, server: number) => Found;

/** Names that nobody stores, but that names hang below, are denied, against RFC 8020 §2. */
export const deniesEmptyNames: Dressing = (found, { name }, zone) => {
  const empty = found.rcode === RCODE.NOERROR && found.authoritative && found.answers.length === 0 && zone.all().every((set) => !set.owner.equals(name));
  return empty ? { ...found, rcode: RCODE.NXDOMAIN } : found;
};

/** Only so many records of a larger set at a time, others with each question. */
export function rotates(most: number): Dressing {
  let turn = 0;
  return (found, { type }) => {
    if (found.answers.length <= most || found.answers.some((record) => record.type !== type)) return found;
    turn += 1;
    return { ...found, answers: Array.from({ length: most }, (_, i) => found.answers[(turn + i) % found.answers.length]!) };
  };
}

/** Addresses of the host's own edge in place of addresses and aliases of the names that `which` picks; another edge at each server. */
export function fronts(which: (name: Name, zone: AuthZone) => boolean, edges: readonly string[]): Dressing {
  return (found, { name, type }, zone, server) => {
    if (!which(name, zone) || !HIDDEN.some((hidden) => zone.get(name, hidden))) return found;
    const bare = { ...found, rcode: RCODE.NOERROR, authoritative: true, additionals: [] };
    if (type === TYPE_CODES.A) return { ...bare, answers: [{ owner: name, type, cls: 1, ttl: 300, data: parseRdata(type, edges[server % edges.length]!) }] };
    return HIDDEN.includes(type) ? { ...bare, answers: [] } : found;
  };
}

const HIDDEN: readonly number[] = [TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CNAME];

/** An alias at the apex, stored nowhere as such: its target's addresses are looked up and given as the apex's own, their TTL running down. */
export function answersAsAddresses(zoneName: Name, addresses: readonly string[], ttl: number): Dressing {
  let spent = 0;
  return (found, { name, type }) => {
    if (!name.equals(zoneName) || type !== TYPE_CODES.A) return found;
    spent = (spent + 7) % ttl;
    const answers: ResourceRecord[] = addresses.map((address) => ({ owner: name, type, cls: 1, ttl: ttl - spent, data: parseRdata(type, address) }));
    return { ...found, rcode: RCODE.NOERROR, authoritative: true, answers, authorities: [], additionals: [] };
  };
}
