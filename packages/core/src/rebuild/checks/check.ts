import { Name } from '../../dns/name';
import { RRsetText } from '../../dns/record';
import { HostKnowledge } from '../host';
import { Ruling } from '../ruling';

/** A remark about one row of the ledger. `stop` keeps the gate shut, `look` asks for a second look. */
export interface Remark {
  readonly owner: string;
  readonly type: string;
  readonly weight: 'stop' | 'look';
  readonly code: string;
  readonly text: string;
}

export interface CheckInput {
  readonly zone: Name;
  readonly rulings: readonly Ruling[];
  readonly oldWeb: readonly HostKnowledge[];
  /** Sets as the old host answered them, where what it stores is not known. */
  readonly fronted: readonly RRsetText[];
}

export type Check = (input: CheckInput) => Remark[];

export function remark(ruling: Pick<Ruling, 'owner' | 'type'>, weight: Remark['weight'], code: string, text: string): Remark {
  return { owner: ruling.owner, type: ruling.type, weight, code, text };
}
