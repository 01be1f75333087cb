import { Injectable } from '@nestjs/common';
import { Acted, CommentInput, RowStory } from '@wanderon/contract';
import { Name, RowEvent, rowEnds, rowHistory, setKey, standing } from '@wanderon/core';
import { Caller } from '../people/allow';
import { PeopleService } from '../people/people.service';
import { NotAllowed, notFound } from '../refusals';
import { SurveyStore } from '../survey/survey.store';
import { LegLoader, LoadedLeg, ledgerRows } from './legLoader';
import { MoveStore } from './move.store';
import { KEPT, MoveActs } from './moveActs';

/** What lies behind one row of a ledger, and what people write beside it. */
@Injectable()
export class RowStoryService {
  constructor(
    private readonly people: PeopleService,
    private readonly store: MoveStore,
    private readonly loader: LegLoader,
    private readonly surveys: SurveyStore,
    private readonly acts: MoveActs,
  ) {}

  /** Throws a NotFound where the ledger has no such row. */
  async story(legId: string, rowId: string, person: Caller): Promise<RowStory> {
    const loaded = await this.loader.load(await this.store.moveOf(legId));
    const leg = loaded.legs.find((one) => one.row.id === legId)!;
    const row = rowOf(leg, rowId);
    const behind = leg.row.survey_id ? await this.surveys.behind(leg.row.survey_id, row) : { evidence: [], ends: [] };
    const outside = behind.ends.map(({ target, addresses }) => ({ target: Name.parse(target), addresses }));
    const { before, after } = rowEnds(row, leg.leg.plan.rulings, outside);
    const { events, comments } = rowHistory(leg.decisions, row);
    const names = await this.people.names([...events, ...comments].flatMap(({ decision }) => decision.person ?? []));
    const who = ({ decision }: RowEvent): string | null => names.get(decision.person ?? '') ?? null;
    const asEnd = ({ target, addresses }: (typeof before)[number]) => ({ target: target.toString(), addresses: [...addresses] });
    return {
      evidence: [...behind.evidence],
      before: before.map(asEnd),
      after: after.map(asEnd),
      history: events.map((one) => ({ at: one.decision.at, who: who(one), text: one.text, undone: one.undone })),
      comments: comments.map((one) => ({ id: one.decision.id, at: one.decision.at, who: who(one), text: one.text, mine: one.decision.person === person.id })),
    };
  }

  async comment(legId: string, rowId: string, { text }: CommentInput, person: Caller): Promise<Acted> {
    return this.acts.lightly(legId, person, ({ leg }) => {
      const [row] = ledgerRows(leg, [rowId]);
      if (!row) throw notFound('row');
      const { owner, type } = row;
      return Promise.resolve([
        { kind: 'comment', subject: setKey(owner, type), value: { text } },
        { kind: 'comment', text: `${owner} ${type}: ${text}` },
      ]);
    });
  }

  /** Takes back what somebody wrote; the trail keeps it. Throws a NotAllowed for what another person wrote, administrators aside. */
  async takeBack(legId: string, comment: string, person: Caller): Promise<Acted> {
    return this.acts.lightly(legId, person, ({ leg }) => {
      const written = standing(leg.decisions).find((one) => String(one.id) === comment && one.kind === 'comment');
      if (!written) throw notFound('comment');
      if (written.person !== person.id && person.role !== 'administrator') throw new NotAllowed('Somebody else wrote this.', { kept: KEPT });
      return Promise.resolve([
        { kind: 'comment', subject: written.subject, undoes: written.id },
        { kind: 'comment', text: `${written.subject.replace('/', ' ')}: a comment was taken back.`, before: written.value },
      ]);
    });
  }
}

function rowOf({ rows }: LoadedLeg, id: string): LoadedLeg['rows'][number] {
  const row = rows.find((one) => one.id === id);
  if (!row) throw notFound('row');
  return row;
}
