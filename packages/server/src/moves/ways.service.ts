import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { Acted, TakeWay, WaiveInput } from '@wanderon/contract';
import {
  Assent,
  Waiver,
  Way,
  adoptable,
  adoptedRow,
  duration,
  factsOf,
  gateOf,
  notOurs,
  ownerOf,
  stepOf,
  titleIn,
  typeOf,
  uncapital,
  setWords,
} from '@wanderon/core';
import { Caller } from '../people/allow';
import { NotNow, notFound } from '../refusals';
import { Act, KEPT, MoveActs } from './moveActs';
import { refuseAfterSwitch, rule } from './planChanges';

/** Ways on where a step or a line of the gate does not go on by itself: taken by a person, each on record. */
@Injectable()
export class WaysService {
  constructor(private readonly acts: MoveActs) {}

  /** A way on that a step or a line offers; what it offers now is what can be taken. */
  async takeWay(legId: string, wish: TakeWay, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      const { leg } = act.leg;
      const step = stepOf(leg, wish.step);
      const line = gateOf(leg).lines.find((one) => one.key === wish.step);
      const survey = wish.step === 'survey' && wish.act === 'retry' && !leg.plan.chosen;
      const offered: readonly Way[] = [...(step?.standing.ways ?? []), ...(line?.ways ?? [])];
      const way = offered.find((one) => one.act === wish.act && one.subject === wish.subject);
      if (!way && !survey) throw new NotNow('This is not open here any more.', { detail: 'The page shows what is.', kept: KEPT });
      await this.follow(act, wish, way?.label ?? 'Take the survey again', step?.rule.title ?? line?.text ?? '');
    });
  }

  private async follow(act: Act, wish: TakeWay, label: string, title: string): Promise<void> {
    const { decide, leg } = act;
    const value = wish.reason ? { reason: wish.reason } : undefined;
    const event = (kind: string, text: string): Parameters<Act['decide']>[1] => ({
      kind,
      text,
      before: stepOf(leg.leg, wish.step)?.standing.text ?? null,
      after: value ?? null,
    });
    switch (wish.act) {
      case 'retry':
        if (wish.subject === 'survey') await decide({ kind: 'survey' }, event('retry', 'The survey is taken again.'));
        else await decide({ kind: 'retry', subject: wish.subject }, event('retry', `${titleIn(leg.leg)(wish.subject) ?? title}: to be tried again.`));
        return;
      case 'leave':
        await decide({ kind: 'leave', subject: wish.subject, value }, event('skip', `${title}: ${uncapital(label)}.`));
        return;
      case 'aside':
        await decide({ kind: 'aside', subject: wish.subject, value }, event('aside', `${label}: it is not waited for any more.`));
        return;
      case 'accept TTLs':
        await decide(
          { kind: 'accept TTLs', value: Number(wish.subject) },
          event('accept TTLs', `Old answers are not waited for: they may be remembered for up to ${duration(Number(wish.subject))} after the switch.`),
        );
        return;
      case 'take':
      case 'keep':
        return this.assent(act, wish.act === 'take' ? 'take' : 'leave', event);
      case 'done':
        await decide({ kind: 'done', subject: wish.subject }, event('done', `${title}: done.`));
        return;
      case 'send early':
        await decide({ kind: 'early' }, event('early', 'What the web host looks for beforehand is to go into the live zone.'));
        return;
      case 'open again': {
        const last = act.leg.stands.findLast((one) => (one.kind === 'done' || one.kind === 'leave') && one.subject === wish.subject);
        if (last) await decide({ kind: last.kind, subject: last.subject, undoes: last.id }, event('done', `${title}: open again.`));
        return;
      }
      case 'adopt':
        return this.adopt(act, wish.subject === 'drift' ? 'old' : wish.subject === 'split' ? 'split' : 'new');
    }
  }

  /** Says of everything at the new host that is not as planned that it may go, or stays, and has the plan pushed again. */
  private async assent({ leg, decide }: Act, what: Assent['what'], event: (kind: string, text: string) => Parameters<Act['decide']>[1]): Promise<void> {
    for (const [key, data] of notOurs(leg.leg))
      await decide(
        { kind: 'assent', subject: key, value: { what, data } },
        event(
          'assent',
          `${setWords({ owner: ownerOf(key), type: typeOf(key) })} as it stands there ${what === 'take' ? 'gives way to the plan' : 'stays as it is'}.`,
        ),
      );
    if (leg.leg.plan.kind === 'repoint') await decide({ kind: 'retry', subject: 'change' }, event('retry', 'Change the records: again.'));
    else await decide({ kind: 'retry', subject: 'push' }, event('retry', 'Push the new zone: again.'));
  }

  /** Takes what is served into the plan: what changed at the old host since the survey, or at the new one since the push. */
  private async adopt(act: Act, where: Parameters<typeof adoptable>[1]): Promise<void> {
    if (where === 'old') refuseAfterSwitch(act);
    for (const change of adoptable(act.leg.leg, where)) {
      const { id, row } = adoptedRow(act.leg.rows, change, where === 'old' ? 'old' : 'new');
      const before = act.leg.rows.find((one) => one.id === id) ?? null;
      await rule(act, id ?? randomUUID(), row, `${setWords(change)}: taken into the plan as it stands at the ${where === 'old' ? 'old' : 'new'} host.`, before);
    }
  }

  /** Lets a line of the gate pass with a reason, or takes that back. */
  async waive(legId: string, { line: key, facts, reason }: WaiveInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      const line = gateOf(leg.leg).lines.find((one) => one.key === key);
      if (!line) throw notFound('line');
      if (!line.waivable) throw new NotNow('This check cannot be skipped.', { kept: KEPT });
      if (reason !== null && factsOf(line) !== facts) throw new NotNow(`Something else is in the way by now: ${line.text}`, { kept: KEPT });
      if (reason !== null)
        await decide(
          { kind: 'waive', subject: key, value: { reason, about: line.about } satisfies Waiver },
          { kind: 'waive', text: `Skipped: ${line.text} Reason: ${reason}`, before: null, after: reason },
        );
      else if (line.waived)
        await decide(
          { kind: 'waive', subject: key, undoes: line.waived.id },
          { kind: 'waive', text: `No longer skipped: ${line.text}`, before: line.waived.value },
        );
    });
  }
}
