import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { Acted, EditRuling, EditRulings, FrontingInput, GivenInput, NamedInput, NewMove, PanelShown, TypedInput } from '@wanderon/contract';
import {
  DomainChoice,
  Instant,
  Name,
  Ruling,
  RulingEdit,
  Scope,
  decisionWords,
  editRow,
  editRows,
  frontingOf,
  gateOf,
  givenRow,
  inScope,
  isChanging,
  isDone,
  isFirstUse,
  isTakeover,
  lacksNames,
  namesRefused,
  newRow,
  openStops,
  passes,
  readDomain,
  redoable,
  rowSeen,
  scopesMeet,
  sheetRowWords,
  stepOf,
  undoable,
} from '@wanderon/core';
import { NetError } from '@wanderon/net';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { Advancer } from '../engine/advance';
import { EventStore } from '../events/event.store';
import { Network } from '../network/network';
import { Caller } from '../people/allow';
import { PeopleService } from '../people/people.service';
import { InvalidInput, NotNow, NotReachable, Refusal, Unsuitable, notFound } from '../refusals';
import { readGiven } from '../survey/readGiven';
import { nameserversOf } from '../survey/takeSurvey';
import { LegLoader, isSwitched, ledgerRow } from './legLoader';
import { MoveRow } from './move.rows';
import { MoveStore } from './move.store';
import { Act, KEPT, MoveActs } from './moveActs';
import { refuseAfterSwitch, rule, switched } from './planChanges';

const FRONTING_WORDS: Readonly<Record<FrontingInput['state'], string>> = {
  off: 'fronting is off',
  later: 'fronting is off until the web host has verified the domain, and on then',
  on: 'fronting is on',
};

