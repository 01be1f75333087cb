import { Injectable } from '@nestjs/common';
import { Acted, MakeRule, TakeRule } from '@wanderon/contract';
import { LedgerRow, MadeRule, RULE_OVER, RuleOffer, Ruled, StandingRule, grouped, readRuleTo, rowSeen, ruleOffers, ruleWords, ruledBy } from '@wanderon/core';
import { Caller } from '../people/allow';
import { InvalidInput, NotNow, notFound } from '../refusals';
import { saidOfSurvey } from '../survey/saidOfSurvey';
import { Act, KEPT, MoveActs } from './moveActs';
import { refuseAfterSwitch } from './planChanges';
import { refuseOutside, toldTogether } from './rulings.service';

/** Rules by which people rule many rows at once, and which are offered to rows that come later. */
@Injectable()
export class RuleService {
  constructor(private readonly acts: MoveActs) {}

  /** Rules the rows that were previewed, as one decision that one undo takes back together with the rule. Throws a NotNow where they are others by now. */
  async make(legId: string, { like, group, ruling, to, rows, except, seen }: MakeRule, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      refuseAfterSwitch(act);
      const { zone } = act.leg.leg.plan;
      const read = ruling === 'repoint' ? readRuleTo(zone, to) : { ok: true as const, to: [] };
      if (!read.ok) throw new InvalidInput(read.problem, { field: 'to', kept: KEPT });
      const rule: StandingRule = { like, group, ruling, to: read.to };
      const left = new Set(except);
      const changes = ruledBy(zone, act.leg.rows, rule, saidOfSurvey(act.leg.stands).purposes).changes.filter(({ before }) => !left.has(before.id));
      refuseOtherwise(changes, rows, seen);
      await write(act, changes, ruleWords(rule), { ...rule, except });
    });
  }

  /** Rules rows by a rule that was made for others before. Throws a NotNow where they are no longer those that it was offered to. */
  async take(legId: string, id: string, { rows, seen }: TakeRule, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      refuseAfterSwitch(act);
      const offer = offerOf(act, id);
      const wanted = new Set(rows);
      const changes = offer.rows.filter(({ before }) => wanted.has(before.id));
      refuseOtherwise(changes, rows, seen);
      await write(act, changes, `By the rule “${ruleWords(offer.rule)}”`);
    });
  }

  /** The rule is offered to no more rows; what was ruled by it stays so. */
  async end(legId: string, id: string, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      const { rule } = offerOf(act, id);
      const text = `The rule “${ruleWords(rule)}” is over.`;
      await act.decide({ kind: RULE_OVER, subject: id, value: true }, { kind: RULE_OVER, text, before: rule });
    });
  }
}

/** Throws where no such rule stands. */
function offerOf({ leg }: Act, id: string): RuleOffer {
  const offer = ruleOffers(leg.leg.plan.zone, leg.rows, leg.stands, saidOfSurvey(leg.stands).purposes).find((one) => String(one.id) === id);
  if (!offer) throw notFound('rule');
  return offer;
}

/** Throws a NotNow where a preview showed other rows, or one of them as another one. */
function refuseOtherwise(changes: Ruled['changes'], rows: readonly string[], seen: readonly string[]): void {
  const saw = new Map(rows.map((id, index) => [id, seen[index]]));
  const isSeen = ({ before }: { before: LedgerRow }): boolean => saw.get(before.id) === rowSeen(before);
  if (changes.length === saw.size && changes.every(isSeen)) return;
  throw new NotNow('The rows are others by now than the preview showed.', { detail: 'Look at it again: it shows them as they are.', kept: KEPT });
}

async function write(act: Act, changes: Ruled['changes'], words: string, rule?: MadeRule): Promise<void> {
  for (const { before } of changes) refuseOutside(act.leg.row.scope, before.owner, before.type);
  const rows = changes.map(({ before, row }) => ({ id: before.id, row }));
  const text = `${words}: ${rows.length} ${rows.length === 1 ? 'row' : 'rows'}.`;
  await act.decide(
    { kind: 'rulings', value: { ...grouped(rows), ...(rule && { rule }) } },
    { kind: 'ruling', text, before: toldTogether(changes.map(({ before }) => before)), after: rule },
  );
}
