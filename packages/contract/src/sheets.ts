import { SHEETS } from '@wanderon/core';
import { z } from 'zod';
import { instant } from './common';

/** Days for which a link to a sheet can be good. */
export const LINK_DAYS = [1, 3, 7, 14, 30] as const;

/** A link by which somebody without an account sees one sheet and nothing else. */
export const sheetLinkSchema = z.object({ id: z.string(), madeBy: z.string(), madeAt: instant, endsAt: instant, withdrawnAt: instant.nullable() });
export type SheetLink = z.infer<typeof sheetLinkSchema>;
export const sheetLinksSchema = z.object({ links: z.array(sheetLinkSchema) });

export const sheetQuerySchema = z.object({ sheet: z.enum(SHEETS).default('records') });

export const newSheetLinkSchema = z.object({
  sheet: z.enum(SHEETS).default('records'),
  days: z.union(LINK_DAYS.map((days) => z.literal(days))),
});
export type NewSheetLink = z.input<typeof newSheetLinkSchema>;
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

/** The way to where something is done in a panel. */
const wayThereSchema = z.object({ link: z.string().optional(), clicks: z.array(z.string()), first: z.string().optional() });

const zoneSheet = z.object({
  /** Everything else of the zone stays as it is. */
  inPlace: z.boolean(),
  /** How its rows are written, as a sentence. */
  style: z.string(),
  rows: z.array(
    z.object({
      id: z.string(),
      act: z.enum(['delete', 'edit', 'add']),
      before: entrySchema.optional(),
      entry: entrySchema.optional(),
      whole: z.object({ name: z.string().optional(), value: z.string().optional() }).optional(),
    }),
  ),
});

/** What somebody without an account sees: what is typed in the panel of a DNS host, or at the registrar. */
export const openSheetSchema = z.object({
  domain: z.string(),
  host: z.string(),
  /** Where it is done; null: nobody has said it. */
  where: wayThereSchema.nullable(),
  /** What a panel says of entries that are right. */
  warnings: z.array(z.string()),
  endsAt: instant,
  /** Rows that are ticked, by everybody who has the sheet open. */
  typed: z.array(z.string()),
  content: z.discriminatedUnion('sheet', [
    zoneSheet.extend({ sheet: z.literal('records') }),
    zoneSheet.extend({ sheet: z.literal('lower') }),
    zoneSheet.extend({ sheet: z.literal('raise') }),
    z.object({
      sheet: z.literal('registrar'),
      /** Nameservers that the domain is to have. */
      names: z.number(),
      steps: z.array(z.object({ id: z.string(), text: z.string(), copy: z.string().optional(), isName: z.boolean() })),
    }),
  ]),
});
export type OpenSheetView = z.infer<typeof openSheetSchema>;

/** A row of a handover sheet that is typed, or not after all. */
export const typedSchema = z.object({ sheet: z.enum(SHEETS).default('records'), row: z.string().min(1).max(70_000), typed: z.boolean() });
export type TypedInput = z.output<typeof typedSchema>;
