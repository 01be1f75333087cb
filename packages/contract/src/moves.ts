import { CHAPTERS } from '@wanderon/core';
import { z } from 'zod';
import { derivedSchema, instant, scopeSchema } from './common';
import { legSchema, rowSchema } from './legs';

export const readDomainSchema = z.object({ text: z.string().max(5000) });
export const domainChoiceSchema = z.object({
  scope: z.enum(['whole', 'name']),
  zone: z.string(),
  names: z.array(z.string()),
  shown: z.string(),
});
export const readDomainResultSchema = z.object({ choices: z.array(domainChoiceSchema) });

export const newMoveSchema = z.object({
  domain: z.string().min(1, 'Type a domain name.').max(5000),
  scope: z.enum(['whole', 'name']).default('whole'),
  /** Somebody says that nothing was ever delegated to: else a domain that is not is refused, since it may be misspelt. */
  unused: z.boolean().default(false),
});
export type NewMove = z.infer<typeof newMoveSchema>;

export const markSchema = z.object({ at: instant, label: z.string(), kind: z.enum(['step', 'horizon', 'planned']), derived: derivedSchema.nullable() });
export type Mark = z.infer<typeof markSchema>;

export const moveSummarySchema = z.object({
  id: z.string(),
  /** The leg that is current. */
  leg: z.string(),
  domain: z.string(),
  shown: z.string(),
  scope: scopeSchema,
  client: z.string().nullable(),
  state: z.enum(['open', 'closed', 'abandoned']),
  createdAt: instant,
  from: z.string().nullable(),
  to: z.string().nullable(),
  /** What is next, in words, and where it is done. */
  next: z
    .object({
      step: z.string(),
      text: z.string(),
      chapter: z.enum(CHAPTERS),
      who: z.enum(['you', 'wanderon']),
      dueAt: instant.nullable(),
      failed: z.boolean(),
      /** It can be done from here; not of a summary that was kept before this was told. */
      atOnce: z.boolean().default(false),
    })
    .nullable(),
  marks: z.array(markSchema),
  /** Old answers drain between these: from the switch seen to the last old answer has run out. */
  drain: z.object({ from: instant, until: instant }).nullable(),
});
export type MoveSummary = z.infer<typeof moveSummarySchema>;
/** `next`: where the page after this one begins; null: this is the last. */
export const moveListSchema = z.object({ moves: z.array(moveSummarySchema), next: z.string().nullable() });
export const moveQuerySchema = z.object({
  state: z.enum(['open', 'ended', 'all']).default('all'),
  text: z.string().max(255).default(''),
  /** `begun`: the newest first; `due`: as they stand on the Desk. */
  order: z.enum(['begun', 'due']).default('begun'),
  after: z.string().max(120).optional(),
  limit: z.coerce.number().int().min(1).max(200).default(100),
});

/** What an act answers: the move as it is afterwards is told to the pages, and read in parts. */
export const actedSchema = z.object({
  id: z.string(),
  version: z.number(),
  /** Rows of the ledger as an undo or redo left them, where they are few; null: not there any more. */
  rows: z.array(z.object({ id: z.string(), row: rowSchema.nullable() })).optional(),
});
export type Acted = z.infer<typeof actedSchema>;

/** The head of a move; ledger, survey, watch and trail are resources of their own. */
export const moveSchema = moveSummarySchema.extend({
  version: z.number(),
  legs: z.array(legSchema),
  /** What colleagues are to know of it. */
  note: z.string(),
});
/** `seen`: the note that stood there when somebody began to change it. */
export const moveNoteSchema = z.object({ text: z.string().trim().max(10_000), seen: z.string().max(10_000) });
export type MoveNoteInput = z.output<typeof moveNoteSchema>;
export type MoveView = z.infer<typeof moveSchema>;

export const eventSchema = z.object({
  id: z.number(),
  at: instant,
  who: z.string().nullable(),
  domain: z.string().nullable(),
  kind: z.string(),
  text: z.string(),
  before: z.unknown(),
  after: z.unknown(),
});
export const eventListSchema = z.object({ events: z.array(eventSchema) });
export type EventView = z.infer<typeof eventSchema>;
