import { z } from 'zod';

/** Instants are seconds since 1970 UTC. `rate`: seconds of this clock in one real second. */
export const clockSchema = z.object({ at: z.number(), rate: z.number(), lab: z.boolean() });
export type ClockView = z.infer<typeof clockSchema>;

export const clockChangeSchema = z
  .object({ rate: z.number().min(0).max(86_400).optional(), jump: z.number().min(0).max(31_622_400).optional() })
  .refine((change) => change.rate !== undefined || change.jump !== undefined, 'Give a speed or a jump.');
export type ClockChange = z.infer<typeof clockChangeSchema>;
