import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import {
  Acted,
  FrontingInput,
  NamedInput,
  SiteInput,
  TypedInput,
  RegistrarInput,
  LookInput,
  MoveNoteInput,
  OwnTaskInput,
  GivenRegistrationInput,
} from '@wanderon/contract';
import {
  Instant,
  frontingOf,
  gateOf,
  isFirstUse,
  isChanging,
  isDone,
  isTakeover,
  saidBy,
  lacksNames,
  namesRefused,
  openStops,
  passes,
  tickOf,
  tickWords,
  spellingsOf,
  stepOf,
  LookKind,
  looksMade,
  setWords,
} from '@wanderon/core';
import { CLOCK, Clock } from '../clock/clock';
import { Advancer } from '../engine/advance';
import { HostStore } from '../hosts/host.store';
import { Caller } from '../people/allow';
import { Reader } from '../reading/reader';
import { InvalidInput, NotNow, notFound } from '../refusals';
import { LegLoader, isSwitched } from './legLoader';
import { isChosen } from './move.rows';
import { MoveStore } from './move.store';
import { Act, KEPT, MoveActs } from './moveActs';

/** Seconds that a moment which was meant as now may lie back when it arrives. */
const LATELY = 60;

/** Tasks that people note for one move. */
const MOST_TASKS = 40;

const LOOK_WORDS: Readonly<Record<LookKind, string>> = {
  parent: 'the registry',
  old: 'the present nameservers',
  new: 'the new nameservers',
  drift: 'the present zone',
  lookouts: 'the resolvers',
  website: 'the website',
};

const FRONTING_WORDS: Readonly<Record<FrontingInput['state'], string>> = {
  off: 'it is answered as it is stored',
  later: 'the DNS host answers it with its own addresses once the web host has verified the domain',
  on: 'the DNS host answers it with its own addresses',
};

/** What people decide of a move on its way: when, what goes out, what was done by hand. Every change is checked, recorded and told to the open pages, in one transaction. */
@Injectable()
export class MoveService {
  constructor(
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly store: MoveStore,
    private readonly loader: LegLoader,
    private readonly acts: MoveActs,
    private readonly advancer: Advancer,
    private readonly reader: Reader,
    private readonly hosts: HostStore,
  ) {}

