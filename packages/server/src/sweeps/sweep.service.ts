import { Inject, Injectable } from '@nestjs/common';
import { SurveyPage, SweepAction } from '@wanderon/contract';
import { counted, showName } from '@wanderon/core';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { isId } from '../db/ids';
import { EventStore } from '../events/event.store';
import { LiveService } from '../live/live.service';
import { Caller } from '../people/allow';
import { Reader } from '../reading/reader';
import { InvalidInput, NotNow, notFound } from '../refusals';
import { SurveyStore } from '../survey/survey.store';
import { SweepStore } from './sweep.store';
import { SweepWorker } from './sweepWorker';

const KEPT = 'Nothing was changed.';

/** What people do with sweeps: each is recorded, and told to the open pages. */
@Injectable()
export class SweepService {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly store: SweepStore,
    private readonly surveys: SurveyStore,
    private readonly worker: SweepWorker,
    private readonly events: EventStore,
    private readonly live: LiveService,
    private readonly reader: Reader,
  ) {}

  /** `body` as it was sent. Throws an InvalidInput that names the line. */
  async begin(body: unknown, person: Caller): Promise<string> {
    const list = await this.reader.read('sweep', body, null);
    const [bad] = list.bad;
    if (bad) throw new InvalidInput(`Line ${bad.line}: ${bad.problem}`, { field: 'text', kept: KEPT });
    if (list.leftOut > 0)
      throw new InvalidInput(`The list has ${list.leftOut} domains too many: ${list.domains.length} at a time are surveyed.`, {
        field: 'text',
        kept: KEPT,
      });
    if (list.domains.length === 0) throw new InvalidInput('There is no domain in the list.', { field: 'text', kept: KEPT });
    const name = list.name || `${showName(list.domains[0]!)}${list.domains.length > 1 ? ` and ${list.domains.length - 1} more` : ''}`;
    const id = await this.database.transaction(async (transaction) => {
      const sweep = await this.store.create(name, list.domains, person.id, this.clock.now(), transaction);
      await this.events.add(
        { person: person.id, kind: 'sweep', text: `A sweep of ${counted(list.domains.length, 'domain')} was begun: ${name}.`, after: { sweep } },
        transaction,
      );
      return sweep;
    });
    await this.changed(id);
    return id;
  }

  async act(id: string, { action }: SweepAction, person: Caller): Promise<void> {
    const sweep = await this.store.get(id);
    const refuse = (why: string): never => {
      throw new NotNow(why, { kept: KEPT });
    };
    await this.database.transaction(async (transaction) => {
      switch (action) {
        case 'pause':
          if (!(await this.store.setState(id, ['running'], 'paused', transaction))) refuse('This sweep is not under way.');
          break;
        case 'resume':
          if (!(await this.store.setState(id, ['paused'], 'running', transaction))) refuse('This sweep is not paused.');
          break;
        case 'cancel':
          if (!(await this.store.setState(id, ['running', 'paused'], 'cancelled', transaction))) refuse('This sweep has ended.');
          break;
        case 'retry':
          if ((await this.store.retryFailed(id, transaction)) === 0) refuse('No domain of this sweep has failed.');
          await this.store.setState(id, ['paused', 'cancelled', 'done'], 'running', transaction);
          break;
      }
      await this.events.add(
        { person: person.id, kind: 'sweep', text: `The sweep ${sweep.name}: ${action}.`, before: { state: sweep.state }, after: { action } },
        transaction,
      );
    });
    // Only now, so that nobody takes up another one between the two.
    if (action === 'cancel') {
      await this.live.tell({ topic: 'stop', sweep: id });
      await this.store.cancelWaiting(id);
    }
    await this.changed(id);
  }

  /** One survey alone; what was said of it in a move is not part of it. */
  async survey(id: string): Promise<SurveyPage> {
    const row = isId(id)
      ? await this.database('surveys')
          .join('domains', 'domains.id', 'surveys.domain_id')
          .where('surveys.id', id)
          .first<{ name: string; move_id: string | null } | undefined>('domains.name', 'surveys.move_id')
      : undefined;
    if (!row) throw notFound('survey');
    return { domain: row.name, move: row.move_id, survey: { ...(await this.surveys.get(id)), ties: [], purposes: [], listed: [], earlier: [] } };
  }

  private async changed(id: string): Promise<void> {
    await this.live.tell({ topic: 'sweep', sweep: id });
    this.worker.pulse();
  }
}
