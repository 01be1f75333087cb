import { Injectable } from '@nestjs/common';
import { Acted } from '@wanderon/contract';
import { inScope, planFrom } from '@wanderon/core';
import { Caller } from '../people/allow';
import { Reader } from '../reading/reader';
import { NotNow } from '../refusals';
import { KEPT, MoveActs } from './moveActs';
import { MoveStore } from './move.store';
import { refuseAfterSwitch, ruleFixed } from './planChanges';

/** A plan that was edited elsewhere comes back. */
@Injectable()
export class PlanReadService {
  constructor(
    private readonly acts: MoveActs,
    private readonly store: MoveStore,
    private readonly reader: Reader,
  ) {}

  /** Makes the plan what was read, as one decision that one undo takes back. Throws an InvalidInput that names a set which cannot be read. */
  async take(legId: string, body: unknown, person: Caller): Promise<Acted> {
    const { sets } = await this.reader.read('plan', body, await this.store.domainOf(legId));
    return this.acts.act(legId, person, async (act) => {
      refuseAfterSwitch(act);
      const { plan } = act.leg.leg;
      if (!plan.chosen) throw new NotNow('Choose where it goes first.', { kept: KEPT });
      const fixed = planFrom(plan.zone, act.leg.rows, sets, (owner, type) => inScope(plan.scope, owner, type));
      if (fixed.length === 0) throw new NotNow('The plan is like that already.', { kept: KEPT });
      await ruleFixed(act, fixed, `A plan was read back: ${fixed.length} ${fixed.length === 1 ? 'row is' : 'rows are'} otherwise.`);
    });
  }
}
