import { NOT_YET_ACTS, NOT_YET_PLACES, VERDICTS } from '@wanderon/core';
import { z } from 'zod';
import { instant } from './common';

/** What one lookout said last of one question. */
export const lookSchema = z.object({
  lookout: z.string(),
  owner: z.string(),
  type: z.string(),
  verdict: z.enum(VERDICTS),
  answer: z.array(z.string()),
  rcode: z.string(),
  firstSeen: instant,
  lastSeen: instant,
  remainingTtl: z.number().nullable(),
  silent: z.boolean(),
  steady: z.boolean(),
});
export type LookView = z.infer<typeof lookSchema>;

/** How the website answers where the plan leads, against the survey. */
export const websiteLookSchema = z.object({
  surveyedAt: instant,
  firstSeen: instant,
  lastSeen: instant,
  /** Addresses of pages that were asked. */
  asked: z.number(),
  changes: z.array(z.object({ pages: z.array(z.string()).readonly(), weight: z.enum(['broken', 'otherwise']), text: z.string() })),
});
export type WebsiteLookView = z.infer<typeof websiteLookSchema>;

/** What is wanted of the website: of which spellings one can be the main one; `forms`: the provisional address as its host forms them. */
export const siteViewSchema = z.object({
  spellings: z.array(z.string()),
  main: z.string().nullable(),
  provisional: z.string().nullable(),
  forms: z.string().nullable(),
});
export type SiteView = z.infer<typeof siteViewSchema>;

export const watchSchema = z.object({
  lookouts: z.array(z.object({ name: z.string(), address: z.string(), note: z.string(), isAfresh: z.boolean() })),
  looks: z.array(lookSchema),
  parent: z.array(
    z.object({
      server: z.string(),
      address: z.string(),
      state: z.enum(['old', 'new', 'other', 'none']),
      nameservers: z.array(z.string()),
      problem: z.string().nullable(),
      seenAt: instant.nullable(),
    }),
  ),
  settled: z.boolean(),
  /** Why the new may not be seen yet, once the change has begun. */
  notYet: z.array(z.object({ place: z.enum(NOT_YET_PLACES), act: z.enum(NOT_YET_ACTS), text: z.string(), until: instant.nullable() })),
  missing: z.array(z.string()),
  setAside: z.array(z.string()),
  /** Null before the website was looked at where the plan leads. */
  website: websiteLookSchema.nullable(),
  site: siteViewSchema,
  /** Share of lookout answers that were old, by time; and what is expected of caches that are asked all the time. */
  curve: z.array(z.object({ at: instant, old: z.number() })),
});
export type WatchView = z.infer<typeof watchSchema>;
