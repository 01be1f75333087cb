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

/** The ways that are open to a domain after its survey. */
export const waysComparedSchema = z.object({
  ways: z.array(comparedWaySchema),
  recommended: z.enum(WAYS).nullable(),
  reason: z.string(),
  website: z.array(z.string()).readonly(),
});
export type WaysView = z.infer<typeof waysComparedSchema>;
