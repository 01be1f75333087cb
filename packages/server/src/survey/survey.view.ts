import { Inject, Injectable } from '@nestjs/common';
import { MoveSurvey, SurveyView } from '@wanderon/contract';
import { Name, OtherDomain, RRsetText, rrsetFromText, tiesOf } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';
import { Facts, Leg, Move } from '../moves/leg';
import { SurveyStore } from './survey.store';

/** Record sets of other domains that are looked through for ties. */
const SETS_OF_OTHERS = 500;

/** A survey as the pages show it: with what people said of it since, and what hangs together with it elsewhere. */
@Injectable()
export class SurveyViews {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    private readonly surveys: SurveyStore,
  ) {}

  async ofMove(move: Move, leg: Leg, id: string): Promise<MoveSurvey> {
    const survey = await this.surveys.get(id);
    const { facts } = leg;
    const said = facts.stored ?? [];
    return {
      ...survey,
      sets: survey.sets.map((set) => ({ ...set, stored: said.find((one) => one.owner === set.owner && one.type === set.type)?.data ?? set.stored })),
      hints: answered(survey.hints, facts.hintAnswers),
      purposes: facts.purposes ?? [],
      listed: facts.pages ?? [],
      ties: await this.ties(move, survey),
      earlier: await this.earlier(move.id, id),
    };
  }

  private async ties(move: Move, survey: SurveyView): Promise<MoveSurvey['ties']> {
    const ends = survey.ends.map(({ target, addresses }) => ({ target: Name.parse(target), addresses }));
    const zone = Name.parse(`${move.domain}.`);
    return tiesOf(zone, survey.sets.map(rrsetFromText), ends, await this.others(move)).map(({ code, owner, text }) => ({
      code,
      owner: owner.toString(),
      text,
    }));
  }

  /** Sets of other domains, as surveyed last, whose data has the domain in it; whether it really leads here is judged by core. */
  private async others(move: Move): Promise<OtherDomain[]> {
    const pattern = `%${move.domain.replace(/[\\%_]/g, '\\$&')}%`;
    const { rows } = await this.database.raw<{ rows: (RRsetText & { domain: string; ttl: string })[] }>(
      `select d.name as domain, s.owner, s.type, s.ttl, s.data
         from domains d
         cross join lateral (select id from surveys where domain_id = d.id order by taken_at desc limit 1) latest
         join survey_sets s on s.survey_id = latest.id
        where d.id <> ? and s.data::text ilike ? limit ?`,
      [move.domain_id, pattern, SETS_OF_OTHERS],
    );
    const byDomain = new Map<string, OtherDomain & { sets: ReturnType<typeof rrsetFromText>[] }>();
    for (const { domain, ...set } of rows) {
      const known = byDomain.get(domain) ?? { domain, sets: [] };
      known.sets.push(rrsetFromText({ ...set, ttl: Number(set.ttl) }));
      byDomain.set(domain, known);
    }
    return [...byDomain.values()];
  }

  private async earlier(moveId: string, latest: string): Promise<MoveSurvey['earlier']> {
    const rows = await this.database('surveys')
      .where({ move_id: moveId })
      .whereNot({ id: latest })
      .orderBy('taken_at', 'desc')
      .limit(20)
      .select<{ id: string; taken_at: number; coverage: SurveyView['coverage']; sets: string }[]>(
        'id',
        'taken_at',
        'coverage',
        this.database('survey_sets').count('*').where('survey_id', this.database.ref('surveys.id')).as('sets'),
      );
    return rows.map((row) => ({ id: row.id, takenAt: row.taken_at, grade: row.coverage.grade, sets: Number(row.sets) }));
  }
}

/** Hints with what a person said of them. */
function answered(hints: SurveyView['hints'], answers: Facts['hintAnswers'] = []): SurveyView['hints'] {
  return hints.map((hint) => ({ ...hint, answer: answers.find((one) => one.owner === hint.owner && one.text === hint.text)?.answer ?? null }));
}
