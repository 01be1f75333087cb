import { Injectable } from '@nestjs/common';
import { Acted, LetBeInput, MendInput } from '@wanderon/contract';
import { LegRemark, Waiver, fixKey, remarkSubject, setWords } from '@wanderon/core';
import { Caller } from '../people/allow';
import { NotNow, notFound } from '../refusals';
import { Act, KEPT, MoveActs } from './moveActs';
import { refuseAfterSwitch, ruleFixed } from './planChanges';

/** What people make of remarks on the plan: they mend what is said, or let it be. */
@Injectable()
export class RemarkService {
  constructor(private readonly acts: MoveActs) {}

  /** Makes a fix as the person saw it. Throws a NotNow where the plan has become another one since. */
  async mend(legId: string, input: MendInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      refuseAfterSwitch(act);
      const fix = remarksAt(act, input)
        .flatMap((remark) => remark.fixes)
        .find((one) => fixKey(one) === input.fix);
      if (!fix) throw new NotNow('The plan has changed since this fix was shown.', { detail: 'Look at the row again.', kept: KEPT });
      await ruleFixed(act, fix.rows, `${setWords(input)}: ${fix.text}`);
    });
  }

  /** Lets a remark be until what it rests on changes, or takes that back. Throws a NotNow where it says something else by now. */
  async letBe(legId: string, { fact, reason, ...of }: LetBeInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      const said = remarksAt(act, of);
      const remark = said.find((one) => one.fact === fact);
      if (!remark) throw new NotNow('Something else is said of this row by now.', { detail: 'Look at the row again.', kept: KEPT });
      const words = `${setWords(remark)}: ${remark.text}`;
      const standing = act.leg.said.waived.get(remarkSubject(of));
      const covered = said.filter((one) => one.waived !== undefined).map((one) => one.fact);
      if (reason !== null)
        await act.decide(
          { kind: 'waive', subject: remarkSubject(of), value: { reason, about: [...covered, fact] } satisfies Waiver },
          { kind: 'waive', text: `Skipped: ${words} Reason: ${reason}`, before: null, after: reason },
        );
      else if (standing && remark.waived !== undefined)
        await act.decide(
          { kind: 'waive', subject: remarkSubject(of), undoes: standing.id },
          { kind: 'waive', text: `No longer skipped: ${words}`, before: standing.value },
        );
    });
  }
}

/** Throws where nothing of the kind is said of this row. */
function remarksAt({ leg }: Act, { owner, type, code }: { owner: string; type: string; code: string }): readonly LegRemark[] {
  const said = leg.leg.remarks.filter((remark) => remark.owner.toLowerCase() === owner.toLowerCase() && remark.type === type && remark.code === code);
  if (said.length === 0) throw notFound('remark');
  return said;
}
