import { OPCODE } from './codes';
import { Message, Question, message } from './message';
import { Name } from './name';
import { CLASS_ANY, CLASS_IN, CLASS_NONE, ResourceRecord, RRset, recordsOf, rrsetKey, sameData } from './record';
import { TYPE_CODES } from './typeNames';

/** One change of a zone, whole record sets at a time. `before` absent: the set is not there yet; `after` absent: it goes. */
export interface SetChange {
  readonly owner: Name;
  readonly type: number;
  readonly before: RRset | undefined;
  readonly after: RRset | undefined;
}

/**
 * What brings the served sets to the wanted ones, apex SOA and NS aside, which belong to the host.
 * Sets that stay as they are do not appear. `keep` names sets that are not ours to touch.
 */
export function changesBetween(served: readonly RRset[], wanted: readonly RRset[], keep: (set: RRset) => boolean = () => false): SetChange[] {
  const before = new Map(served.map((set) => [rrsetKey(set.owner, set.type), set]));
  const after = new Map(wanted.map((set) => [rrsetKey(set.owner, set.type), set]));
  const changes: SetChange[] = [];
  for (const [key, set] of before) if (!after.has(key) && !keep(set)) changes.push({ owner: set.owner, type: set.type, before: set, after: undefined });
  for (const [key, set] of after) {
    const old = before.get(key);
    if (old && old.ttl === set.ttl && sameData(set.type, old.data, set.data)) continue;
    changes.push({ owner: set.owner, type: set.type, before: old, after: set });
  }
  return changes;
}

/**
 * Update messages (RFC 2136) that make the changes, each guarded by prerequisites on the sets as they were seen
 * (§2.4.2 value dependent, §2.4.3 does not exist), so that a change by someone else meanwhile fails the update
 * instead of being overwritten. Sets of one owner stay in one message, which may then be larger than asked for: an alias
 * and what it replaces change together.
 */
export function updateMessages(zone: Name, changes: readonly SetChange[], octetsPerMessage = 16_384): Message[] {
  return updateParts(zone, changes, octetsPerMessage).map((part) => part.message);
}

/** One update message and the changes that it makes. */
export interface UpdatePart {
  readonly message: Message;
  readonly changes: readonly SetChange[];
}

/**
 * The same, each message with its changes. `guard`: a set that the first message asks to be as it was seen, besides what it changes; the SOA,
 * so that any edit by someone else fails it, one of a TTL alone included.
 */
export function updateParts(zone: Name, changes: readonly SetChange[], octetsPerMessage = 16_384, guard?: RRset): UpdatePart[] {
  const byOwner = new Map<string, SetChange[]>();
  for (const change of changes) {
    const group = byOwner.get(change.owner.key);
    if (group) group.push(change);
    else byOwner.set(change.owner.key, [change]);
  }
  const parts: UpdatePart[] = [];
  let prerequisites: ResourceRecord[] = guard ? recordsOf(guard).map((record) => ({ ...record, ttl: 0 })) : [];
  let updates: ResourceRecord[] = [];
  let taken: SetChange[] = [];
  let octets = 0;
  const flush = (): void => {
    if (updates.length === 0) return;
    parts.push({ message: updateMessage(zone, prerequisites, updates), changes: taken });
    prerequisites = [];
    updates = [];
    taken = [];
    octets = 0;
  };
  // Servers check that what MX, SRV and NS lead to has addresses: those come before, and go after.
  const inOrder = [...byOwner.values()].sort((a, b) => rank(a) - rank(b));
  for (const group of inOrder) {
    const made = group.map((change) => changeRecords(zone, change));
    const size = made.reduce((sum, one) => sum + sizeOf(one.prerequisites) + sizeOf(one.updates), 0);
    if (octets + size > octetsPerMessage) flush();
    octets += size;
    taken.push(...group);
    // RFC 2136 §3.4.2.2: a CNAME is ignored where other data stands, so what goes is written before what comes.
    for (const one of made) prerequisites.push(...one.prerequisites);
    for (const one of made) updates.push(...one.updates.filter((record) => record.cls === CLASS_ANY));
    for (const one of made) updates.push(...one.updates.filter((record) => record.cls !== CLASS_ANY));
  }
  flush();
  return parts;
}