/** What people do to moves. Every change is checked, recorded and told to the open pages, in one transaction. */
@Injectable()
export class MoveService {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly store: MoveStore,
    private readonly loader: LegLoader,
    private readonly acts: MoveActs,
    private readonly events: EventStore,
    private readonly network: Network,
    private readonly advancer: Advancer,
    private readonly people: PeopleService,
  ) {}

  read(text: string): readonly DomainChoice[] {
    const reading = readDomain(text);
    if (!reading.ok) throw new InvalidInput(reading.problem, { field: 'domain', kept: KEPT });
    return reading.choices;
  }

  async start({ domain: text, scope: wish, unused }: NewMove, person: Caller): Promise<Acted> {
    const choices = this.read(text);
    const choice = choices.find((one) => one.scope === wish);
    // A name that is the website's own spelling goes with the whole domain; asked for alone, that is said and not done unsaid.
    if (!choice)
      throw new NotNow(`${text.trim()} cannot be moved alone: it goes with ${choices[0]!.shown}.`, {
        field: 'domain',
        detail: `Take the whole domain ${choices[0]!.shown}.`,
        kept: KEPT,
      });
    const scope = scopeOf(choice);
    const legKind = scope.kind === 'whole' ? 'delegation' : 'repoint';
    await this.refuseOverlap(choice, scope, this.database);
    await this.checkDelegated(choice, unused);
    const id = await this.database.transaction(async (transaction) => {
      // Two people may type the same domain at once: the second one waits here and is refused.
      await transaction.raw('select pg_advisory_xact_lock(hashtextextended(?, 1))', [choice.zone]);
      await this.refuseOverlap(choice, scope, transaction);
      const move = await this.store.create({ domain: choice.zone, scope, person: person.id, at: this.clock.now(), legKind }, transaction);
      await this.events.add(
        { person: person.id, domain: choice.zone, move, kind: 'begun', text: `The move of ${choice.shown} was begun.`, after: { scope } },
        transaction,
      );
      return move;
    });
    return this.acts.onMove(id, person, () => Promise.resolve());
  }

  /** Throws a NotNow where somebody else has ruled the row since it was seen: both are told, and the person decides again. */
  async editRuling(legId: string, rulingId: string, { seen, ...edit }: EditRuling, person: Caller): Promise<Acted> {
    return this.acts.lightly(legId, person, async ({ move, leg, transaction }) => {
      const standing = ledgerRow(leg, rulingId);
      if (!standing) throw notFound('ruling');
      const { row: before, by } = standing;
      if (seen !== undefined && seen !== rowSeen(before) && by !== null && by !== person.id) throw await this.ruledMeanwhile(before, by, edit, transaction);
      if (isSwitched(move, leg)) throw switched();
      refuseOutside(leg.row.scope, before.owner);
      const result = editRow(Name.parse(`${move.domain}.`), before, edit);
      if (!result.ok) throw refused(result);
      const text = `${before.owner} ${before.type}: ${result.row ? result.row.ruling : 'taken out'}.`;
      return [
        { kind: 'ruling', subject: rulingId, value: { row: result.row } },
        { kind: 'ruling', text, before, after: result.row },
      ];
    });
  }

  private async ruledMeanwhile(row: Ruling, by: string, mine: RulingEdit, database: Database): Promise<NotNow> {
    const name = (await this.people.names([by], database)).get(by) ?? 'Somebody else';
    const theirs = `${row.ruling}${row.ruling === 'repoint' || row.ruling === 'new' ? ` to ${row.planned!.data.join(', ')}` : ''}`;
    const yours = `${mine.ruling}${mine.data === undefined ? '' : ` to ${mine.data.split('\n').join(', ')}`}`;
    return new NotNow(`${name} has ruled ${row.owner} ${row.type} meanwhile: ${theirs}.`, {
      detail: `Yours would be ${yours}: look at the row, and rule it again if it is to be so.`,
      kept: KEPT,
    });
  }

  /** Rules many rows at once, as one decision that one undo takes back; where one of them cannot be so, none is. */
  async editRulings(legId: string, { rows: ids, seen, ...edit }: EditRulings, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      refuseAfterSwitch(act);
      const wanted = new Set(ids);
      const rows = act.leg.rows.filter((one) => wanted.has(one.id));
      if (rows.length < wanted.size) throw new NotNow('Some of these rows were proposed anew, or are gone.', { detail: 'Mark them again.', kept: KEPT });
      for (const { owner } of rows) refuseOutside(act.leg.row.scope, owner);
      const saw = new Map(ids.map((id, index) => [id, seen?.[index]]));
      const other = rows.find(
        (one) => one.decidedBy !== null && one.decidedBy !== person.id && saw.get(one.id) !== undefined && saw.get(one.id) !== rowSeen(one),
      );
      if (other) throw await this.ruledMeanwhile(other, other.decidedBy!, edit, act.transaction);
      const result = editRows(act.leg.leg.plan.zone, rows, edit);
      if (!result.ok) throw refused(result);
      if (result.rows.length === 0) return;
      const text = `${result.rows.length} ${result.rows.length === 1 ? 'row' : 'rows'}: ${edit.ruling}.`;
      const before = rows.filter((one) => result.rows.some(({ id }) => id === one.id));
      await act.decide({ kind: 'rulings', value: { rows: result.rows } }, { kind: 'ruling', text, before, after: result.rows });
    });
  }

  async addRuling(legId: string, typed: { owner: string; type: string; ttl: string; data: string }, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      refuseAfterSwitch(act);
      if (!act.leg.leg.plan.chosen) throw new NotNow('Choose where it goes first.', { kept: KEPT });
      const result = newRow(act.leg.leg.plan.zone, act.leg.rows, typed);
      if (!result.ok) throw refused(result);
      refuseOutside(act.leg.row.scope, result.row!.owner);
      await rule(act, randomUUID(), result.row, `${result.row!.owner} ${result.row!.type}: new.`, null);
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
      refuseOutside(act.leg.row.scope, given.row.owner);
      const before = act.leg.rows.find((one) => one.id === given.id) ?? null;
      const text = `${given.row.owner} ${given.row.type}: the value that ${plan.newWeb!.name} gave for this site.`;
      await rule(act, given.id ?? randomUUID(), given.row, text, before, { requirement: id, data: given.data });
    });
  }

  /** Takes a person's last decision back that can be. */
  async undo(legId: string, person: Caller): Promise<Acted> {
    return this.acts.lightly(legId, person, ({ move, leg }) => {
      const last = undoable(leg.decisions, person.id);
      if (!last) throw new NotNow('There is nothing of yours to undo.', { kept: KEPT });
      if ((last.kind === 'ruling' || last.kind === 'rulings') && isSwitched(move, leg)) throw switched();
      return Promise.resolve([
        { kind: last.kind, subject: last.subject, undoes: last.id },
        { kind: last.kind, text: `${decisionWords(last)}: taken back.`, before: last.value },
      ]);
    });
  }

  /** Makes a person's last undo undone. */
  async redo(legId: string, person: Caller): Promise<Acted> {
    return this.acts.lightly(legId, person, ({ move, leg }) => {
      const last = redoable(leg.decisions, person.id);
      if (!last) throw new NotNow('There is nothing of yours to do again.', { kept: KEPT });
      if ((last.kind === 'ruling' || last.kind === 'rulings') && isSwitched(move, leg)) throw switched();
      const whole = leg.decisions.find((one) => one.id === last.undoes)!;
      return Promise.resolve([
        { kind: last.kind, subject: last.subject, undoes: last.id },
        { kind: last.kind, text: `${decisionWords(whole)}: again.`, after: whole.value },
      ]);
    });
  }

  async push(legId: string, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      if (!leg.leg.plan.chosen) throw new NotNow('Choose where it goes first.', { kept: KEPT });
      if (leg.leg.plan.kind === 'repoint') throw new NotNow('The zone stays where it is: nothing is pushed.', { kept: KEPT });
      if (lacksNames(leg.leg.plan)) throw new NotNow(`Say first which nameservers ${leg.leg.plan.newHost!.name} gave this domain.`, { kept: KEPT });
      const [stop] = openStops(leg.leg.remarks);
      if (stop) throw new NotNow(`${stop.owner} ${stop.type}: ${stop.text}`, { kept: KEPT });
      if (isDone(leg.leg, 'push')) throw new NotNow('This was done already.', { kept: KEPT });
      if (leg.said.pushed && stepOf(leg.leg, 'push')!.standing.state !== 'stopped') throw new NotNow('This was decided already.', { kept: KEPT });
      await decide({ kind: 'push' }, { kind: 'push', text: 'The push of the new zone was decided.', before: null, after: null });
      if (leg.said.pushed) await decide({ kind: 'retry', subject: 'push' }, { kind: 'retry', text: 'Push the new zone: to be tried again.' });
    });
  }

  /** Ticks a row of the handover sheet, or takes the tick off. */
  async typed(legId: string, { row, typed }: TypedInput, person: Caller): Promise<Acted> {
    return this.acts.lightly(legId, person, () =>
      Promise.resolve([
        { kind: 'typed', subject: row, value: typed },
        { kind: 'typed', text: `${typed ? 'Typed' : 'Not typed after all'}: ${sheetRowWords(row)}` },
      ]),
    );
  }

  /** Takes what the panel of the DNS host was seen to show: the sheet goes from there to the plan. Throws an InvalidInput that names a row. */
  async shown(legId: string, { sets }: PanelShown, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      if (!leg.leg.plan.chosen) throw new NotNow('Choose where it goes first.', { kept: KEPT });
      const value = sets && readGiven({ names: [], sets }, leg.leg.plan.zone).sets;
      const text = value
        ? `What the panel shows was pasted: ${value.length} record ${value.length === 1 ? 'set' : 'sets'}.`
        : 'What the panel showed was forgotten.';
      await decide({ kind: 'panel', value }, { kind: 'panel', text, before: leg.said.shown ?? null, after: value });
    });
  }

  /** Which nameservers the new DNS host gave this domain. Throws an InvalidInput that says why they cannot be. */
  async named(legId: string, { names }: NamedInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide, transaction }) => {
      const refusal = namesRefused(leg.leg, names);
      if (refusal !== undefined) throw new InvalidInput(refusal, { field: 'names', kept: KEPT });
      const before = leg.row.new_nameservers;
      // Where they are is found anew: what was seen at others says nothing of these.
      await this.store.updateLeg(leg.row.id, { new_nameservers: names, new_servers: [] }, transaction);
      const text = `${leg.leg.plan.newHost!.name} gave this domain ${names.map((name) => name.replace(/\.$/, '')).join(', ')}.`;
      await decide({ kind: 'named', value: names }, { kind: 'named', text, before, after: names });
    });
  }

  /** How a name is to be answered at a DNS host that fronts names. Throws a NotNow where it does not, or the name leads nowhere. */
  async front(legId: string, { owner, state }: FrontingInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      const name = owner.toLowerCase();
      const before = frontingOf(leg.leg.plan).get(name);
      if (before === undefined) throw new NotNow(`${owner} is not fronted at ${leg.leg.plan.newHost?.name ?? 'the DNS host'}.`, { field: 'owner', kept: KEPT });
      if (leg.leg.ts !== undefined) throw new NotNow('The change is under way: what is answered now is not decided any more.', { kept: KEPT });
      if (before === state) return;
      await decide({ kind: 'front', subject: name, value: state }, { kind: 'front', text: `${owner}: ${FRONTING_WORDS[state]}.`, before, after: state });
    });
  }

  /** Decides beforehand what Wanderon does by itself: lowering, turning the old zone, raising. */
  async approve(legId: string, plan: { lowerAt: Instant | null; plannedSwitch: Instant | null; lowerTo: number }, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide, at }) => {
      if (!leg.leg.plan.chosen) throw new NotNow('Choose where it goes first.', { kept: KEPT });
      if (plan.lowerAt !== null && plan.lowerAt < at - 60) throw new InvalidInput('The lowering lies in the past.', { field: 'lowerAt', kept: KEPT });
      // Where nothing was delegated before, nothing is lowered, and the raising is all that is approved.
      if (leg.leg.ts !== undefined && !isFirstUse(leg.leg.plan)) throw new NotNow('The switch is under way.', { kept: KEPT });
      await decide(
        { kind: 'approve', value: plan },
        {
          kind: 'approve',
          text: 'The timetable was approved: lower the TTLs, turn the old zone, raise the TTLs.',
          before: leg.said.approved?.value ?? null,
          after: plan,
        },
      );
    });
  }

  /** The nameservers were changed at the registrar, or the records are to change: everything that can have changed is looked at again first. */
  async submitted(legId: string, person: Caller): Promise<Acted> {
    const moveId = await this.store.moveOf(legId);
    const { current } = await this.loader.load(moveId);
    const inPlace = current.leg.plan.kind === 'repoint';
    const state = stepOf(current.leg, inPlace ? 'change' : 'switch')?.standing.state;
    if (state === 'done') throw new NotNow(inPlace ? 'The records were changed already.' : 'The switch was seen already.', { kept: KEPT });
    if (state === 'waiting') throw new NotNow(this.shut(current.leg, `It is not time for the ${inPlace ? 'change' : 'switch'} yet`), { kept: KEPT });
    if (current.leg.times.ts === undefined) await this.advancer.lookForGate(moveId);
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      if (leg.said.submittedAt !== undefined) return;
      if (leg.leg.times.ts === undefined && !gateOf(leg.leg).open)
        throw new NotNow(this.shut(leg.leg, 'The gate is shut'), { detail: this.evidence(leg.leg), kept: KEPT });
      await decide(
        { kind: 'submitted' },
        {
          kind: 'submitted',
          ...submittedWords(leg),
        },
      );
    });
  }

  private shut(leg: Act['leg']['leg'], words: string): string {
    const lacking = gateOf(leg).lines.filter((line) => !passes(line));
    return `${words}: ${lacking.map((line) => line.text).join(' ')}`;
  }

  private evidence(leg: Act['leg']['leg']): string {
    const lacking = gateOf(leg).lines.filter((line) => !passes(line) && line.evidence !== null);
    return lacking.map((line) => line.evidence).join(' ');
  }

  async lookAtWebsite(legId: string, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      if (!leg.leg.plan.chosen) throw new NotNow('Where the website will be is known once the hosts are chosen.', { kept: KEPT });
      if (isDone(leg.leg, 'settle')) throw new NotNow('The move is settled: the website is not looked at any more.', { kept: KEPT });
      await decide({ kind: 'website' }, { kind: 'website', text: 'A look at the website was asked for.' });
    });
  }

  async close(id: string, person: Caller): Promise<Acted> {
    return this.acts.onMove(id, person, async (act) => {
      if (stepOf(act.leg.leg, 'close')?.standing.state !== 'ready') throw new NotNow('The move is not settled yet.', { kept: KEPT });
      await this.end(act, 'closed', 'The move was closed.');
    });
  }

  async abandon(id: string, person: Caller): Promise<Acted> {
    return this.acts.onMove(id, person, (act) => this.end(act, 'abandoned', 'The move was abandoned. What was sent to DNS hosts stays as it is.'));
  }

  private async end({ move, transaction, at, note }: Act, state: 'closed' | 'abandoned', text: string): Promise<void> {
    await transaction('moves').where({ id: move.id }).update({ state, closed_at: at, wake_at: null });
    await note({ kind: state, text, before: { state: move.state }, after: { state } });
  }

  private async refuseOverlap(choice: DomainChoice, scope: Scope, database: Database): Promise<void> {
    const other: MoveRow | undefined = (await this.store.openOf(choice.zone, database)).find((move) => scopesMeet(move.scope, scope));
    if (other)
      throw new NotNow(`${choice.shown} is being moved already.`, {
        field: 'domain',
        detail: 'Open that move, or close it first.',
        kept: KEPT,
        move: other.id,
      });
  }

  private async checkDelegated(choice: DomainChoice, unused: boolean): Promise<void> {
    try {
      const delegation = await this.network.walker().delegation(Name.parse(`${choice.zone}.`));
      // A domain that was never used is begun by a word of its own: most that are not delegated are misspelt.
      if (nameserversOf(delegation).length === 0 && !(unused && choice.scope === 'whole'))
        throw new Unsuitable(
          `${choice.shown} is not delegated: the servers of ${delegation.parent.replace(/\.$/, '') || 'the root'} know no nameservers for it.`,
          {
            field: 'domain',
            kept: KEPT,
            ...(choice.scope === 'whole' ? { detail: 'Look whether it is spelt right. If it was never used before, begin it as that.', unused: true } : {}),
          },
        );
    } catch (error) {
      if (error instanceof NetError)
        throw new NotReachable(`The delegation of ${choice.shown} cannot be read: ${error.message}.`, {
          field: 'domain',
          detail: 'Try again when the network answers.',
          kept: KEPT,
        });
      throw error;
    }
  }
}

