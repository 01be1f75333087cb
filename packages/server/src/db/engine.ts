import { Knex } from 'knex';
import { fingerprint } from '@wanderon/core';

/**
 * Decisions and observations take the place of the fixed list of steps and of the facts of a leg. Open moves go on: what was
 * decided becomes decisions, what was seen becomes observations, with the moments at which it was.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('decisions', (table) => {
    table.bigIncrements('id');
    table.uuid('leg_id').notNullable().references('legs.id');
    table.text('kind').notNullable();
    table.text('subject').notNullable();
    table.jsonb('value');
    table.uuid('person_id').references('people.id');
    table.double('at').notNullable();
    table.bigInteger('undoes').references('decisions.id');
    table.index(['leg_id', 'id']);
  });
  // Equal sights one after the other are one row; `value` empty: nothing was heard, and `problem` says why.
  await knex.schema.createTable('observations', (table) => {
    table.bigIncrements('id');
    table.uuid('leg_id').notNullable().references('legs.id');
    table.text('kind').notNullable();
    table.text('subject').notNullable();
    table.text('item').notNullable().defaultTo('');
    table.text('server').notNullable().defaultTo('');
    table.jsonb('value');
    table.text('digest').notNullable();
    table.text('problem');
    table.boolean('refused').notNullable().defaultTo(false);
    // What belongs to the last sight alone, such as the TTL that was left.
    table.jsonb('note');
    table.double('first_seen').notNullable();
    table.double('last_seen').notNullable();
    // Seconds to the next look, as planned at the last one.
    table.double('every').notNullable();
    table.bigInteger('count').notNullable();
    table.index(['leg_id', 'kind', 'subject', 'item', 'id']);
  });
  // Who has a move in hand; a process that is gone holds nothing (`claims.ts`).
  await knex.schema.createTable('claims', (table) => {
    table.uuid('move_id').notNullable().references('moves.id');
    table.text('work').notNullable();
    table.integer('process').notNullable();
    table.primary(['move_id', 'work']);
  });
  await knex.raw('create sequence processes as integer');
  await knex.schema.alterTable('moves', (table) => {
    table.integer('version').notNullable().defaultTo(0);
    table.integer('summarised').notNullable().defaultTo(-1);
    table.jsonb('summary');
    table.index(['state', 'wake_at']);
    table.index(['state', 'created_at', 'id']);
  });
  await knex.schema.alterTable('legs', (table) => {
    table.uuid('last_survey').references('surveys.id');
    table.jsonb('old_servers').notNullable().defaultTo('[]');
    table.jsonb('new_servers').notNullable().defaultTo('[]');
    table.jsonb('fronted').notNullable().defaultTo('[]');
    table.double('keys_ttl');
  });
  for (const leg of await knex<OldLeg>('legs').select('*')) await bringOver(knex, leg);
  await knex.schema.alterTable('legs', (table) => {
    table.dropColumn('facts');
    table.dropColumn('served');
  });
  for (const table of ['steps', 'ruling_changes', 'runs']) await knex.schema.dropTable(table);
  await knex.raw(`create trigger decisions_append_only before update or delete or truncate on decisions execute function refuse_change()`);
}

export async function down(): Promise<void> {
  throw new Error('What was decided and seen is not thrown away.');
}

interface OldLeg {
  id: string;
  survey_id: string | null;
  old_nameservers: string[];
  new_nameservers: string[];
  facts: {
    P?: number;
    C?: number;
    N?: number;
    oldAuthorities?: { server: string; address: string }[];
    ds?: boolean;
    lastSurvey?: string;
    surveyAgain?: boolean;
    seen?: Record<string, { lastOld: number; firstNew?: number }>;
    ts?: number;
    plannedSwitch?: number;
    lowerTo?: number;
    hintAnswers?: { owner: string; text: string; answer: string }[];
    purposes?: { owner: string; type: string; purpose: string }[];
    stored?: { owner: string; type: string; data: string[] }[];
    fronted?: unknown[];
    pages?: string[];
    parentSets?: { server: string; address: string; nameservers: string[]; signed: boolean; problem?: string }[];
  };
}
interface OldStep {
  leg_id: string;
  kind: string;
  state: string;
  due_at: number | null;
  done_at: number | null;
  decided_by: string | null;
  decided_at: number | null;
  problem: string | null;
}
interface OldRuling {
  id: string;
  leg_id: string;
  owner: string;
  type: string;
  ruling: string;
  found: { ttl: number; data: string[] } | null;
  planned: unknown;
  reason: string;
  decided_by: string | null;
}
interface OldRun {
  leg_id: string;
  subject: string;
  owner: string;
  type: string;
  verdict: string;
  rcode: string;
  answer: string[];
  first_seen: number;
  last_seen: number;
  count: string;
  remaining_ttl: number | null;
  silent: boolean;
}

/** Seconds between looks before this migration. */
const EVERY = 600;
const LOWERED = 300;

