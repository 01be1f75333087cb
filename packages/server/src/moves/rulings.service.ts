import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { Acted, EditRuling, EditRulings, GivenInput } from '@wanderon/contract';
import {
  RULED_LABELS,
  Decision,
  LedgerRow,
  Name,
  RRsetText,
  Ruling,
  RulingEdit,
  Scope,
  decisionWords,
  titleOf,
  editRow,
  editRows,
  grouped,
  givenRow,
  inScope,
  newRow,
  redoable,
  rowSeen,
  rowsOf,
  undoable,
  setWords,
} from '@wanderon/core';
import { Database } from '../db/database';
import { Caller } from '../people/allow';
import { PeopleService } from '../people/people.service';
import { InvalidInput, NotNow, Refusal, notFound } from '../refusals';
import { LegParts, isSwitched, ledgerRows } from './legLoader';
import { KEPT, MoveActs } from './moveActs';
import { refuseAfterSwitch, rule, switched } from './planChanges';

/** What becomes of record sets, as people rule it, and their undo and redo. */
@Injectable()
export class RulingService {
  constructor(
    private readonly acts: MoveActs,
    private readonly people: PeopleService,
  ) {}

  /** Throws a NotNow where somebody else has ruled the row since it was seen: both are told, and the person decides again. */
  async editRuling(legId: string, rulingId: string, { seen, ...edit }: EditRuling, person: Caller): Promise<Acted> {
    return this.acts.lightly(legId, person, async ({ move, leg, transaction }) => {
      const [before] = ledgerRows(leg, [rulingId]);
      if (!before) throw notFound('ruling');
      if (isUnseen(before, seen, person)) await this.refuseUnseen(before, edit, transaction);
      if (isSwitched(move, leg)) throw switched();
      refuseOutside(leg.row.scope, before.owner, before.type);
      const result = editRow(Name.parse(`${move.domain}.`), before, edit);
      if (!result.ok) throw refused(result);
      const text = `${setWords(before)}: ${result.row ? RULED_LABELS[result.row.ruling] : 'taken out'}.`;
      return [
        { kind: 'ruling', subject: rulingId, value: { row: result.row } },
        { kind: 'ruling', text, before: told(before), after: result.row && told(result.row) },
      ];
    });
  }

  /** Throws a NotNow: somebody else has ruled a row otherwise than it was seen. */
  private async refuseUnseen(row: LedgerRow, mine: RulingEdit, database: Database): Promise<never> {
    const by = row.decidedBy!;
    const name = (await this.people.names([by], database)).get(by) ?? 'Somebody else';
    const theirs = `${RULED_LABELS[row.ruling]}${row.ruling === 'repoint' || row.ruling === 'new' ? ` to ${row.planned!.data.join(', ')}` : ''}`;
    const yours = `${RULED_LABELS[mine.ruling]}${mine.data === undefined ? '' : ` to ${mine.data.split('\n').join(', ')}`}`;
    throw new NotNow(`${name} has decided ${setWords(row)} meanwhile: ${theirs}.`, {
      detail: `Yours would be ${yours}: look at the row, and decide it again if it is to be so.`,
      kept: KEPT,
    });
  }

  /** Rules many rows at once, as one decision that one undo takes back; where one of them cannot be so, none is. */
  async editRulings(legId: string, { rows: ids, seen, ...edit }: EditRulings, person: Caller): Promise<Acted> {
    return this.acts.lightly(legId, person, async ({ move, leg, transaction }) => {
      if (isSwitched(move, leg)) throw switched();
      const rows = ledgerRows(leg, ids);
      if (rows.length < new Set(ids).size) throw new NotNow('Some of these rows were proposed anew, or are gone.', { detail: 'Mark them again.', kept: KEPT });
      for (const { owner, type } of rows) refuseOutside(leg.row.scope, owner, type);
      const saw = new Map(ids.map((id, index) => [id, seen?.[index]]));
      for (const row of rows) if (isUnseen(row, saw.get(row.id), person)) await this.refuseUnseen(row, edit, transaction);
      const result = editRows(Name.parse(`${move.domain}.`), rows, edit);
      if (!result.ok) throw refused(result);
      if (result.rows.length === 0) return undefined;
      const changed = new Set(result.rows.map(({ id }) => id));
      const before = toldTogether(rows.filter(({ id }) => changed.has(id)));
      const text = `${changed.size} ${changed.size === 1 ? 'row' : 'rows'}: ${RULED_LABELS[edit.ruling]}.`;
      return [
        { kind: 'rulings', value: grouped(result.rows) },
        { kind: 'ruling', text, before, after: edit },
      ];
    });
  }

