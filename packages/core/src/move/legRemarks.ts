import { Remark } from '../rebuild/checks/check';
import { rowAt } from '../rebuild/fix';
import { Ruling } from '../rebuild/ruling';
import { fingerprint } from './fingerprint';
import { Waiver } from './lines/line';
import { Decision } from './said';
import { Scope, inScope } from './scope';

/** A remark on the plan, and whether somebody let it be. */
export interface LegRemark extends Remark {
  /** What it rests on: another word once its row or what is said of it is another. */
  readonly fact: string;
  /** Why it was let be; undefined where it was not, or rests on something else by now. */
  readonly waived: string | undefined;
}

/** By which a decision calls a remark; distinct from the lines of the gate. */
export function remarkSubject({ owner, type, code }: Pick<Remark, 'owner' | 'type' | 'code'>): string {
  return `remark\n${owner.toLowerCase()} ${type} ${code}`;
}

/** Remarks with what people said of them. A remark that was let be is open again once its cause changes. */
export function withWaivers(remarks: readonly Remark[], rulings: readonly Ruling[], waived: ReadonlyMap<string, Decision>): readonly LegRemark[] {
  return remarks.map((remark): LegRemark => {
    const { ruling, found, planned } = rowAt(rulings, remark.owner, remark.type) ?? {};
    const fact = fingerprint(JSON.stringify([remark.weight, remark.text, ruling, found?.data, planned?.data, planned?.ttl]));
    const waiver = waived.get(remarkSubject(remark))?.value as Waiver | undefined;
    return { ...remark, fact, waived: waiver?.about.includes(fact) ? waiver.reason : undefined };
  });
}

/** A remark with those of its fixes that touch nothing outside of the names which a leg is about. */
export function withinScope(remark: Remark, scope: Scope): Remark {
  return { ...remark, fixes: remark.fixes.filter((fix) => fix.rows.every(({ owner, type }) => inScope(scope, owner, type))) };
}

/** True for a remark that nobody let be. */
export function isOpen({ waived }: LegRemark): boolean {
  return waived === undefined;
}

/** Remarks that keep the gate shut and the plan from being pushed. */
export function openStops(remarks: readonly LegRemark[]): readonly LegRemark[] {
  return remarks.filter((remark) => remark.weight === 'stop' && isOpen(remark));
}
