import { z } from 'zod';
import { instant } from './common';
import { evidenceSchema } from './surveys';

const endSchema = z.object({ target: z.string(), addresses: z.array(z.string()) });

/** What lies behind one row of a ledger: where it was seen, what it ends at before and after, and what people made of it. */
export const rowStorySchema = z.object({
  evidence: z.array(evidenceSchema),
  before: z.array(endSchema),
  after: z.array(endSchema),
  history: z.array(z.object({ at: instant, who: z.string().nullable(), text: z.string(), undone: z.boolean() })),
  comments: z.array(z.object({ id: z.number(), at: instant, who: z.string().nullable(), text: z.string(), mine: z.boolean() })),
});
export type RowStory = z.infer<typeof rowStorySchema>;

/** Control characters, line breaks aside, have no place in what people read. */
// oxlint-disable-next-line no-control-regex
const UNREADABLE = /[\u0000-\u0009\u000b-\u001f\u007f\ud800-\udfff]/u;

export const commentSchema = z.object({
  text: z
    .string()
    .trim()
    .min(1, 'Write something first.')
    .max(2000, 'At most 2,000 characters.')
    .refine((text) => !UNREADABLE.test(text), 'It holds characters that cannot be shown.'),
});
export type CommentInput = z.infer<typeof commentSchema>;

/** On which row somebody's cursor stands, and by which page it is told; null: it has left the ledger. */
export const cursorSchema = z.object({
  page: z.string().regex(/^[0-9a-f]{32}$/, 'A page has a name of 32 hexadecimal digits.'),
  row: z.string().max(40).nullable(),
});
export type CursorInput = z.infer<typeof cursorSchema>;
/** The same as it is told to everybody. */
export type CursorTold = CursorInput & { readonly leg: string; readonly name: string };
