import { Injectable } from '@nestjs/common';
import { Acted, AnswerHint, MoveSurvey, NameHint, PagesInput, PurposeInput, StoredInput, SurveyView } from '@wanderon/contract';
import { counted, isDone, plain, readRow, setWords } from '@wanderon/core';
import { LiveService } from '../live/live.service';
import { LegLoader, LoadedLeg } from '../moves/legLoader';
import { Act, KEPT, MoveActs } from '../moves/moveActs';
import { MoveStore } from '../moves/move.store';
import { Caller } from '../people/allow';
import { Reader } from '../reading/reader';
import { InvalidInput, NotNow, notFound } from '../refusals';
import { InHandKept, InHandStore } from './inHand.store';
import { readNameBelow, readPages } from './readTyped';
import { saidOfSurvey } from './saidOfSurvey';
import { SurveyStore } from './survey.store';
import { SurveyViews } from './survey.view';

/** What people add to a survey: what they have in hand, what they know of hints, purposes and stored values. The survey itself is never changed. */
@Injectable()
export class SurveyActs {
  constructor(
    private readonly acts: MoveActs,
    private readonly store: MoveStore,
    private readonly loader: LegLoader,
    private readonly surveys: SurveyStore,
    private readonly views: SurveyViews,
    private readonly inHand: InHandStore,
    private readonly live: LiveService,
    private readonly reader: Reader,
  ) {}

  /** The latest survey of a leg as the pages show it; null before there is one. */
  async latest(legId: string): Promise<MoveSurvey | null> {
    const { move, legs } = await this.loader.load(await this.store.moveOf(legId));
    const leg = legs.find((one) => one.row.id === legId)!;
    const id = leg.row.last_survey ?? leg.row.survey_id;
    return id ? this.views.ofLeg(move, leg, id) : null;
  }

  /**
   * What a person has in hand (`body` as it was sent) goes into the next survey, which is taken at once, or right after the one under way.
   * Before a way is chosen the plan is made from it; afterwards, until the switch, it is held against the plan.
   */
  async giveInHand(legId: string, body: unknown, person: Caller): Promise<Acted> {
    const { count, ...given } = await this.reader.read('in-hand', body, await this.store.domainOf(legId));
    return this.acts.act(legId, person, async (act) => {
      this.refuseOnceSwitched(act);
      const before = await this.inHand.latest(legId, act.transaction);
      // A server that is named takes nothing back that was pasted before, nor the other way round.
      const isPasted = count + given.names.length > 0;
      const kept = isPasted ? given : { ...before, sets: JSON.stringify(before.sets) };
      const servers = given.servers.length > 0 ? given.servers : before.servers;
      const what = [
        ...(isPasted ? [`${counted(given.names.length, 'name')} and ${counted(count, 'record set')} were given`] : []),
        ...given.servers.map((server) => `${plain(server)} was named as a server that has the zone`),
      ].join(', ');
      await this.give(act, { ...kept, servers }, `${what || 'Nothing new was given'}; the survey is taken again.`, before.id);
    });
  }

