import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { SurveyView } from '@wanderon/contract';
import { DATABASE, Database } from '../db/database';

export type NewSurvey = Omit<SurveyView, 'id'>;

/** Surveys are written once and never changed. */
@Injectable()
export class SurveyStore {
  constructor(@Inject(DATABASE) private readonly database: Database) {}

  async add(domainId: string, moveId: string, survey: NewSurvey, database: Database): Promise<string> {
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
    });
    const rows = survey.sets.map((set, position) => ({
      survey_id: id,
      position,
      owner: set.owner,
      type: set.type,
      ttl: set.ttl,
      data: JSON.stringify(set.data),
      evidence: set.evidence,
    }));
    if (rows.length > 0) await database.batchInsert('survey_sets', rows, 500);
    return id;
  }

  async get(id: string): Promise<SurveyView> {
    const row = await this.database('surveys').where({ id }).first<{
      id: string;
      taken_at: number;
      parent: string;
      coverage: SurveyView['coverage'];
      referrals: SurveyView['referrals'];
      authorities: SurveyView['authorities'];
      hints: SurveyView['hints'];
    }>();
    const sets = await this.database('survey_sets')
      .where({ survey_id: id })
      .orderBy('position')
      .select<{ owner: string; type: string; ttl: string; data: string[]; evidence: string }[]>('owner', 'type', 'ttl', 'data', 'evidence');
    return {
      id,
      takenAt: row.taken_at,
      parent: row.parent,
      coverage: row.coverage,
      referrals: row.referrals,
      authorities: row.authorities,
      hints: row.hints,
      sets: sets.map((set) => ({ ...set, ttl: Number(set.ttl) })),
    };
  }
}
