import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import {
  DomainChoice,
  Instant,
  Name,
  RulingKind,
  Scope,
  StepKind,
  isDone,
  openSteps,
  proposeRulings,
  readDomain,
  readRow,
  rrsetFromText,
  scopesMeet,
  showName,
} from '@wanderon/core';
import { NetError } from '@wanderon/net';
import { CLOCK, Clock } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';
import { EventStore } from '../events/event.store';
import { HostStore, knowledgeOf } from '../hosts/host.store';
import { LiveService } from '../live/live.service';
import { Network } from '../network/network';
import { Caller } from '../people/allow';
import { ProblemError, notFound } from '../problem';
import { SurveyViews } from '../survey/survey.view';
import { nameserversOf } from '../survey/takeSurvey';
import { gateOf } from '../timetable/gate';
import { Leg, Move, RulingRow, StepRow } from './leg';
import { KEPT, MoveActs } from './moveActs';
import { MoveStore } from './move.store';
import { MoveViews } from './move.view';

/** What people do to moves. Every change is checked, recorded and told to the open pages, in one transaction where it writes. */
@Injectable()
export class MoveService {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(CONFIG) private readonly config: Config,
    private readonly store: MoveStore,
    private readonly views: MoveViews,
    private readonly hosts: HostStore,
    private readonly acts: MoveActs,
    private readonly surveyViews: SurveyViews,
    private readonly events: EventStore,
    private readonly network: Network,
    private readonly live: LiveService,
  ) {}

  read(text: string): readonly DomainChoice[] {
    const reading = readDomain(text);
    if (!reading.ok) throw new ProblemError(400, reading.problem, { field: 'domain', kept: KEPT });
    return reading.choices;
  }

  async start(text: string, wish: 'whole' | 'name', person: Caller): Promise<string> {
    const choices = this.read(text);
    const choice = choices.find((one) => one.scope === wish) ?? choices[0]!;
    if (choice.scope === 'name')
      throw new ProblemError(409, `Moving ${choice.shown} alone is not possible yet.`, {
        field: 'domain',
        detail: `Wanderon moves whole domains so far: take ${showName(choice.zone)}.`,
        kept: KEPT,
      });
    const scope: Scope = { kind: 'whole' };
    await this.refuseOverlap(choice, scope);
    await this.checkDelegated(choice);
    const id = await this.database.transaction(async (transaction) => {
      // Two people may type the same domain at once: the second one waits here and is refused.
      await transaction.raw('select pg_advisory_xact_lock(hashtextextended(?, 1))', [choice.zone]);
      await this.refuseOverlap(choice, scope);
      const move = await this.store.create(
        { domain: choice.zone, client: undefined, scope, person: person.id, at: this.clock.now(), legKind: 'delegation' },
        transaction,
      );
      await this.events.add(
        { person: person.id, domain: choice.zone, move, kind: 'begun', text: `The move of ${choice.shown} was begun.`, after: { scope } },
        transaction,
      );
      return move;
    });
    await this.acts.changed(id);
    return id;
  }

  /** Which hosts the domain goes to; proposes the rulings anew. */
  async chooseHosts(id: string, choice: { newDnsHost: string; newWebHost: string | null }, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (!isDone(steps, 'survey')) throw new ProblemError(409, 'The survey is not finished yet.', { kept: KEPT });
    this.acts.refuseOnce(steps, ['push', 'lower'], 'The hosts can be chosen until the push or the lowering is decided.');
    const dns = await this.hosts.get(choice.newDnsHost);
    const web = choice.newWebHost ? await this.hosts.get(choice.newWebHost) : undefined;
    if (dns.role !== 'dns' || dns.nameservers.length === 0)
      throw new ProblemError(400, `${dns.name} is not a DNS host with nameservers.`, { field: 'newDnsHost', kept: KEPT });
    if (web && web.role !== 'web') throw new ProblemError(400, `${web.name} is not a web host.`, { field: 'newWebHost', kept: KEPT });
    if (dns.id === leg.old_dns_host) throw new ProblemError(400, `The domain is at ${dns.name} already.`, { field: 'newDnsHost', kept: KEPT });
    const survey = await this.surveyViews.ofMove(move, leg, leg.survey_id!);
    const oldWeb = leg.old_web_host ? [knowledgeOf(await this.hosts.get(leg.old_web_host))] : [];
    // What a host's front answers is not what moves: what it stores is.
    const found = survey.sets.map((set) => rrsetFromText({ ...set, data: set.stored ?? set.data }));
    const rulings = proposeRulings(Name.parse(`${move.domain}.`), found, { oldWeb, newDns: knowledgeOf(dns), newWeb: web && knowledgeOf(web) });
    await this.database.transaction(async (transaction) => {
      await transaction('legs')
        .where({ id: leg.id })
        .update({ new_dns_host: dns.id, new_web_host: web?.id ?? null, new_nameservers: JSON.stringify(dns.nameservers), served: null });
      await this.store.replaceRulings(leg.id, rulings, transaction);
      await this.store.setStep(
        leg.id,
        'choose',
        { state: 'done', done_at: this.clock.now(), decided_by: person.id, decided_at: this.clock.now() },
        transaction,
      );
      await this.acts.event(
        move,
        person,
        'choose',
        `Goes to ${dns.name}${web ? ` and ${web.name}` : ''}; ${rulings.length} rulings proposed.`,
        { before: { dns: leg.new_dns_host, web: leg.new_web_host }, after: { dns: dns.id, web: web?.id ?? null } },
        transaction,
      );
    });
    await this.acts.changed(id);
  }

  async editRuling(
    id: string,
    rulingId: string,
    edit: { ruling: RulingKind; ttl?: string | undefined; data?: string | undefined },
    person: Caller,
  ): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    this.acts.refuseOnce(steps, ['push'], 'The rulings are fixed once the push is decided.');
    const before = (await this.store.rulings(leg.id)).find((row) => row.id === rulingId);
    if (!before) throw notFound('ruling');
    const after = this.apply(move, before, edit, person);
    await this.database.transaction(async (transaction) => {
      if (after) await this.writeRuling(after, transaction);
      else await transaction('rulings').where({ id: before.id }).delete();
      await transaction('ruling_changes').insert({
        leg_id: leg.id,
        ruling_id: before.id,
        before: JSON.stringify(before),
        after: after ? JSON.stringify(after) : null,
      });
      await this.acts.event(move, person, 'ruling', `${before.owner} ${before.type}: ${after ? after.ruling : 'taken out'}.`, { before, after }, transaction);
    });
    await this.acts.changed(id);
  }

  async addRuling(id: string, row: { owner: string; type: string; ttl: string; data: string }, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (!isDone(steps, 'choose')) throw new ProblemError(409, 'Choose the hosts first.', { kept: KEPT });
    this.acts.refuseOnce(steps, ['push'], 'The rulings are fixed once the push is decided.');
    const read = readRow(Name.parse(`${move.domain}.`), row);
    if (!read.ok) throw new ProblemError(400, read.problem, { field: read.field, kept: KEPT });
    const rulings = await this.store.rulings(leg.id);
    if (rulings.some((one) => one.owner.toLowerCase() === read.set.owner.toLowerCase() && one.type === read.set.type))
      throw new ProblemError(409, `${read.set.owner} ${read.set.type} is in the ledger already: change that row.`, { field: 'owner', kept: KEPT });
    const after: RulingRow = {
      id: randomUUID(),
      leg_id: leg.id,
      position: Math.max(-1, ...rulings.map((one) => one.position)) + 1,
      owner: read.set.owner,
      type: read.set.type,
      ruling: 'new',
      found: null,
      planned: read.set,
      reason: 'added by hand',
      decided_by: person.id,
    };
    await this.database.transaction(async (transaction) => {
      await this.writeRuling(after, transaction);
      await transaction('ruling_changes').insert({ leg_id: leg.id, ruling_id: after.id, before: null, after: JSON.stringify(after) });
      await this.acts.event(move, person, 'ruling', `${after.owner} ${after.type}: new.`, { before: null, after }, transaction);
    });
    await this.acts.changed(id);
  }

  /** Takes the last change of a ruling back. */
  async undo(id: string, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    this.acts.refuseOnce(steps, ['push'], 'The rulings are fixed once the push is decided.');
    await this.database.transaction(async (transaction) => {
      const change = await transaction('ruling_changes')
        .where({ leg_id: leg.id, undone: false })
        .orderBy('id', 'desc')
        .forUpdate()
        .first<{ id: string; ruling_id: string; before: RulingRow | null; after: RulingRow | null } | undefined>();
      if (!change) throw new ProblemError(409, 'There is nothing to undo.', { kept: KEPT });
      if (change.before) await this.writeRuling(change.before, transaction);
      else await transaction('rulings').where({ id: change.ruling_id }).delete();
      await transaction('ruling_changes').where({ id: change.id }).update({ undone: true });
      const row = change.before ?? change.after!;
      await this.acts.event(
        move,
        person,
        'ruling',
        `${row.owner} ${row.type}: the last change was undone.`,
        { before: change.after, after: change.before },
        transaction,
      );
    });
    await this.acts.changed(id);
  }

  async push(id: string, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (!isDone(steps, 'choose')) throw new ProblemError(409, 'Choose the hosts first.', { kept: KEPT });
    const rulings = await this.store.rulings(leg.id);
    const stop = (await this.views.remarks(move, leg, rulings)).find((remark) => remark.weight === 'stop');
    if (stop) throw new ProblemError(409, `${stop.owner} ${stop.type}: ${stop.text}`, { kept: KEPT });
    await this.decide(move, leg, steps, 'push', null, person, 'The push of the new zone was decided.');
    await this.acts.changed(id);
  }

  /** Decides beforehand what Wanderon does by itself: lowering, turning the old zone, raising. */
  async approve(id: string, plan: { lowerAt: Instant | null; plannedSwitch: Instant | null; lowerTo: number }, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (!isDone(steps, 'choose')) throw new ProblemError(409, 'Choose the hosts first.', { kept: KEPT });
    if (plan.lowerAt !== null && plan.lowerAt < this.clock.now() - 60)
      throw new ProblemError(400, 'The lowering lies in the past.', { field: 'lowerAt', kept: KEPT });
    await this.database.transaction(async (transaction) => {
      for (const kind of ['lower', 'turn', 'raise'] as const) {
        if (isDone(steps, kind)) continue;
        await this.store.setStep(
          leg.id,
          kind,
          {
            decided_by: person.id,
            decided_at: this.clock.now(),
            due_at: kind === 'lower' ? plan.lowerAt : null,
            ...(kind === 'lower' ? { state: 'due' as const, problem: null } : {}),
          },
          transaction,
        );
      }
      await this.store.addFacts(leg.id, { lowerTo: plan.lowerTo, ...(plan.plannedSwitch === null ? {} : { plannedSwitch: plan.plannedSwitch }) }, transaction);
      await this.acts.event(
        move,
        person,
        'approve',
        'The timetable was approved: lower the TTLs, turn the old zone after the switch, raise the TTLs once settled.',
        { after: plan },
        transaction,
      );
    });
    await this.acts.changed(id);
  }

  /** The person says that the change was sent at the registrar. */
  async submitted(id: string, person: Caller): Promise<void> {
    const { move, leg, steps, rulings } = await this.acts.open(id);
    if (!openSteps(steps).includes('switch'))
      throw new ProblemError(409, isDone(steps, 'switch') ? 'The switch was seen already.' : 'It is not time for the switch yet.', { kept: KEPT });
    const gate = gateOf(leg, steps, rulings, await this.views.remarks(move, leg, rulings), this.clock.now(), this.config);
    const first = gate.lines.find((line) => !line.holds);
    if (first) throw new ProblemError(409, `The gate is shut: ${first.text}`, { kept: KEPT });
    if (leg.facts.ts === undefined) {
      await this.database.transaction(async (transaction) => {
        await this.store.addFacts(leg.id, { ts: this.clock.now() }, transaction);
        await this.acts.event(
          move,
          person,
          'submitted',
          'The change of nameservers was submitted at the registrar.',
          { before: leg.old_nameservers, after: leg.new_nameservers },
          transaction,
        );
      });
    }
    await this.acts.changed(id);
  }

  async act(id: string, kind: StepKind, action: 'retry' | 'skip', person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    const step = steps.find((one) => one.kind === kind)!;
    if (action === 'skip') {
      if (!(['lower', 'turn', 'raise'] as StepKind[]).includes(kind) || step.state !== 'failed')
        throw new ProblemError(409, 'This step cannot be left out.', { kept: KEPT });
      await this.database.transaction(async (transaction) => {
        await this.store.setStep(leg.id, kind, { state: 'done', done_at: this.clock.now(), problem: null, decided_by: person.id }, transaction);
        if (kind === 'turn') await this.store.addFacts(leg.id, { turned: false }, transaction);
        await this.acts.event(
          move,
          person,
          'skip',
          `${kind === 'lower' ? 'Lowering' : kind === 'turn' ? 'Turning the old zone' : 'Raising'} was left to a person.`,
          { before: step.problem },
          transaction,
        );
      });
    } else {
      const again = kind === 'survey' && !isDone(steps, 'choose');
      if (step.state !== 'failed' && !again) throw new ProblemError(409, 'This step has not failed.', { kept: KEPT });
      await this.database.transaction(async (transaction) => {
        await this.store.setStep(leg.id, kind, { state: 'waiting', problem: null, done_at: null }, transaction);
        await this.acts.event(move, person, 'retry', `${kind}: to be tried again.`, { before: step.problem }, transaction);
      });
    }
    await this.acts.changed(id);
  }

  async close(id: string, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (!openSteps(steps).includes('close')) throw new ProblemError(409, 'The move is not settled yet.', { kept: KEPT });
    await this.end(move, leg, 'closed', person, 'The move was closed.');
  }

  async abandon(id: string, person: Caller): Promise<void> {
    const { move, leg } = await this.acts.open(id);
    await this.end(move, leg, 'abandoned', person, 'The move was abandoned. What was sent to DNS hosts stays as it is.');
  }

  private async end(move: Move, leg: Leg, state: 'closed' | 'abandoned', person: Caller, text: string): Promise<void> {
    await this.database.transaction(async (transaction) => {
      const at = this.clock.now();
      if (state === 'closed') await this.store.setStep(leg.id, 'close', { state: 'done', done_at: at, decided_by: person.id, decided_at: at }, transaction);
      await transaction('moves').where({ id: move.id }).update({ state, closed_at: at, wake_at: null });
      await this.acts.event(move, person, state, text, { before: { state: move.state }, after: { state } }, transaction);
    });
    await this.live.tell({ topic: 'move', move: move.id });
  }

  private async decide(move: Move, leg: Leg, steps: readonly StepRow[], kind: StepKind, dueAt: Instant | null, person: Caller, text: string): Promise<void> {
    if (isDone(steps, kind)) throw new ProblemError(409, 'This was done already.', { kept: KEPT });
    await this.database.transaction(async (transaction) => {
      await this.store.setStep(leg.id, kind, { state: 'due', due_at: dueAt, decided_by: person.id, decided_at: this.clock.now(), problem: null }, transaction);
      await this.acts.event(move, person, kind, text, { before: null, after: { dueAt } }, transaction);
    });
  }

  /** The ruling after an edit; undefined where a new row is dropped, which takes it out. */
  private apply(
    move: Move,
    before: RulingRow,
    edit: { ruling: RulingKind; ttl?: string | undefined; data?: string | undefined },
    person: Caller,
  ): RulingRow | undefined {
    const base = { ...before, ruling: edit.ruling, reason: 'decided by hand', decided_by: person.id };
    if (before.type === 'SOA' || (before.type === 'NS' && before.owner === `${move.domain}.`))
      throw new ProblemError(409, `The ${before.type} of the apex belongs to the DNS host.`, { kept: KEPT });
    switch (edit.ruling) {
      case 'drop':
        return before.found ? { ...base, planned: null } : undefined;
      case 'carry':
        if (!before.found) throw new ProblemError(400, 'A record set that was not found cannot be carried.', { field: 'ruling', kept: KEPT });
        return { ...base, planned: before.found };
      case 'repoint':
      case 'new': {
        if ((edit.ruling === 'new') !== (before.found === null))
          throw new ProblemError(400, before.found ? 'A record set that was found is repointed, not new.' : 'A record set that was not found is new.', {
            field: 'ruling',
            kept: KEPT,
          });
        const set = before.planned ?? before.found!;
        const read = readRow(Name.parse(`${move.domain}.`), {
          owner: before.owner,
          type: before.type,
          ttl: edit.ttl ?? String(set.ttl),
          data: edit.data ?? set.data.join('\n'),
        });
        if (!read.ok) throw new ProblemError(400, read.problem, { field: read.field, kept: KEPT });
        return { ...base, planned: read.set };
      }
    }
  }

  private async writeRuling(row: RulingRow, database: Database): Promise<void> {
    const values = { ...row, found: row.found ? JSON.stringify(row.found) : null, planned: row.planned ? JSON.stringify(row.planned) : null };
    await database('rulings').insert(values).onConflict('id').merge();
  }

  private async refuseOverlap(choice: DomainChoice, scope: Scope): Promise<void> {
    const other = (await this.store.openOf(choice.zone)).find((move) => scopesMeet(move.scope, scope));
    if (other)
      throw new ProblemError(409, `${choice.shown} is being moved already.`, { field: 'domain', detail: 'Open that move, or close it first.', kept: KEPT });
  }

  private async checkDelegated(choice: DomainChoice): Promise<void> {
    try {
      const delegation = await this.network.walker().delegation(Name.parse(`${choice.zone}.`));
      if (nameserversOf(delegation).length === 0)
        throw new ProblemError(
          422,
          `${choice.shown} is not delegated: the servers of ${delegation.parent.replace(/\.$/, '') || 'the root'} know no nameservers for it.`,
          { field: 'domain', kept: KEPT },
        );
    } catch (error) {
      if (error instanceof NetError)
        throw new ProblemError(502, `The delegation of ${choice.shown} cannot be read: ${error.message}.`, {
          field: 'domain',
          detail: 'Try again when the network answers.',
          kept: KEPT,
        });
      throw error;
    }
  }
}
