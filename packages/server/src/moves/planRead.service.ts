import { Injectable } from '@nestjs/common';
import { Acted, PlanRead } from '@wanderon/contract';
import { inScope, planFrom } from '@wanderon/core';
import { Caller } from '../people/allow';
import { NotNow } from '../refusals';
import { readGiven } from '../survey/readGiven';
import { KEPT, MoveActs } from './moveActs';
import { refuseAfterSwitch, ruleFixed } from './planChanges';

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
      await ruleFixed(act, fixed, `A plan was read back: ${fixed.length} ${fixed.length === 1 ? 'row is' : 'rows are'} otherwise.`);
    });
  }
}
