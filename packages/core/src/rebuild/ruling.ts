import { RRsetText } from '../dns/record';

export const RULINGS = ['carry', 'repoint', 'drop', 'new'] as const;
export type RulingKind = (typeof RULINGS)[number];

/** What is to become of a record set, as screens say it. */
export const RULING_LABELS: Readonly<Record<RulingKind, string>> = { carry: 'keep', repoint: 'change', drop: 'leave out', new: 'add' };

/** The same once it is decided: `www A: changed.` */
export const RULED_LABELS: Readonly<Record<RulingKind, string>> = { carry: 'kept', repoint: 'changed', drop: 'left out', new: 'added' };

/** What happens to one record set. `found` is absent for `new`; `planned` is absent for `drop`. */
export interface Ruling {
  readonly owner: string;
  readonly type: string;
  readonly ruling: RulingKind;
  readonly found: RRsetText | undefined;
  readonly planned: RRsetText | undefined;
  readonly reason: string;
}

/** True where the move alters what a resolver is told about this set. */
export function isChanging(ruling: Pick<Ruling, 'ruling' | 'owner' | 'type' | 'reason'>): boolean {
  return ruling.ruling === 'repoint' || ruling.ruling === 'new' || (ruling.ruling === 'drop' && !isHostsOwn(ruling));
}

/** Apex SOA and NS, and everything that signing makes, belong to the DNS host: they are never ours to rebuild. */
export function isHostsOwn(set: { readonly owner: string; readonly type: string; readonly reason: string }): boolean {
  return set.reason.startsWith(HOSTS_OWN);
}

/** Planned with the data that was found, whatever the TTLs: of a row that was stored, `found` and `planned` are two objects. */
export function isAsFound({ found, planned }: Pick<Ruling, 'found' | 'planned'>): boolean {
  if (!found || !planned) return false;
  return planned === found || (planned.data.length === found.data.length && planned.data.every((data, index) => data === found.data[index]));
}

/** Ends the reason of a row that was found as one of several answers. */
export const VARIES = 'answered otherwise from one question to the next';

/** The reason of a row that a web host asks for, after its name. */
export const ASKED_FOR = 'asks for it';

export const HOSTS_OWN = "the DNS host's own";