async function bringOver(knex: Knex, leg: OldLeg): Promise<void> {
  const { facts } = leg;
  const steps = new Map((await knex<OldStep>('steps').where({ leg_id: leg.id }).select('*')).map((step) => [step.kind, step]));
  const survey = leg.survey_id ? await knex<{ id: string; taken_at: number }>('surveys').where({ id: leg.survey_id }).first('taken_at') : undefined;
  const decide = async (kind: string, subject: string, value: unknown, person: string | null, at: number): Promise<void> => {
    await knex('decisions').insert({ leg_id: leg.id, kind, subject, value: value === null ? null : JSON.stringify(value), person_id: person, at });
  };
  const at = survey?.taken_at ?? 0;
  for (const { owner, text, answer } of facts.hintAnswers ?? []) await decide('hint', `${owner}\n${text}`, answer, null, at);
  for (const { owner, type, purpose } of facts.purposes ?? []) await decide('purpose', `${owner} ${type}`, purpose, null, at);
  for (const { owner, type, data } of facts.stored ?? []) await decide('stored', `${owner} ${type}`, data, null, at);
  if (facts.pages) await decide('pages', '', facts.pages, null, at);
  const choose = steps.get('choose');
  if (choose?.state === 'done') await decide('hosts', '', null, choose.decided_by, choose.decided_at ?? at);
  await bringRulings(knex, leg, decide);
  const push = steps.get('push');
  if (push && push.decided_at !== null) await decide('push', '', null, push.decided_by, push.decided_at);
  const lower = steps.get('lower');
  const approval = { lowerTo: facts.lowerTo ?? LOWERED, lowerAt: lower?.due_at ?? null, plannedSwitch: facts.plannedSwitch ?? null };
  if (lower && lower.decided_at !== null) await decide('approve', '', approval, lower.decided_by, lower.decided_at);
  if (facts.ts !== undefined) await decide('submitted', '', null, null, facts.ts);
  const rulings = await knex<OldRuling>('rulings').where({ leg_id: leg.id }).orderBy('position').select('*');
  const skipped = await knex<{ text: string; kind: string; move_id: string }>('events')
    .where({ kind: 'skip' })
    .whereIn('move_id', knex('legs').where({ id: leg.id }).select('move_id'))
    .select('text');
  const left = (word: string): boolean => skipped.some((event) => event.text.startsWith(word));
  const observe = async (row: Record<string, unknown>): Promise<void> => {
    const { value } = row;
    const text = value === undefined ? null : JSON.stringify(value);
    await knex('observations').insert({ leg_id: leg.id, count: 1, every: EVERY, digest: fingerprint(text ?? ''), ...row, value: text });
  };
  const changing = rulings.filter((row) => row.found && (row.ruling !== 'carry' || row.type === 'NS') && row.type !== 'SOA');
  const lowered = approval.lowerTo;
  const plans: Record<string, string> = {
    push: fingerprint(JSON.stringify([leg.new_nameservers, rulings.map((row) => row.planned ?? null)])),
    lower: fingerprint(
      JSON.stringify([
        lowered,
        changing
          .filter((row) => !row.reason.startsWith("the DNS host's own") || row.type === 'NS')
          .map((row) => `${row.owner.toLowerCase()}/${row.type}`)
          .sort(),
      ]),
    ),
  };
  plans['raise'] = plans['push']!;
  const upTo = Number((await knex('decisions').max<{ max: string | null }[]>('id'))[0]!.max ?? 0);
  for (const [id, word] of [
    ['push', ''],
    ['lower', 'Lowering'],
    ['turn', 'Turning'],
    ['raise', 'Raising'],
  ] as const) {
    const step = steps.get(id);
    if (step?.state !== 'done' || step.done_at === null) continue;
    if (word !== '' && left(word)) await decide('leave', id, null, step.decided_by, step.done_at);
    else
      await observe({
        kind: 'work',
        subject: id,
        value: { outcome: 'done', problem: null, plan: id === 'turn' ? null : plans[id], upTo, foreign: [], kept: [] },
        first_seen: step.done_at,
        last_seen: step.done_at,
      });
  }
  if (leg.survey_id)
    await observe({
      kind: 'work',
      subject: 'survey',
      value: { outcome: 'done', problem: null, plan: null, upTo: facts.surveyAgain ? 0 : upTo, foreign: [], kept: [] },
      first_seen: at,
      last_seen: at,
    });
  await knex('legs')
    .where({ id: leg.id })
    .update({
      last_survey: facts.lastSurvey ?? leg.survey_id,
      old_servers: JSON.stringify(facts.oldAuthorities ?? []),
      fronted: JSON.stringify(facts.fronted ?? []),
    });
  await bringServers(leg, at, changing, lowered, observe);
  for (const run of await knex<OldRun>('runs').where({ leg_id: leg.id }).orderBy('id').select('*'))
    await observe({
      kind: 'lookout',
      subject: run.subject,
      item: `${run.owner.toLowerCase()}/${run.type}`,
      value: { verdict: run.verdict, rcode: run.rcode, answer: run.answer, silent: run.silent },
      note: JSON.stringify({ remainingTtl: run.remaining_ttl }),
      first_seen: run.first_seen,
      last_seen: run.last_seen,
      count: run.count,
    });
}