  async push(legId: string, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      if (!leg.leg.plan.chosen) throw new NotNow('Choose where it goes first.', { kept: KEPT });
      if (leg.leg.plan.kind === 'repoint') throw new NotNow('The zone stays where it is: nothing is pushed.', { kept: KEPT });
      if (lacksNames(leg.leg.plan)) throw new NotNow(`Say first which nameservers ${leg.leg.plan.newHost!.name} gave this domain.`, { kept: KEPT });
      const [stop] = openStops(leg.leg.remarks);
      if (stop) throw new NotNow(`${setWords(stop)}: ${stop.text}`, { kept: KEPT });
      if (isDone(leg.leg, 'push')) throw new NotNow('This was done already.', { kept: KEPT });
      if (leg.said.pushed && stepOf(leg.leg, 'push')!.standing.state !== 'stopped') throw new NotNow('This was decided already.', { kept: KEPT });
      await decide({ kind: 'push' }, { kind: 'push', text: 'The push of the new zone was decided.', before: null, after: null });
      if (leg.said.pushed) await decide({ kind: 'retry', subject: 'push' }, { kind: 'retry', text: 'Push the new zone: to be tried again.' });
    });
  }

  /** Ticks a row of the handover sheet, or takes the tick off. */
  async typed(legId: string, { sheet, row, typed }: TypedInput, person: Caller): Promise<Acted> {
    const tick = tickOf(sheet, row);
    return this.acts.lightly(legId, person, () =>
      Promise.resolve([
        { kind: 'typed', subject: tick, value: typed },
        { kind: 'typed', text: `${typed ? 'Typed' : 'Not typed after all'}: ${tickWords(tick)}` },
      ]),
    );
  }

  /** What the registrar shows of the domain, where no registry tells it. */
  async registration(legId: string, value: GivenRegistrationInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      if (leg.leg.plan.kind === 'repoint') throw new NotNow('Nothing is changed at a registrar here.', { kept: KEPT });
      const words = [
        value.registrar !== null && `it is at ${value.registrar}`,
        value.expires !== null && `it ends on ${new Date(value.expires * 1000).toISOString().slice(0, 10)}`,
        value.locked !== null && (value.locked ? 'changes are locked' : 'changes are not locked'),
      ].filter((one) => typeof one === 'string');
      const text = words.length === 0 ? 'Nothing is said of the registration any more.' : `Of the registration is said: ${words.join(', ')}.`;
      await decide({ kind: 'registration', value }, { kind: 'registration', text, before: leg.said.registration ?? null, after: value });
    });
  }

  /** At which registrar the nameservers are changed. Throws a NotFound where it is none that is known. */
  async registrar(legId: string, { host }: RegistrarInput, person: Caller): Promise<Acted> {
    const { name, role } = await this.hosts.get(host);
    if (role !== 'registrar') throw new InvalidInput(`${name} is no registrar.`, { field: 'host', kept: KEPT });
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      const before = leg.said.registrar ?? null;
      await decide({ kind: 'registrar', value: host }, { kind: 'registrar', text: `The nameservers are changed at ${name}.`, before, after: host });
    });
  }

  /** Takes what the panel of the DNS host was seen to show: the sheet goes from there to the plan. Throws an InvalidInput that names a row. */
  async shown(legId: string, body: unknown, person: Caller): Promise<Acted> {
    const { sets: value } = await this.reader.read('panel', body, await this.store.domainOf(legId));
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      if (!leg.leg.plan.chosen) throw new NotNow('Choose where it goes first.', { kept: KEPT });
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

  /** At which spelling visitors are to end, and where the site stands beforehand. Throws an InvalidInput where the plan does not lead there. */
  async site(legId: string, { main, provisional }: SiteInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      const { plan, said } = leg.leg;
      if (!plan.chosen) throw new NotNow('Choose where it goes first.', { kept: KEPT });
      const spellings = spellingsOf(plan.zone, plan.scope, plan.rulings);
      if (main !== null && !spellings.includes(main)) throw new InvalidInput(`The plan does not lead ${main} anywhere.`, { field: 'main', kept: KEPT });
      const words = [
        main === null ? 'no main spelling is wanted' : `visitors are to end at ${main}`,
        ...(provisional === null ? [] : [`until then the site is at ${provisional}`]),
      ];
      const text = `The website: ${words.join('; ')}.`;
      await decide({ kind: 'site', value: { main, provisional } }, { kind: 'site', text, before: said.site, after: { main, provisional } });
      // What is wanted is looked at, where it is looked at all.
      if (!isDone(leg.leg, 'settle')) await decide({ kind: 'website' }, { kind: 'website', text: 'A look at the website was asked for.' });
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
    return this.acts.lightly(legId, person, ({ move, leg }) => {
      if (!isChosen(leg.row)) throw new NotNow('Choose where it goes first.', { kept: KEPT });
      if (plan.lowerAt !== null && plan.lowerAt < this.clock.now() - LATELY)
        throw new InvalidInput('The lowering lies in the past.', { field: 'lowerAt', kept: KEPT });
      // Where nothing was delegated before, nothing is lowered, and the raising is all that is approved.
      const { kind, old_nameservers: oldNameservers, old_servers: oldServers } = leg.row;
      if (isSwitched(move, leg) && !isFirstUse({ kind, oldNameservers, oldServers })) throw new NotNow('The switch is under way.', { kept: KEPT });
      const before = saidBy(leg.decisions).approved?.value ?? null;
      const text = 'The timetable was approved: lower the TTLs, turn the old zone, raise the TTLs.';
      return Promise.resolve([
        { kind: 'approve', value: plan },
        { kind: 'approve', text, before, after: plan },
      ]);
    });
  }

  /** Takes the timetable back, whoever decided it: what was not begun is not done, and what was sent stands. */
  async withdraw(legId: string, person: Caller): Promise<Acted> {
    return this.acts.lightly(legId, person, ({ move, leg }) => {
      const { approved } = saidBy(leg.decisions);
      if (!approved) throw new NotNow('No timetable is agreed.', { kept: KEPT });
      if (isSwitched(move, leg)) throw new NotNow('The switch is under way.', { kept: KEPT });
      return Promise.resolve([
        { kind: 'approve', undoes: approved.id },
        { kind: 'approve', text: 'The timetable was taken back.', before: approved.value },
      ]);
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
        throw new NotNow(this.shut(leg.leg, 'Not yet: something has to be done first'), { detail: this.evidence(leg.leg), kept: KEPT });
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
      if (isDone(leg.leg, 'settle')) throw new NotNow('The move is finished: the website is not looked at any more.', { kept: KEPT });
      await decide({ kind: 'website' }, { kind: 'website', text: 'A look at the website was asked for.' });
    });
  }

  /** Servers are asked now, and not only when it is their turn. Throws a NotNow where nothing is waited for at them. */
  async look(legId: string, { kind }: LookInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      if (!looksMade(leg.leg).includes(kind)) throw new NotNow('Nothing is waited for there: there is nothing to look at.', { kept: KEPT });
      // One that was asked for and not made yet is enough.
      if ((leg.leg.seen.looked[kind] ?? -Infinity) < (leg.said.looksAsked.get(kind) ?? -Infinity)) return;
      await decide({ kind: 'look', subject: kind }, { kind: 'look', text: `A look at ${LOOK_WORDS[kind]} was asked for.` });
    });
  }

  /** What colleagues are to know of the move. Throws a NotNow where another one stands there than `seen`: nobody overwrites what he has not read. */
  async note(id: string, { text, seen }: MoveNoteInput, person: Caller): Promise<Acted> {
    return this.acts.onMove(id, person, async ({ move, transaction, note }) => {
      if (move.note === text) return;
      if (move.note !== seen)
        throw new NotNow('Somebody has changed the note meanwhile.', {
          detail: 'Read what stands there now, and save again.',
          kept: 'What you typed is still in the field.',
        });
      await transaction('moves').where({ id }).update({ note: text });
      await note({ kind: 'note', text: text === '' ? 'The note was emptied.' : 'The note was changed.', before: move.note, after: text });
    });
  }

  /** Something to do in this move, beside what its hosts ask for. */
  async addTask(legId: string, task: OwnTaskInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      if (leg.said.ownTasks.length >= MOST_TASKS) throw new NotNow(`A move can have ${MOST_TASKS} tasks of its own.`, { kept: KEPT });
      await decide({ kind: 'own task', subject: randomUUID(), value: task }, { kind: 'own task', text: `To do ${task.when} the cutover: ${task.title}.` });
    });
  }

  async dropTask(legId: string, id: string, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      const task = leg.said.ownTasks.find((one) => one.id === id);
      if (!task) throw notFound('task');
      await decide({ kind: 'own task', subject: id, value: null }, { kind: 'own task', text: `Not to do any more: ${task.title}.`, before: task, after: null });
    });
  }

  async close(id: string, person: Caller): Promise<Acted> {
    return this.acts.onMove(id, person, async (act) => {
      if (stepOf(act.leg.leg, 'close')?.standing.state !== 'ready') throw new NotNow('The move is not finished everywhere yet.', { kept: KEPT });
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
