import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { SurveyView } from '@wanderon/contract';
import { Name, RRsetText, rrsetFromText, rrsetKey } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';

export type NewSurvey = Omit<SurveyView, 'id'>;

/** Surveys are written once and never changed. */
@Injectable()
export class SurveyStore {
  constructor(@Inject(DATABASE) private readonly database: Database) {}

  async add(domainId: string, moveId: string | null, survey: NewSurvey, database: Database): Promise<string> {
    const id = randomUUID();
    await database('surveys').insert({
      id,
      domain_id: domainId,
      move_id: moveId,
      taken_at: survey.takenAt,
      parent: survey.parent,
      coverage: JSON.stringify(survey.coverage),
      referrals: JSON.stringify(survey.referrals),
      authorities: JSON.stringify(survey.authorities),
      hints: JSON.stringify(survey.hints),
      registration: JSON.stringify(survey.registration),
      findings: JSON.stringify(survey.findings),
      ends: JSON.stringify(survey.ends),
      pages: JSON.stringify(survey.pages),
      outside: survey.outside && JSON.stringify(survey.outside),
      asked: survey.asked,
    });
    const rows = survey.sets.map((set, position) => ({
      survey_id: id,
      position,
      owner: set.owner,
      type: set.type,
      ttl: set.ttl,
      data: JSON.stringify(set.data),
      evidence: JSON.stringify(set.evidence),
      varying: set.varying,
      restless: set.restless,
      fronted: set.fronted,
      stored: set.stored && JSON.stringify(set.stored),
    }));
    if (rows.length > 0) await database.batchInsert('survey_sets', rows, 500);
    return id;
  }

  /** How the website answered; empty where it was not looked at. */
  async pages(id: string): Promise<SurveyView['pages']> {
    return (await this.database('surveys').where({ id }).first<Pick<SurveyView, 'pages'>>('pages')).pages;
  }

  /** Sets whose answers change by themselves or are fronted, by rrsetKey. Of surveys from before it was told apart, all that vary. */
  async varying(id: string): Promise<Set<string>> {
    const rows = await this.database('survey_sets')
      .where({ survey_id: id })
      .andWhereRaw('(fronted is not null or (varying is not null and restless is distinct from false))')
      .select<SetRow[]>(...SET_COLUMNS);
    return new Set(rows.map((row) => rrsetFromText({ ...row, ttl: Number(row.ttl) })).map((set) => rrsetKey(set.owner, set.type)));
  }

  /** Sets as questions that are put again. */
  asQuestions(sets: readonly RRsetText[]): { name: Name; type: number }[] {
    return sets.map(rrsetFromText).map((set) => ({ name: set.owner, type: set.type }));
  }

  /** Names, relative to their zones, that stand in the latest surveys of at least two domains, the commonest first. */
  async commonNames(most: number): Promise<string[]> {
    const { rows } = await this.database.raw<{ rows: { label: string }[] }>(
      `select left(s.owner, length(s.owner) - length(d.name) - 2) as label
         from domains d
         cross join lateral (select id from surveys where domain_id = d.id order by taken_at desc limit 1) latest
         join survey_sets s on s.survey_id = latest.id
        where length(s.owner) > length(d.name) + 1 and right(s.owner, length(d.name) + 2) = '.' || d.name || '.'
        group by 1 having count(distinct d.id) > 1 order by count(distinct d.id) desc, 1 limit ?`,
      [most],
    );
    return rows.map((row) => row.label);
  }

  /** What one record set of a survey rests on, and what names outside the zone had as addresses then. */
  async behind(id: string, { owner, type }: { readonly owner: string; readonly type: string }): Promise<Pick<SurveyView, 'ends'> & Pick<SetRow, 'evidence'>> {
    const survey = await this.database('surveys').where({ id }).first<Pick<SurveyRow, 'ends'>>('ends');
    const set = await this.database('survey_sets')
      .where({ survey_id: id, type })
      .andWhereRaw('lower(owner) = ?', [owner.toLowerCase()])
      .first<Pick<SetRow, 'evidence'> | undefined>('evidence');
    return { ends: survey.ends, evidence: set?.evidence ?? [] };
  }

  /** What a plan is made of: the sets as they were answered, without what they rest on, and how complete the inventory is. */
  async surveyed(id: string): Promise<Surveyed> {
    const { coverage } = await this.database('surveys').where({ id }).first<Pick<SurveyRow, 'coverage'>>('coverage');
    const sets = await this.database('survey_sets')
      .where({ survey_id: id })
      .orderBy('position')
      .select<Omit<SetRow, 'evidence' | 'fronted'>[]>('owner', 'type', 'ttl', 'data', 'stored', 'varying', 'restless');
    return { grade: coverage.grade, sets: sets.map((set) => ({ ...set, ttl: Number(set.ttl), restless: isRestless(set) })) };
  }

  async get(id: string): Promise<SurveyView> {
    const row = await this.database('surveys').where({ id }).first<SurveyRow>();
    const sets = await this.database('survey_sets')
      .where({ survey_id: id })
      .orderBy('position')
      .select<SetRow[]>(...SET_COLUMNS);
    return {
      id,
      takenAt: row.taken_at,
      parent: row.parent,
      coverage: row.coverage,
      referrals: row.referrals,
      authorities: row.authorities,
      registration: row.registration,
      findings: row.findings,
      hints: row.hints,
      ends: row.ends,
      pages: row.pages,
      outside: row.outside,
      asked: row.asked,
      sets: sets.map((set) => ({ ...set, ttl: Number(set.ttl), restless: isRestless(set) })),
    };
  }
}

export interface Surveyed {
  readonly grade: SurveyView['coverage']['grade'];
  readonly sets: readonly Pick<SurveyView['sets'][number], 'owner' | 'type' | 'ttl' | 'data' | 'stored' | 'restless'>[];
}

/** Of surveys from before it was told apart, all sets that vary. */
function isRestless({ restless, varying }: Pick<SetRow, 'restless' | 'varying'>): boolean {
  return restless ?? varying !== null;
}

type SurveyRow = Omit<SurveyView, 'id' | 'takenAt' | 'sets'> & { taken_at: number };
type SetRow = Omit<SurveyView['sets'][number], 'ttl' | 'restless'> & { ttl: string; restless: boolean | null };
const SET_COLUMNS = ['owner', 'type', 'ttl', 'data', 'evidence', 'varying', 'restless', 'fronted', 'stored'] as const;
