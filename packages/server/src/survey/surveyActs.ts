import { Inject, Injectable } from '@nestjs/common';
import { AnswerHint, InHandInput, NameHint, PagesInput, PurposeInput, StoredInput } from '@wanderon/contract';
import { Name, counted, isDone, readRow } from '@wanderon/core';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { LiveService } from '../live/live.service';
import { Leg } from '../moves/leg';
import { KEPT, MoveActs } from '../moves/moveActs';
import { MoveStore } from '../moves/move.store';
import { Caller } from '../people/allow';
import { ProblemError, notFound } from '../problem';
import { readGiven, readNameBelow, readPages } from './readGiven';
import { InHandStore } from './inHand.store';
import { SurveyStore } from './survey.store';

/** What people add to a survey: what they have in hand, what they know of hints, purposes and stored values. The survey itself is never changed. */
@Injectable()
export class SurveyActs {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly acts: MoveActs,
    private readonly store: MoveStore,
    private readonly surveys: SurveyStore,
    private readonly inHand: InHandStore,
    private readonly live: LiveService,
  ) {}

  /** What a person has in hand goes into the next survey, which is taken at once. */
  async giveInHand(id: string, input: InHandInput, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (isDone(steps, 'choose')) throw new ProblemError(409, 'The plan was made from the survey already.', { kept: KEPT });
    const given = readGiven(input, Name.parse(`${move.domain}.`));
    const before = await this.inHand.latest(leg.id);
    await this.database.transaction(async (transaction) => {
      const after = await this.inHand.add(leg.id, given, transaction);
      await this.store.setStep(leg.id, 'survey', { state: 'waiting', problem: null, done_at: null }, transaction);
      await this.acts.event(
        move,
        person,
        'in hand',
        `${counted(given.names.length, 'name')} and ${counted(given.sets.length, 'record set')} were given; the survey is taken again.`,
        { before: { inHand: before.id }, after: { inHand: after } },
        transaction,
      );
    });
    await this.acts.changed(id);
  }

  /** What a person knows of a hint; the survey itself stays as it is. */
  async answerHint(id: string, input: AnswerHint, person: Caller): Promise<void> {
    const { move, leg } = await this.acts.open(id);
    const same = (one: { owner: string; text: string }): boolean => one.owner === input.owner && one.text === input.text;
    const survey = leg.survey_id ? await this.surveys.get(leg.facts.lastSurvey ?? leg.survey_id) : undefined;
    if (!survey?.hints.some(same)) throw notFound('hint');
    const before = leg.facts.hintAnswers ?? [];
    const after = [...before.filter((one) => !same(one)), ...(input.answer ? [{ owner: input.owner, text: input.text, answer: input.answer }] : [])];
    await this.database.transaction(async (transaction) => {
      await this.store.addFacts(leg.id, { hintAnswers: after }, transaction);
      const said = input.answer ? `is ${input.answer}` : 'is open again';
      await this.acts.event(
        move,
        person,
        'hint',
        `The hint at ${input.owner} ${said}.`,
        { before: before.find(same)?.answer ?? null, after: input.answer },
        transaction,
      );
    });
    await this.acts.changed(id);
  }

  /** The name behind a hint: it goes into the next survey, which is taken at once. */
  async nameHint(id: string, input: NameHint, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (isDone(steps, 'choose')) throw new ProblemError(409, 'The plan was made from the survey already: add what stands there to the ledger.', { kept: KEPT });
    const name = readNameBelow(input.name, Name.parse(`${move.domain}.`));
    const given = await this.inHand.latest(leg.id);
    await this.database.transaction(async (transaction) => {
      const after = await this.inHand.add(leg.id, { ...given, names: [...new Set([...given.names, name])] }, transaction);
      await this.store.setStep(leg.id, 'survey', { state: 'waiting', problem: null, done_at: null }, transaction);
      await this.acts.event(
        move,
        person,
        'hint',
        `The hint at ${input.owner} was given a name: ${name}; the survey is taken again.`,
        { before: { inHand: given.id }, after: { inHand: after, name } },
        transaction,
      );
    });
    await this.acts.changed(id);
  }

  /** One more survey: before the hosts are chosen the plan is made from it, afterwards it is held against the plan's. */
  async again(id: string, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (leg.facts.ts !== undefined) throw new ProblemError(409, 'The switch is under way: a survey would be of the new zone.', { kept: KEPT });
    if (leg.facts.surveyAgain || !isDone(steps, 'survey')) throw new ProblemError(409, 'A survey is being taken already.', { kept: KEPT });
    await this.database.transaction(async (transaction) => {
      if (isDone(steps, 'choose')) await this.store.addFacts(leg.id, { surveyAgain: true }, transaction);
      else await this.store.setStep(leg.id, 'survey', { state: 'waiting', problem: null, done_at: null }, transaction);
      await this.acts.event(move, person, 'survey', 'The survey is taken again.', { before: { survey: leg.facts.lastSurvey ?? leg.survey_id } }, transaction);
    });
    await this.acts.changed(id);
  }

  /** Pages whose answers are to be kept; the survey is taken again with them. */
  async listPages(id: string, input: PagesInput, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (isDone(steps, 'choose')) throw new ProblemError(409, 'The plan was made from the survey already.', { kept: KEPT });
    const pages = readPages(input.pages, move.domain);
    await this.database.transaction(async (transaction) => {
      await this.store.addFacts(leg.id, { pages }, transaction);
      await this.store.setStep(leg.id, 'survey', { state: 'waiting', problem: null, done_at: null }, transaction);
      await this.acts.event(
        move,
        person,
        'pages',
        `${counted(pages.length, 'page')} listed; the survey is taken again.`,
        { before: leg.facts.pages ?? [], after: pages },
        transaction,
      );
    });
    await this.acts.changed(id);
  }

  /** What a record set is for, where a person knows better. */
  async setPurpose(id: string, { owner, type, purpose }: PurposeInput, person: Caller): Promise<void> {
    const { move, leg } = await this.acts.open(id);
    await this.setOf(leg, owner, type);
    const before = leg.facts.purposes ?? [];
    const same = (one: { owner: string; type: string }): boolean => one.owner === owner && one.type === type;
    const after = [...before.filter((one) => !same(one)), ...(purpose ? [{ owner, type, purpose }] : [])];
    await this.database.transaction(async (transaction) => {
      await this.store.addFacts(leg.id, { purposes: after }, transaction);
      await this.acts.event(
        move,
        person,
        'purpose',
        purpose ? `${owner} ${type} is for: ${purpose}.` : `${owner} ${type}: its purpose is worked out again.`,
        { before: before.find(same)?.purpose ?? null, after: purpose },
        transaction,
      );
    });
    await this.acts.changed(id);
  }

  /** What a fronted set holds, read in the host's panel. */
  async setStored(id: string, input: StoredInput, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (isDone(steps, 'choose')) throw new ProblemError(409, 'The plan was made already: type the value in its row of the ledger.', { kept: KEPT });
    const set = await this.setOf(leg, input.owner, input.type);
    if (set.fronted === null) throw new ProblemError(409, `${input.owner} ${input.type} is answered as it is stored.`, { kept: KEPT });
    const same = (one: { owner: string; type: string }): boolean => one.owner === set.owner && one.type === set.type;
    let data: string[] = [];
    if (input.data.trim() !== '') {
      const read = readRow(Name.parse(`${move.domain}.`), { owner: set.owner, type: set.type, ttl: String(set.ttl), data: input.data });
      if (!read.ok) throw new ProblemError(400, read.problem, { field: 'data', kept: KEPT });
      data = read.set.data;
    }
    const before = leg.facts.stored ?? [];
    const after = [...before.filter((one) => !same(one)), ...(data.length > 0 ? [{ owner: set.owner, type: set.type, data }] : [])];
    await this.database.transaction(async (transaction) => {
      await this.store.addFacts(leg.id, { stored: after }, transaction);
      await this.acts.event(
        move,
        person,
        'stored value',
        data.length > 0 ? `${set.owner} ${set.type} holds ${data.join(', ')} at its host.` : `What ${set.owner} ${set.type} holds at its host is not known.`,
        { before: before.find(same)?.data ?? null, after: data },
        transaction,
      );
    });
    await this.acts.changed(id);
  }

  /** Stops a survey under way, in whichever process it runs; the one before stands. */
  async stop(id: string, person: Caller): Promise<void> {
    const { move, leg, steps } = await this.acts.open(id);
    if (isDone(steps, 'survey') && !leg.facts.surveyAgain) throw new ProblemError(409, 'No survey is being taken.', { kept: KEPT });
    await this.acts.event(move, person, 'stop', 'The survey was stopped.', { after: { at: this.clock.now() } }, this.database);
    await this.live.tell({ topic: 'stop', move: id });
  }

  private async setOf(leg: Leg, owner: string, type: string): Promise<Awaited<ReturnType<SurveyStore['get']>>['sets'][number]> {
    const set = leg.survey_id
      ? (await this.surveys.get(leg.facts.lastSurvey ?? leg.survey_id)).sets.find((one) => one.owner === owner && one.type === type)
      : undefined;
    if (!set) throw notFound('record set');
    return set;
  }
}