/** Throws a NotNow where a row stands outside of what the move is about. */
function refuseOutside(scope: Scope, owner: string): void {
  if (!inScope(scope, owner)) throw new NotNow(`${owner} is not in this move.`, { detail: 'It is about other names of the domain.', kept: KEPT });
}

/** Each name goes with its own `www`. */
function scopeOf({ scope, names }: DomainChoice): Scope {
  return scope === 'whole' ? { kind: 'whole' } : { kind: 'names', names: [...new Set(names.flatMap((name) => [name, `www.${name}`]))] };
}

function submittedWords({ row, leg, rows }: Act['leg']): { text: string; before: unknown; after: unknown } {
  if (leg.plan.kind === 'delegation')
    return { text: 'The change of nameservers was submitted at the registrar.', before: row.old_nameservers, after: row.new_nameservers };
  if (isTakeover(leg.plan)) return { text: 'The other account is taking the zone over.', before: row.old_dns_host, after: row.new_dns_host };
  const changing = rows.filter(isChanging);
  return {
    text: leg.plan.newHost?.keyed ? 'The change of the records was decided.' : 'The records were changed by hand.',
    before: changing.map(({ found }) => found ?? null),
    after: changing.map(({ planned }) => planned ?? null),
  };
}

/** A row that cannot be decided so, or not be read. */
function refused({ status, field, problem }: Extract<ReturnType<typeof editRow>, { ok: false }>): Refusal {
  const more = { ...(field ? { field } : {}), kept: KEPT };
  return status === 'refused' ? new NotNow(problem, more) : new InvalidInput(problem, more);
}
