import { Inject, Injectable } from '@nestjs/common';
import { MoveSurvey, SurveyView } from '@wanderon/contract';
import { Name, OtherDomain, RRset, RRsetText, rrsetFromText, tiesOf } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';
import { LoadedLeg } from '../moves/legLoader';
import { MoveRow } from '../moves/move.rows';
import { saidOfSurvey } from './saidOfSurvey';
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

  async ofLeg(move: MoveRow, { stands }: Pick<LoadedLeg, 'stands'>, id: string): Promise<MoveSurvey> {
    const survey = await this.surveys.get(id);
    const said = saidOfSurvey(stands);
    return {
      ...survey,
      sets: survey.sets.map((set) => ({ ...set, stored: said.stored.get(`${set.owner} ${set.type}`) ?? set.stored })),
      hints: survey.hints.map((hint) => ({ ...hint, answer: said.hints.get(`${hint.owner}\n${hint.text}`) ?? null })),
      purposes: said.purposes,
      listed: said.pages,
      ties: await this.ties(move, survey),
      earlier: await this.earlier(move.id, id),
    };
  }

  private async ties(move: MoveRow, survey: SurveyView): Promise<MoveSurvey['ties']> {
    const ends = survey.ends.map(({ target, addresses }) => ({ target: Name.parse(target), addresses }));
    const zone = Name.parse(`${move.domain}.`);
    return tiesOf(zone, survey.sets.map(rrsetFromText), ends, await this.others(move)).map(({ code, owner, text }) => ({
      code,
      owner: owner.toString(),
      text,
    }));
  }

  /** Sets of other domains, as surveyed last, whose data has the domain in it; whether it really leads here is judged by core. */
  private async others(move: MoveRow): Promise<OtherDomain[]> {
    const pattern = `%${move.domain.replace(/[\\%_]/g, '\\$&')}%`;
    const { rows } = await this.database.raw<{ rows: (RRsetText & { domain: string; ttl: string })[] }>(
      `select d.name as domain, s.owner, s.type, s.ttl, s.data
         from domains d
         cross join lateral (select id from surveys where domain_id = d.id order by taken_at desc limit 1) latest
         join survey_sets s on s.survey_id = latest.id
        where d.id <> ? and s.data::text ilike ? limit ?`,
      [move.domain_id, pattern, SETS_OF_OTHERS],
    );
    const byDomain = new Map<string, { sets: RRset[]; nameservers: Name[] }>();
    const of = (domain: string): { sets: RRset[]; nameservers: Name[] } => {
      const known = byDomain.get(domain) ?? { sets: [], nameservers: [] };
      byDomain.set(domain, known);
      return known;
    };
    for (const { domain, ...set } of rows) of(domain).sets.push(rrsetFromText({ ...set, ttl: Number(set.ttl) }));
    const { rows: delegated } = await this.database.raw<{
      rows: { domain: string; referrals: SurveyView['referrals']; registration: SurveyView['registration'] }[];
    }>(
      `select d.name as domain, latest.referrals, latest.registration
         from domains d
         cross join lateral (select referrals, registration from surveys where domain_id = d.id order by taken_at desc limit 1) latest
        where d.id <> ? and (latest.referrals::text ilike ? or latest.registration::text ilike ?) limit ?`,
      [move.domain_id, pattern, pattern, SETS_OF_OTHERS],
    );
    for (const { domain, referrals, registration } of delegated) {
      const registered = registration?.kind === 'found' ? registration.registration.nameservers : [];
      const names = [
        ...new Set([...referrals.flatMap((referral) => referral.nameservers), ...registered].map((name) => name.toLowerCase().replace(/\.?$/, '.'))),
      ];
      of(domain).nameservers.push(...names.flatMap(nameOrNone));
    }
    return [...byDomain].map(([domain, known]) => ({ domain, ...known }));
  }

  private async earlier(moveId: string, latest: string): Promise<MoveSurvey['earlier']> {
    const { rows } = await this.database.raw<{ rows: { id: string; taken_at: number; grade: MoveSurvey['earlier'][number]['grade']; sets: string }[] }>(
      `select id, taken_at, coverage->>'grade' as grade, (select count(*) from survey_sets where survey_id = surveys.id) as sets
         from surveys where move_id = ? and id <> ? order by taken_at desc limit 20`,
      [moveId, latest],
    );
    return rows.map((row) => ({ id: row.id, takenAt: row.taken_at, grade: row.grade, sets: Number(row.sets) }));
  }
}

/** A registry may hold anything. */
function nameOrNone(text: string): Name[] {
  return [Name.tryParse(text) ?? []].flat();
}