  async addRuling(legId: string, typed: { owner: string; type: string; ttl: string; data: string }, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      refuseAfterSwitch(act);
      if (!act.leg.leg.plan.chosen) throw new NotNow('Choose where it goes first.', { kept: KEPT });
      const result = newRow(act.leg.leg.plan.zone, act.leg.rows, typed);
      if (!result.ok) throw refused(result);
      refuseOutside(act.leg.row.scope, result.row!.owner, result.row!.type);
      await rule(act, randomUUID(), result.row, `${setWords(result.row!)}: added.`, null);
    });
  }

  /** The value that the web host gave for this site goes into the plan; throws an InvalidInput where it is none. */
  async given(legId: string, { requirement: id, data }: GivenInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      refuseAfterSwitch(act);
      const { plan } = act.leg.leg;
      const requirement = plan.newWeb?.requires.find((one) => one.id === id);
      if (!requirement || requirement.data !== '') throw notFound('record that is asked for');
      const given = givenRow(plan, act.leg.rows, requirement, data);
      if (!given.ok) throw new InvalidInput(given.problem, { field: 'data', kept: KEPT });
      refuseOutside(act.leg.row.scope, given.row.owner, given.row.type);
      const before = act.leg.rows.find((one) => one.id === given.id) ?? null;
      const text = `${setWords(given.row)}: the value that ${plan.newWeb!.name} gave for this site.`;
      await rule(act, given.id ?? randomUUID(), given.row, text, before, { requirement: id, data: given.data });
    });
  }

  /** Takes a person's last decision back that can be. */
  async undo(legId: string, person: Caller): Promise<Acted> {
    let rows: Acted['rows'];
    const acted = await this.acts.lightly(legId, person, ({ move, leg }) => {
      const last = undoable(leg.decisions, person.id);
      if (!last) throw new NotNow('There is nothing of yours to undo.', { kept: KEPT });
      if ((last.kind === 'ruling' || last.kind === 'rulings') && isSwitched(move, leg)) throw switched();
      rows = rowsAfter(leg, last, last);
      return Promise.resolve([
        { kind: last.kind, subject: last.subject, undoes: last.id },
        { kind: last.kind, text: `${decisionWords(last, titleOf)}: taken back.`, before: last.value },
      ]);
    });
    return { ...acted, rows };
  }

  /** Makes a person's last undo undone. */
  async redo(legId: string, person: Caller): Promise<Acted> {
    let rows: Acted['rows'];
    const acted = await this.acts.lightly(legId, person, ({ move, leg }) => {
      const last = redoable(leg.decisions, person.id);
      if (!last) throw new NotNow('There is nothing of yours to do again.', { kept: KEPT });
      if ((last.kind === 'ruling' || last.kind === 'rulings') && isSwitched(move, leg)) throw switched();
      const whole = leg.decisions.find((one) => one.id === last.undoes)!;
      rows = rowsAfter(leg, last, whole);
      return Promise.resolve([
        { kind: last.kind, subject: last.subject, undoes: last.id },
        { kind: last.kind, text: `${decisionWords(whole, titleOf)}: again.`, after: whole.value },
      ]);
    });
    return { ...acted, rows };
  }
}

/** Whether somebody else has ruled a row otherwise than a person saw it. */
function isUnseen(row: LedgerRow, seen: string | undefined, person: Caller): boolean {
  return seen !== undefined && row.decidedBy !== null && row.decidedBy !== person.id && seen !== rowSeen(row);
}

/** Rows that an undo or redo tells of; of more the page reads the ledger anew. */
const TOLD_ROWS = 30;

/** The rows of `whole` as they are once `undone` does not count; undefined where they are many, or it is about none. */
function rowsAfter(leg: LegParts, undone: Decision, whole: Decision): Acted['rows'] {
  const ids = [...new Set(rowsOf(whole).map((one) => one.id))];
  if (ids.length === 0 || ids.length > TOLD_ROWS) return undefined;
  const { kind, subject, person, at } = undone;
  const id = Math.max(...leg.decisions.map((one) => one.id)) + 1;
  const after = ledgerRows({ ...leg, decisions: [...leg.decisions, { id, kind, subject, value: null, person, at, undoes: undone.id }] }, ids);
  return ids.map((one) => {
    const row = after.find((other) => other.id === one);
    return { id: one, row: row ? rowView(row) : null };
  });
}

function rowView({ owner, type, ruling, found, planned, reason }: LedgerRow): NonNullable<NonNullable<Acted['rows']>[number]['row']> {
  const set = (one: RRsetText | undefined) => (one ? { ...one, data: [...one.data] } : null);
  return { owner, type, ruling, found: set(found), planned: set(planned), reason };
}

/** Throws a NotNow where a row stands outside of what the move is about. */
export function refuseOutside(scope: Scope, owner: string, type: string): void {
  if (!inScope(scope, owner, type)) throw new NotNow(`${owner} is not in this move.`, { detail: 'It is about other names of the domain.', kept: KEPT });
}

/** A ruling as the trail keeps it: what was found is in the survey, and is kept or dropped as it stands there. */
function told({ owner, type, ruling, planned }: Ruling): Pick<Ruling, 'owner' | 'type' | 'ruling'> & Partial<Pick<RRsetText, 'ttl' | 'data'>> {
  return ruling === 'carry' || ruling === 'drop' || !planned ? { owner, type, ruling } : { owner, type, ruling, ttl: planned.ttl, data: planned.data };
}

/** Many rulings as the trail keeps them: the sets of which the same was ruled, together. */
export function toldTogether(rows: readonly Ruling[]): object[] {
  const groups = new Map<string, { readonly said: object; readonly sets: string[] }>();
  for (const row of rows) {
    const { owner, type, ...said } = told(row);
    const key = 'data' in said ? JSON.stringify(said) : said.ruling;
    const group = groups.get(key) ?? { said, sets: [] };
    groups.set(key, group);
    group.sets.push(`${owner} ${type}`);
  }
  return [...groups.values()].map(({ said, sets }) => ({ ...said, sets }));
}

/** A row that cannot be decided so, or not be read. */
function refused({ status, field, problem }: Extract<ReturnType<typeof editRow>, { ok: false }>): Refusal {
  const more = { ...(field ? { field } : {}), kept: KEPT };
  return status === 'refused' ? new NotNow(problem, more) : new InvalidInput(problem, more);
}
