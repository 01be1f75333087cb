import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { MadeSheetLink, OpenSheetView, SheetLink, TypedInput, newSheetLinkSchema } from '@wanderon/contract';
import { SheetKind, tickOf, tickWords } from '@wanderon/core';
import { z } from 'zod';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { EventStore } from '../events/event.store';
import { LegLoader } from '../moves/legLoader';
import { MoveActs } from '../moves/moveActs';
import { MoveStore } from '../moves/move.store';
import { Caller } from '../people/allow';
import { NotFound, NotNow, notFound } from '../refusals';
import { sheetContent } from './sheetContent';

interface LinkRow {
  id: string;
  leg_id: string;
  sheet: SheetKind;
  digest: string;
  made_by: string;
  name: string;
  made_at: number;
  ends_at: number;
  withdrawn_at: number | null;
}

/** Octets of the secret in a link: nobody finds one by trying. */
const SECRET = 32;
const DAY = 86_400;
/** Ticks that are taken by one link, so that nobody fills the trail with it. */
const TICKS = 2000;
/** Links that are open at once for one leg. */
const MOST = 10;

/** Links by which somebody without an account sees one sheet: they end by date, with the leg, or by somebody's word. */
@Injectable()
export class SheetLinks {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly store: MoveStore,
    private readonly loader: LegLoader,
    private readonly events: EventStore,
    private readonly acts: MoveActs,
  ) {}

  /** The links to one sheet of a leg, the newest first. */
  async ofLeg(leg: string, sheet: SheetKind): Promise<SheetLink[]> {
    await this.store.moveOf(leg);
    return (await this.rows().where({ leg_id: leg, sheet }).orderBy('made_at', 'desc').limit(50)).map(view);
  }

  /** Makes a link; its secret is told now and never again. Throws a NotNow where the leg is over, or has many open ones. */
  async make(leg: string, { days, sheet }: z.output<typeof newSheetLinkSchema>, person: Caller): Promise<MadeSheetLink> {
    const moveId = await this.store.moveOf(leg);
    const secret = randomBytes(SECRET).toString('base64url');
    const id = randomUUID();
    const now = this.clock.now();
    await this.database.transaction(async (transaction) => {
      const move = await this.store.get(moveId, transaction, true);
      const legs = await this.store.legs(moveId, transaction);
      if (move.state !== 'open' || legs.at(-1)!.id !== leg) throw new NotNow('This stage is over: nothing is typed for it any more.');
      const open = await transaction('sheet_links')
        .where({ leg_id: leg, withdrawn_at: null })
        .where('ends_at', '>', now)
        .count<{ count: string }[]>('* as count');
      if (Number(open[0]!.count) >= MOST)
        throw new NotNow('There are ten open links to sheets of this move already: withdraw one first.', { kept: 'Nothing was changed.' });
      await transaction('sheet_links').insert({
        id,
        leg_id: leg,
        sheet,
        digest: digestOf(secret),
        made_by: person.id,
        made_at: now,
        ends_at: now + days * DAY,
      });
      const text = `A link to ${SHEET_WORDS[sheet]} was made, good for ${days} ${days === 1 ? 'day' : 'days'}.`;
      await this.events.add({ person: person.id, domain: move.domain, move: move.id, kind: 'sheet link', text, after: { id, days, sheet } }, transaction);
    });
    return { id, madeBy: person.name, madeAt: now, endsAt: now + days * DAY, withdrawnAt: null, path: `/sheet/${secret}` };
  }

  /** Ends a link; done twice, it is ended once. */
  async withdraw(leg: string, id: string, person: Caller): Promise<SheetLink[]> {
    const moveId = await this.store.moveOf(leg);
    await this.database.transaction(async (transaction) => {
      const move = await this.store.get(moveId, transaction, true);
      const [ended] = await transaction('sheet_links')
        .where({ id, leg_id: leg, withdrawn_at: null })
        .update({ withdrawn_at: this.clock.now() })
        .returning<LinkRow[]>('sheet');
      if (ended)
        await this.events.add(
          {
            person: person.id,
            domain: move.domain,
            move: move.id,
            kind: 'sheet link',
            text: `A link to ${SHEET_WORDS[ended.sheet]} was withdrawn.`,
            before: { id },
          },
          transaction,
        );
      else if (!(await transaction('sheet_links').where({ id, leg_id: leg }).first('id'))) throw notFound('link');
    });
    return this.ofLeg(leg, (await this.database<LinkRow>('sheet_links').where({ id }).first('sheet'))!.sheet);
  }

  /** What a link shows. Whatever is wrong with it, the answer is the same: it is not open. */
  async open(secret: string): Promise<OpenSheetView> {
    const link = await this.linkOf(secret);
    const { move, current } = await this.loader.load(await this.store.moveOf(link.leg_id));
    if (move.state !== 'open' || current.row.id !== link.leg_id || !current.leg.plan.chosen) throw closed();
    return { ...sheetContent(current, move.domain, link.sheet), endsAt: link.ends_at };
  }

  /** Ticks a row for everybody who has the sheet open, on record as the link's. Throws a NotNow for a row that is not in it, or too many. */
  async tick(secret: string, { row, typed }: Pick<TypedInput, 'row' | 'typed'>): Promise<OpenSheetView> {
    const before = await this.open(secret);
    const { content } = before;
    if (!(content.sheet === 'registrar' ? content.steps : content.rows).some((one) => one.id === row))
      throw new NotNow('This row is not in the sheet any more.', { detail: 'Reload the page.', kept: 'Nothing was changed.' });
    if (before.typed.includes(row) === typed) return before;
    const { id, leg_id, name } = await this.linkOf(secret);
    await this.acts.lightlyByLink(leg_id, async ({ transaction }) => {
      // Somebody may have withdrawn it since it was read.
      const open = transaction('sheet_links').where({ id, withdrawn_at: null }).where('ends_at', '>', this.clock.now());
      if (!(await open.clone().forUpdate().first('id'))) throw closed();
      const counted = await open.where('ticks', '<', TICKS).increment('ticks', 1);
      if (counted === 0) throw new NotNow('This link has been used for very many ticks.', { detail: 'Ask for another one.', kept: 'Nothing was changed.' });
      const tick = tickOf(content.sheet, row);
      const words = `${typed ? 'Typed' : 'Not typed after all'}, by a link that ${name} gave: ${tickWords(tick)}`;
      return [
        { kind: 'typed', subject: tick, value: typed },
        { kind: 'typed', text: words },
      ];
    });
    return { ...before, typed: typed ? [...before.typed, row] : before.typed.filter((one) => one !== row) };
  }

  private async linkOf(secret: string): Promise<LinkRow> {
    if (!/^[\w-]{43}$/.test(secret)) throw closed();
    const link = await this.rows()
      .where({ digest: digestOf(secret) })
      .first();
    if (!link || link.withdrawn_at !== null || link.ends_at <= this.clock.now()) throw closed();
    return link;
  }

  private rows() {
    return this.database<LinkRow>('sheet_links').join('people', 'people.id', 'sheet_links.made_by').select<LinkRow[]>('sheet_links.*', 'people.name');
  }
}

const SHEET_WORDS: Readonly<Record<SheetKind, string>> = {
  records: 'the handover sheet',
  lower: 'the sheet of what is lowered',
  raise: 'the sheet of what is raised',
  registrar: 'the sheet for the registrar',
};

function closed(): NotFound {
  return new NotFound('This sheet is not open any more, or never was.', { detail: 'Ask whoever gave you the link for another one.' });
}

function view({ id, name, made_at, ends_at, withdrawn_at }: LinkRow): SheetLink {
  return { id, madeBy: name, madeAt: made_at, endsAt: ends_at, withdrawnAt: withdrawn_at };
}

function digestOf(secret: string): string {
  return createHash('sha256').update(secret).digest('hex');
}
