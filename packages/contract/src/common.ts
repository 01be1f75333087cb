import { Name, NameError, WAY_ACTS } from '@wanderon/core';
import { z } from 'zod';

/** Seconds since 1970 UTC. */
export const instant = z.number();

export const rrsetSchema = z.object({ owner: z.string(), type: z.string(), ttl: z.number(), data: z.array(z.string()) });

/** Sets as somebody pasted them. */
export const givenSetsSchema = z
  .array(z.object({ owner: z.string().max(1100), type: z.string().max(20), ttl: z.number(), data: z.array(z.string().max(300_000)).max(20_000) }))
  .max(40_000);

export const seenBetween = z.object({ lastOld: instant, firstNew: instant });

/** A moment with the sum that led to it; null: no bound is known. */
export const derivedSchema = z.object({
  at: instant.nullable(),
  formula: z.string(),
  terms: z.array(z.object({ symbol: z.string(), meaning: z.string(), value: z.number().nullable(), unit: z.enum(['instant', 'seconds']) })),
  follows: z.string(),
});
export type DerivedView = z.infer<typeof derivedSchema>;

/** What a person can do where something does not go on. */
export const waySchema = z.object({ act: z.enum(WAY_ACTS), subject: z.string(), label: z.string(), means: z.string() });
export type WayView = z.infer<typeof waySchema>;

/** A name of the DNS as it is typed, absolute. */
export const hostName = z
  .string()
  .trim()
  .max(1000)
  .transform((text, context) => {
    try {
      return Name.parse(text).toString();
    } catch (error) {
      if (!(error instanceof NameError)) throw error;
      context.addIssue({ code: 'custom', message: `"${text}" is not a name: ${error.message}.` });
      return z.NEVER;
    }
  });

export const scopeSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('whole') }),
  z.object({ kind: z.literal('names'), names: z.array(z.string()).min(1), asked: z.array(z.string()).optional() }),
]);

/** What stands outside of a zone and decides what its records mean. */
export const outsideSchema = z.object({
  caa: z.object({ owner: z.string(), data: z.array(z.string()).readonly() }).nullable(),
  reports: z.array(z.object({ about: z.string(), to: z.string(), takes: z.boolean().nullable() })).readonly(),
  mtaSts: z.object({ text: z.string().nullable(), problem: z.string().nullable() }).nullable(),
});
