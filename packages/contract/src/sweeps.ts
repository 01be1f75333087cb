import { z } from 'zod';
import { moveSurveySchema } from './surveys';

const instant = z.number();
export const SWEEP_STATES = ['running', 'paused', 'cancelled', 'done'] as const;
export const SWEEP_ROW_STATES = ['waiting', 'done', 'failed', 'cancelled'] as const;

/** A list of domains to survey, as pasted. */
export const newSweepSchema = z.object({ name: z.string().trim().max(100), text: z.string().max(900_000) });
export type NewSweep = z.infer<typeof newSweepSchema>;

export const sweepSummarySchema = z.object({
  id: z.string(),
  name: z.string(),
  createdAt: instant,
  by: z.string().nullable(),
  state: z.enum(SWEEP_STATES),
  waiting: z.number(),
  done: z.number(),
  failed: z.number(),
  cancelled: z.number(),
});
export type SweepSummary = z.infer<typeof sweepSummarySchema>;
export const sweepListSchema = z.object({ sweeps: z.array(sweepSummarySchema) });

/** What one survey came to, for a table of many. */
export const surveyGistSchema = z.object({
  grade: z.enum(['whole', 'likely whole', 'partial']),
  sets: z.number(),
  stops: z.number(),
  looks: z.number(),
  hints: z.number(),
  fronted: z.number(),
  varying: z.number(),
  conflicts: z.number(),
  dnsHost: z.string().nullable(),
  registrar: z.string().nullable(),
  expires: instant.nullable(),
  /** The gravest findings. */
  said: z.array(z.string()),
});
export type SurveyGistView = z.infer<typeof surveyGistSchema>;

export const sweepRowSchema = z.object({
  domain: z.string(),
  state: z.enum(SWEEP_ROW_STATES),
  surveyId: z.string().nullable(),
  doneAt: instant.nullable(),
  problem: z.string().nullable(),
  gist: surveyGistSchema.nullable(),
});
export type SweepRow = z.infer<typeof sweepRowSchema>;

export const sweepSchema = sweepSummarySchema.extend({ rows: z.array(sweepRowSchema) });
export type SweepView = z.infer<typeof sweepSchema>;

export const sweepActionSchema = z.object({ action: z.enum(['pause', 'resume', 'cancel', 'retry']) });
export type SweepAction = z.infer<typeof sweepActionSchema>;

/** One survey alone, of whichever move or sweep. */
export const surveyPageSchema = z.object({ domain: z.string(), move: z.string().nullable(), survey: moveSurveySchema });
export type SurveyPage = z.infer<typeof surveyPageSchema>;
