import { z } from 'zod';

/** Something to do that somebody noted for a move. */
export const ownTaskSchema = z.object({
  title: z.string().trim().min(1, 'Say what is to be done.').max(120),
  when: z.enum(['before', 'after']),
  note: z.string().trim().max(600).default(''),
});
export type OwnTaskInput = z.output<typeof ownTaskSchema>;