/** The rows as they were proposed, and each later change as a decision. */
async function bringRulings(
  knex: Knex,
  leg: OldLeg,
  decide: (kind: string, subject: string, value: unknown, person: string | null, at: number) => Promise<void>,
): Promise<void> {
  const changes = await knex<{ id: string; leg_id: string; undone: boolean; ruling_id: string; before: OldRuling | null; after: OldRuling | null }>(
    'ruling_changes',
  )
    .where({ leg_id: leg.id, undone: false })
    .orderBy('id')
    .select('*');
  const proposed = new Map<string, OldRuling | null>();
  for (const { ruling_id: id, before } of changes) if (!proposed.has(id)) proposed.set(id, before);
  for (const { ruling_id: id, after } of changes) {
    const row = after && {
      owner: after.owner,
      type: after.type,
      ruling: after.ruling,
      found: after.found ?? undefined,
      planned: after.planned ?? undefined,
      reason: after.reason,
    };
    await decide('ruling', id, { row }, after?.decided_by ?? null, 0);
  }
  for (const [id, before] of proposed) {
    await knex('rulings').where({ id }).delete();
    if (before)
      await knex('rulings').insert({
        ...before,
        found: before.found && JSON.stringify(before.found),
        planned: before.planned ? JSON.stringify(before.planned) : null,
      });
  }
}

/** What was kept of each server: last seen old, first seen new. */
async function bringServers(
  leg: OldLeg,
  surveyedAt: number,
  changing: readonly OldRuling[],
  lowered: number,
  observe: (row: Record<string, unknown>) => Promise<void>,
): Promise<void> {
  const { seen = {}, parentSets = [], oldAuthorities = [], P = 0 } = leg.facts;
  const last = Math.max(surveyedAt, ...Object.values(seen).map((one) => one.firstNew ?? one.lastOld));
  for (const { server, address, nameservers, signed } of parentSets) {
    const one = seen[`parent ${address}`];
    const sight = (names: readonly string[]): unknown => ({ nameservers: names, ttl: P, glue: [], ds: signed ? ['unknown'] : [], dsTtl: signed ? P : 0 });
    const base = { kind: 'parent', subject: address, server };
    if (one?.firstNew !== undefined) {
      await observe({ ...base, value: sight(leg.old_nameservers), first_seen: surveyedAt, last_seen: one.lastOld });
      await observe({ ...base, value: sight(nameservers), first_seen: one.firstNew, last_seen: Math.max(last, one.firstNew) });
    } else await observe({ ...base, value: sight(nameservers), first_seen: surveyedAt, last_seen: Math.max(surveyedAt, one?.lastOld ?? 0) });
  }
  for (const { server, address } of oldAuthorities) {
    const [low, turned] = [seen[`lowered ${address}`], seen[`turned ${address}`]];
    const sets = (ttl: (found: number) => number, apex: readonly string[] | undefined): unknown => ({
      serial: null,
      refused: false,
      sets: Object.fromEntries(
        changing.map((row) => {
          const isApex = row.type === 'NS' && apex !== undefined;
          return [`${row.owner.toLowerCase()}/${row.type}`, { ttl: ttl(row.found!.ttl), data: [...(isApex ? apex : row.found!.data)].sort() }];
        }),
      ),
    });
    const base = { kind: 'zone', subject: address, server };
    const stages = [
      { from: surveyedAt, value: sets((ttl) => ttl, undefined) },
      ...(low?.firstNew === undefined ? [] : [{ from: low.firstNew, value: sets((ttl) => Math.min(ttl, lowered), undefined) }]),
      ...(turned?.firstNew === undefined ? [] : [{ from: turned.firstNew, value: sets((ttl) => Math.min(ttl, lowered), leg.new_nameservers) }]),
    ];
    for (const [index, { from, value }] of stages.entries()) {
      const next = index === 0 ? low?.lastOld : turned?.lastOld;
      await observe({ ...base, value, first_seen: from, last_seen: Math.max(from, stages[index + 1] ? (next ?? from) : last) });
    }
  }
}
