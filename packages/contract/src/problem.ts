import { z } from 'zod';

/** The one error shape (RFC 9457). `field` names the input that is wrong, `kept` says what was not lost. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string().optional(),
  field: z.string().optional(),
  kept: z.string().optional(),
  /** A move that is in the way. */
  move: z.string().optional(),
  /** A domain that is not delegated can be begun as one that was never used. */
  unused: z.boolean().optional(),
  /** What was given is right, and a code of the second factor is asked for. */
  needsCode: z.boolean().optional(),
});
export type Problem = z.infer<typeof problemSchema>;
