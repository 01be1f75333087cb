import { Inject, Injectable } from '@nestjs/common';
import { Instant, PageChange, PageLook } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';

export interface WebsiteLookRow {
  id: string;
  survey_id: string;
  /** When it was taken. */
  surveyed_at: Instant;
  first_seen: Instant;
  last_seen: Instant;
  looks: PageLook[];
  changes: PageChange[];
}

/** Looks at a website as runs: as long as the same is otherwise, they are one row. */
@Injectable()
export class WebsiteLookStore {
  constructor(@Inject(DATABASE) private readonly database: Database) {}

  /** Gives whether what is otherwise is not what was before. */
  async add(leg: string, survey: string, at: Instant, looks: readonly PageLook[], changes: readonly PageChange[], database: Database): Promise<boolean> {
    const latest = await this.latest(leg, database);
    const values = { last_seen: at, looks: JSON.stringify(looks) };
    if (latest?.survey_id === survey && same(latest.changes, changes)) {
      await database('website_looks').where({ id: latest.id }).update(values);
      return false;
    }
    await database('website_looks').insert({ leg_id: leg, survey_id: survey, first_seen: at, changes: JSON.stringify(changes), ...values });
    return true;
  }

  async latest(leg: string, database: Database = this.database): Promise<WebsiteLookRow | undefined> {
    return database('website_looks')
      .join('surveys', 'surveys.id', 'website_looks.survey_id')
      .where({ leg_id: leg })
      .orderBy('website_looks.id', 'desc')
      .first<WebsiteLookRow | undefined>('website_looks.*', 'surveys.taken_at as surveyed_at');
  }
}

function same(one: readonly PageChange[], other: readonly PageChange[]): boolean {
  return one.length === other.length && one.every(({ pages, text }, index) => text === other[index]!.text && pages.join() === other[index]!.pages.join());
}
