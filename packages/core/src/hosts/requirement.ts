import { FrontingWish } from './fronting';

/** What ends a record that a web host asks for: nothing, since it is needed again later, or that the host has verified the domain. */
export const REQUIREMENT_ENDS = ['kept', 'verified'] as const;

/** A record that a web host asks for. */
export interface Requirement {
  /** Lasting, so that a move which was planned with it finds it again. */
  readonly id: string;
  /** Below the domain, `@` for the domain itself. */
  readonly owner: string;
  readonly type: string;
  /** `{zone}` stands for the domain. Empty: the host gives a value for each site, which is asked for in the move. */
  readonly data: string;
  /** Of requirements with the same word here one is enough, and the first of them is proposed; empty: it stands by itself. */
  readonly either: string;
  /** The cutover waits for it to be in the plan. */
  readonly needed: boolean;
  /** The host looks for it before the cutover: it has to stand in the zone that is live then, as well as in the new one. */
  readonly early: boolean;
  readonly ends: (typeof REQUIREMENT_ENDS)[number];
  /** What it wants of a DNS host that can front its name; where it says nothing, what the web host wants of all. */
  readonly fronting?: FrontingWish;
}

/** A requirement of which only the record is known. */
export function plainRequirement(record: Pick<Requirement, 'owner' | 'type' | 'data'> & Partial<Requirement>): Requirement {
  return { id: `${record.owner}/${record.type}/${record.data}`, either: '', needed: true, early: false, ends: 'kept', ...record };
}
