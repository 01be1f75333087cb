import { Name } from '../dns/name';
import { RRsetText, sameSet } from '../dns/record';
import { HostKnowledge } from '../rebuild/host';
import { isLead } from '../rebuild/leads';
import { repointName } from '../rebuild/proposeRepoint';
import { Ruling, isHostsOwn } from '../rebuild/ruling';

/** What a person said or gave beyond where the website goes. */
export interface GivenPlan {
  readonly newWeb: HostKnowledge | undefined;
  /** Values that were given for names. */
  readonly sets: readonly RRsetText[];
  /** Names in lower case with final dot: whether they go with the website. */
  readonly names: ReadonlyMap<string, boolean>;
}

/** The reason of a row that a person left where it is. */
export const STAYS_BY_WORD = 'stays where it is: a person said so';
/** The reason of a row whose value was given for this move. */
export const GIVEN = 'given for this move';

/** Text records of which a name has one (RFC 7208 §4.5, RFC 7489 §6.6.3). */
const ONE_TEXT = /^"?v=(spf1|dmarc1|dkim1)\b/i;

/**
 * The proposals with what was given for single names, and with the names that a person ticked or not. What was given replaces what stands at
 * its name; texts and CAA records stand beside what is there, but for SPF, DMARC and keys of DKIM, of which a name has one.
 */
export function planGiven(zone: Name, proposed: readonly Ruling[], { newWeb, sets, names }: GivenPlan): Ruling[] {
  const rulings = [...proposed];
  const before = new Rows(rulings);
  if (newWeb) for (const [owner, moves] of names) if (moves && !before.leads(owner)) repointName(rulings, zone, owner, newWeb);
  const rows = new Rows(rulings);
  for (const [owner, moves] of names) if (!moves) rows.keep(owner);
  const owners = new Map<string, Map<string, RRsetText>>();
  for (const set of sets) {
    if (!isLead(set.type)) rows.putRecord(set);
    else if (names.get(set.owner.toLowerCase()) !== false) {
      const at = owners.get(set.owner.toLowerCase()) ?? new Map<string, RRsetText>();
      owners.set(set.owner.toLowerCase(), at.set(set.type, set));
    }
  }
  for (const [owner, wanted] of owners) rows.leadTo(owner, wanted);
  return rows.all();
}

/** Rows of a plan by their names, of which some are changed, added or taken out; the others keep their places. */
class Rows {
  private readonly places = new Map<string, number[]>();
  private readonly rows: (Ruling | undefined)[];

  constructor(rulings: readonly Ruling[]) {
    this.rows = [...rulings];
    for (const [index, { owner }] of rulings.entries()) this.note(owner, index);
  }

  all(): Ruling[] {
    return this.rows.filter((row) => row !== undefined);
  }

  /** Some row by which the name leads anywhere changes. */
  leads(owner: string): boolean {
    return this.leadsAt(owner).some(([, row]) => row.ruling !== 'carry' && row.planned !== undefined);
  }

  /** The name stays where it leads now. */
  keep(owner: string): void {
    for (const [index, row] of this.leadsAt(owner))
      if (row.ruling !== 'carry') this.rows[index] = row.found && { ...row, ruling: 'carry', planned: row.found, reason: STAYS_BY_WORD };
  }

  /** A name leads where it was said to: what stands beside an alias, or is one beside addresses, gives way (RFC 1034 §3.6.2). */
  leadTo(owner: string, wanted: ReadonlyMap<string, RRsetText>): void {
    const byAlias = wanted.has('CNAME');
    for (const [index, row] of this.leadsAt(owner)) {
      if (wanted.has(row.type) || (!byAlias && row.type !== 'CNAME')) continue;
      const reason = `gives way to ${byAlias ? 'an alias' : 'addresses'} ${GIVEN}`;
      this.rows[index] = row.found && { ...row, ruling: 'drop', planned: undefined, reason };
    }
    for (const set of wanted.values()) this.put(set);
  }

  putRecord(set: RRsetText): void {
    if (set.type !== 'TXT' && set.type !== 'CAA') return this.put(set);
    const kinds = new Set(set.data.flatMap((text) => ONE_TEXT.exec(text)?.[1]?.toLowerCase() ?? []));
    const now = this.at(set.owner).find(([, row]) => row.type === set.type)?.[1].planned?.data ?? [];
    const stay = now.filter((text) => !kinds.has(ONE_TEXT.exec(text)?.[1]?.toLowerCase() ?? ''));
    this.put({ ...set, data: [...new Set([...stay, ...set.data])] });
  }

  private put(set: RRsetText): void {
    const [index, row] = this.at(set.owner).find(([, one]) => one.type === set.type) ?? [];
    if (row && isHostsOwn(row)) return;
    const found = row?.found;
    const planned = { ...set, owner: row?.owner ?? set.owner, ttl: row?.planned?.ttl ?? found?.ttl ?? set.ttl };
    if (row?.planned && sameSet(row.planned, planned)) return;
    const isFound = found !== undefined && sameSet(found, planned);
    const made: Ruling = {
      owner: planned.owner,
      type: set.type,
      ruling: found === undefined ? 'new' : isFound ? 'carry' : 'repoint',
      found,
      planned: isFound ? found : planned,
      reason: GIVEN,
    };
    if (index !== undefined) this.rows[index] = made;
    else this.note(set.owner, this.rows.push(made) - 1);
  }

  private at(owner: string): [number, Ruling][] {
    return (this.places.get(owner.toLowerCase()) ?? []).flatMap((index): [number, Ruling][] => (this.rows[index] ? [[index, this.rows[index]]] : []));
  }

  private leadsAt(owner: string): [number, Ruling][] {
    return this.at(owner).filter(([, row]) => isLead(row.type) && !isHostsOwn(row));
  }

  private note(owner: string, index: number): void {
    const key = owner.toLowerCase();
    const all = this.places.get(key);
    if (all) all.push(index);
    else this.places.set(key, [index]);
  }
}
