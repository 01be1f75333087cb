import { Ruling } from './ruling';

/** Types by which a name leads somewhere. */
export const LEADS = ['A', 'AAAA', 'CNAME'] as const;

/** True for types by which a name leads somewhere. */
export function isLead(type: string): boolean {
  return (LEADS as readonly string[]).includes(type);
}

/** Names in lower case that lead elsewhere by the plan. */
export function movingNames(rulings: readonly Ruling[]): ReadonlySet<string> {
  return new Set(rulings.filter((row) => row.ruling === 'repoint' && isLead(row.type)).map((row) => row.owner.toLowerCase()));
}
