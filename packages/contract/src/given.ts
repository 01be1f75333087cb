import { WAYS } from '@wanderon/core';
import { z } from 'zod';
import { comparedWaySchema } from './ways';

/** Things that one text can give; a longer list is a zone, which goes into the survey. */
const MOST_ITEMS = 300;
/** Names that show the website, as they are sent to the page; the rest goes as they do. */
export const MOST_NAMES = 400;

export const givenItemSchema = z.object({
  kind: z.enum(['nameserver', 'address', 'record']),
  owner: z.string().max(1100),
  type: z.string().max(20),
  data: z.string().max(70_000),
  doubts: z.array(z.string().max(600)).max(10).default([]),
  /** What a person said of it; left out where nobody said anything. */
  taken: z.boolean().optional(),
  /** The line of the text that it stood in; empty where it was typed. */
  from: z.string().max(300).default(''),
});
export type AllGivenItem = z.output<typeof givenItemSchema>;

/** What was given for a move, and what a person said of the names that show the website; names below the domain, `@` for itself. */
export const allGivenSchema = z.object({
  items: z.array(givenItemSchema).max(MOST_ITEMS, `There can be ${MOST_ITEMS} of them.`),
  newDnsHost: z.string().nullable().default(null),
  newWebHost: z.string().nullable().default(null),
  names: z.record(z.string().max(1100), z.boolean()).default({}),
});
export type AllGiven = z.output<typeof allGivenSchema>;

/** Null: what was kept with the leg, or nothing. */
export const askFrontSchema = z.object({ given: allGivenSchema.nullable() });

const placeSchema = z.object({
  /** Null: nobody described it. */
  id: z.string().nullable(),
  name: z.string(),
  /** It takes updates: Wanderon has a key. */
  keyed: z.boolean(),
});

/** The front door of a leg: how the domain stands, what was given, and what follows from it. */
export const frontSchema = z.object({
  standing: z.string(),
  given: allGivenSchema,
  items: z.array(
    givenItemSchema.extend({
      use: z.enum(['nameserver', 'website', 'record', 'none']),
      words: z.string(),
      question: z.string().nullable(),
      isTaken: z.boolean(),
    }),
  ),
  dns: placeSchema.nullable(),
  web: placeSchema.nullable(),
  ways: z.array(comparedWaySchema),
  fit: z.array(z.enum(WAYS)),
  missing: z.partialRecord(z.enum(WAYS), z.string()),
  /** The way that speaks for itself where nothing was given yet, and why. */
  recommended: z.enum(WAYS).nullable(),
  reason: z.string(),
  names: z.array(
    z.object({ owner: z.string(), now: z.array(z.string()), then: z.array(z.string()), moves: z.boolean(), isFree: z.boolean(), why: z.string() }),
  ),
  /** Names beyond those that are told. */
  moreNames: z.number(),
});
export type FrontView = z.infer<typeof frontSchema>;

/** A place of a move, kept as a host under this name. */
export const keepPlaceSchema = z.object({ name: z.string().trim().min(1, 'Type a name.').max(100) });