const LEADING: ReadonlySet<number> = new Set([TYPE_CODES.MX, TYPE_CODES.SRV, TYPE_CODES.NS]);

/** 0: something comes; 1: something that leads to other names comes or goes; 2: everything goes. */
function rank(group: readonly SetChange[]): number {
  if (group.some((change) => LEADING.has(change.type))) return 1;
  return group.every((change) => change.after === undefined) ? 2 : 0;
}

/** Octets that records take at the most: owner, type, class, TTL, length and data (RFC 1035 §4.1.3). */
function sizeOf(records: readonly ResourceRecord[]): number {
  return records.reduce((sum, record) => sum + record.owner.size + 10 + record.data.length, 0);
}

export function updateMessage(zone: Name, prerequisites: readonly ResourceRecord[], updates: readonly ResourceRecord[]): Message {
  const question: Question = { name: zone, type: TYPE_CODES.SOA, cls: CLASS_IN };
  return message({ opcode: OPCODE.update, questions: [question], answers: prerequisites, authorities: updates });
}

/** Octets of a set as it was and as it is to be that fit into one message beside header and signature (RFC 1035 §4.2.2). */
const LARGEST_PAIR = 60_000;

/** Records of one set that the other does not have, and the reverse. */
function difference(before: RRset, after: RRset): { gone: ResourceRecord[]; fresh: ResourceRecord[] } {
  const lacking = (from: RRset, other: RRset): ResourceRecord[] =>
    recordsOf(from).filter((record) => !other.data.some((data) => sameData(from.type, [record.data], [data])));
  return { gone: lacking(before, after), fresh: lacking(after, before) };
}

function changeRecords(zone: Name, change: SetChange): { prerequisites: ResourceRecord[]; updates: ResourceRecord[] } {
  const { owner, type, before, after } = change;
  const nothing = new Uint8Array(0);
  // A set too large to stand twice in one message is only asked to be there (§2.4.1), not to be as it was seen.
  const large = before !== undefined && sizeOf(recordsOf(before)) + (after ? sizeOf(recordsOf(after)) : 0) > LARGEST_PAIR;
  const seen = (set: RRset): ResourceRecord[] =>
    large ? [{ owner, type, cls: CLASS_ANY, ttl: 0, data: nothing }] : recordsOf(set).map((record) => ({ ...record, ttl: 0 }));
  const prerequisites: ResourceRecord[] = before ? seen(before) : [{ owner, type, cls: CLASS_NONE, ttl: 0, data: nothing }];
  const deletion: ResourceRecord = { owner, type, cls: CLASS_ANY, ttl: 0, data: nothing };
  const additions = after ? recordsOf(after) : [];
  if (type === TYPE_CODES.NS && owner.equals(zone) && after) {
    // RFC 2136 §3.4.2.3 and §3.4.2.4: the apex NS set cannot be deleted whole, so the new ones come first and each old one goes by itself.
    const gone = before ? difference(before, after).gone : [];
    return { prerequisites, updates: [...additions, ...gone.map((record) => ({ ...record, cls: CLASS_NONE, ttl: 0 }))] };
  }
  if (before && after && before.ttl === after.ttl && type !== TYPE_CODES.CNAME && type !== TYPE_CODES.DNAME) {
    // The smallest change: what stays is left alone.
    const { gone, fresh } = difference(before, after);
    return { prerequisites, updates: [...gone.map((record) => ({ ...record, cls: CLASS_NONE, ttl: 0 })), ...fresh] };
  }
  return { prerequisites, updates: before ? [deletion, ...additions] : additions };
}