  /** What a person knows of a hint; the survey itself stays as it is. */
  async answerHint(legId: string, input: AnswerHint, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      const survey = await this.surveyOf(leg);
      if (!survey?.hints.some((one) => one.owner === input.owner && one.text === input.text)) throw notFound('hint');
      const subject = `${input.owner}\n${input.text}`;
      await decide(
        { kind: 'hint', subject, value: input.answer },
        {
          kind: 'hint',
          text: `The sign at ${plain(input.owner)} ${input.answer ? `is ${input.answer}` : 'is open again'}.`,
          before: saidOfSurvey(leg.stands).hints.get(subject) ?? null,
          after: input.answer,
        },
      );
    });
  }

  /** The name behind a hint: it goes into the next survey, which is taken at once. */
  async nameHint(legId: string, input: NameHint, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      const given = await this.inHand.latest(legId, act.transaction);
      if (act.leg.leg.plan.chosen) throw new NotNow('The plan was made from the survey already: add what stands there in Rebuild.', { kept: KEPT });
      const name = readNameBelow(input.name, act.leg.leg.plan.zone);
      const names = [...new Set([...given.names, name])];
      await this.give(
        act,
        { ...given, sets: JSON.stringify(given.sets), names },
        `The sign at ${plain(input.owner)} was given a name: ${name}; the survey is taken again.`,
        given.id,
      );
    });
  }

  /** One more survey: before the hosts are chosen the plan is made from it, afterwards it is held against the plan's. */
  async again(legId: string, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      this.refuseOnceSwitched(act);
      const { leg, decide } = act;
      if (isBusy(leg)) throw new NotNow('A survey is being taken already.', { kept: KEPT });
      await decide({ kind: 'survey' }, { kind: 'survey', text: 'The survey is taken again.', before: { survey: leg.row.last_survey } });
    });
  }

  /** Pages whose answers are to be kept; the survey is taken again with them. */
  async listPages(legId: string, input: PagesInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      this.refuseOncePlanned(act);
      const pages = readPages(input.pages, act.move.domain);
      const text = `${counted(pages.length, 'page')} listed; the survey is taken again.`;
      await act.decide({ kind: 'pages', value: pages }, { kind: 'pages', text, before: saidOfSurvey(act.leg.stands).pages, after: pages });
      await act.decide({ kind: 'survey' }, { kind: 'survey', text: 'The survey is taken again.' });
    });
  }

  /** What a record set is for, where a person knows better. */
  async setPurpose(legId: string, { owner, type, purpose }: PurposeInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ leg, decide }) => {
      await this.setOf(leg, owner, type);
      const before = saidOfSurvey(leg.stands).purposes.find((one) => one.owner === owner && one.type === type);
      await decide(
        { kind: 'purpose', subject: `${owner} ${type}`, value: purpose },
        {
          kind: 'purpose',
          text: purpose ? `${owner} ${type} is for: ${purpose}.` : `${owner} ${type}: its purpose is worked out again.`,
          before: before?.purpose ?? null,
          after: purpose,
        },
      );
    });
  }

  /** What a fronted set holds, read in the host's panel. */
  async setStored(legId: string, input: StoredInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      if (act.leg.leg.plan.chosen) throw new NotNow('The plan was made already: type the value in its row in Rebuild.', { kept: KEPT });
      const set = await this.setOf(act.leg, input.owner, input.type);
      if (set.fronted === null) throw new NotNow(`${setWords(input)} is answered as it is stored.`, { kept: KEPT });
      let data: string[] = [];
      if (input.data.trim() !== '') {
        const read = readRow(act.leg.leg.plan.zone, { owner: set.owner, type: set.type, ttl: String(set.ttl), data: input.data });
        if (!read.ok) throw new InvalidInput(read.problem, { field: 'data', kept: KEPT });
        data = read.set.data;
      }
      const subject = `${set.owner} ${set.type}`;
      await act.decide(
        { kind: 'stored', subject, value: data.length > 0 ? data : null },
        {
          kind: 'stored value',
          text: data.length > 0 ? `${subject} holds ${data.join(', ')} at its host.` : `What ${subject} holds at its host is not known.`,
          before: saidOfSurvey(act.leg.stands).stored.get(subject) ?? null,
          after: data,
        },
      );
    });
  }

  /** Stops a survey under way, in whichever process it runs; the one before stands. */
  async stop(legId: string, person: Caller): Promise<Acted> {
    const id = await this.store.moveOf(legId);
    const acted = await this.acts.act(legId, person, async ({ leg, note, at }) => {
      if (!isBusy(leg)) throw new NotNow('No survey is being taken.', { kept: KEPT });
      await note({ kind: 'stop', text: 'The survey was stopped.', after: { at } });
    });
    await this.live.tell({ topic: 'stop', move: id });
    return acted;
  }

  private async give({ leg, decide, transaction }: Act, given: InHandKept, text: string, before: number | null): Promise<void> {
    const after = await this.inHand.add(leg.row.id, given, transaction);
    await decide({ kind: 'survey' }, { kind: 'in hand', text, before: { inHand: before }, after: { inHand: after } });
  }

  private refuseOnceSwitched({ leg }: Act): void {
    if (leg.leg.plan.chosen && leg.leg.ts !== undefined) throw new NotNow('The switch is under way: a survey would be of the new zone.', { kept: KEPT });
  }

  private refuseOncePlanned({ leg }: Act): void {
    if (leg.leg.plan.chosen) throw new NotNow('The plan was made from the survey already.', { kept: KEPT });
  }

  private async surveyOf({ row }: LoadedLeg): Promise<SurveyView | undefined> {
    const id = row.last_survey ?? row.survey_id;
    return id ? this.surveys.get(id) : undefined;
  }

  private async setOf(leg: LoadedLeg, owner: string, type: string): Promise<SurveyView['sets'][number]> {
    const set = (await this.surveyOf(leg))?.sets.find((one) => one.owner === owner && one.type === type);
    if (!set) throw notFound('record set');
    return set;
  }
}

/** A survey is asked for that is not taken yet. */
function isBusy({ leg, said }: LoadedLeg): boolean {
  return !isDone(leg, 'survey') ? leg.state.work.get('survey')?.outcome !== 'stopped' || asked(leg, said) : asked(leg, said);
}

function asked(leg: LoadedLeg['leg'], said: LoadedLeg['said']): boolean {
  return said.surveyAsked > (leg.state.work.get('survey')?.upTo ?? 0);
}
