import { z } from 'zod';
import { instant } from './common';

/** Days for which a link to a sheet can be good. */
export const LINK_DAYS = [1, 3, 7, 14, 30] as const;

/** A link by which somebody without an account sees one sheet and nothing else. */
export const sheetLinkSchema = z.object({ id: z.string(), madeBy: z.string(), madeAt: instant, endsAt: instant, withdrawnAt: instant.nullable() });
export type SheetLink = z.infer<typeof sheetLinkSchema>;
export const sheetLinksSchema = z.object({ links: z.array(sheetLinkSchema) });

export const newSheetLinkSchema = z.object({ days: z.union(LINK_DAYS.map((days) => z.literal(days))) });
export type NewSheetLink = z.infer<typeof newSheetLinkSchema>;
/** `path`: told once, to whoever makes it; only its digest is kept. */
export const madeSheetLinkSchema = sheetLinkSchema.extend({ path: z.string() });
export type MadeSheetLink = z.infer<typeof madeSheetLinkSchema>;

const entrySchema = z.object({
  name: z.string(),
  type: z.string(),
  priority: z.string().optional(),
  value: z.string(),
  ttl: z.string().optional(),
  front: z.enum(['on', 'off']).optional(),
});

/** What somebody without an account sees. */
export const openSheetSchema = z.object({
  domain: z.string(),
  host: z.string(),
  inPlace: z.boolean(),
  styleKnown: z.boolean(),
  /** What the panel says of entries that are right. */
  warnings: z.array(z.string()),
  endsAt: instant,
  /** Rows that are ticked, by everybody who has the sheet open. */
  typed: z.array(z.string()),
  rows: z.array(z.object({ id: z.string(), act: z.enum(['delete', 'edit', 'add']), before: entrySchema.optional(), entry: entrySchema.optional() })),
});
export type OpenSheetView = z.infer<typeof openSheetSchema>;
