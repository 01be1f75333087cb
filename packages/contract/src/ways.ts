import { WAYS } from '@wanderon/core';
import { z } from 'zod';
import { derivedSchema } from './common';

/** Durations in seconds; null: without a bound. */
export const comparedWaySchema = z.object({
  way: z.enum(WAYS),
  title: z.string(),
  changes: z.string(),
  who: z.string(),
  meanwhile: z.string(),
  ruledOut: z.string().nullable(),
  against: z.array(z.string()),
  sets: z.number(),
  untilSound: z.number().nullable(),
  untilSettled: derivedSchema,
  settling: z.number().nullable(),
  back: z.number().nullable(),
  backWords: z.string(),
  delegationBack: z.number().nullable(),
});
export type ComparedWayView = z.infer<typeof comparedWaySchema>;
