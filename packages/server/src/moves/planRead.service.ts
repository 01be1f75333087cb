import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { Acted, PlanRead } from '@wanderon/contract';
import { inScope, keyOfRow, planFrom, setKey } from '@wanderon/core';
import { Caller } from '../people/allow';
import { NotNow } from '../refusals';
import { readGiven } from '../survey/readGiven';
import { KEPT, MoveActs } from './moveActs';
import { refuseAfterSwitch } from './planChanges';

/** A plan that was edited elsewhere comes back. */
@Injectable()
export class PlanReadService {
  constructor(private readonly acts: MoveActs) {}

  /** Makes the plan what was read, as one decision that one undo takes back. Throws an InvalidInput that names a set which cannot be read. */
  async take(legId: string, { sets }: PlanRead, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      refuseAfterSwitch(act);
      const { plan } = act.leg.leg;
      if (!plan.chosen) throw new NotNow('Choose where it goes first.', { kept: KEPT });
      const fixed = planFrom(plan.zone, act.leg.rows, readGiven({ names: [], sets }, plan.zone).sets, (owner) => inScope(plan.scope, owner));
      if (fixed.length === 0) throw new NotNow('The plan is like that already.', { kept: KEPT });
      const ids = new Map(act.leg.rows.map((row) => [keyOfRow(row), row]));
      const rows = fixed.map(({ owner, type, row }) => ({ id: ids.get(setKey(owner, type))?.id ?? randomUUID(), row }));
      const before = fixed.map(({ owner, type }) => ids.get(setKey(owner, type)) ?? null);
      const text = `A plan was read back: ${rows.length} ${rows.length === 1 ? 'row is' : 'rows are'} otherwise.`;
      await act.decide({ kind: 'rulings', value: { rows } }, { kind: 'ruling', text, before, after: rows });
    });
  }
}
