import { Name, NameError, TextError, WAYS, isIpv4, isIpv6, rrsetFromText, typeCode } from '@wanderon/core';
import { z } from 'zod';
import { comparedWaySchema } from './ways';

/** Things that one text can give; a longer list is a zone, which goes into the survey. */
const MOST_ITEMS = 300;
/** Names of which a person says whether they go along. */
const MOST_SAID = 2000;
/** Names that show the website, as they are sent to the page; the rest goes as they do. */
export const MOST_NAMES = 400;

export const givenItemSchema = z
  .object({
    kind: z.enum(['nameserver', 'address', 'record']),
    owner: z.string().max(1100),
    type: z.string().max(20),
    data: z.string().max(70_000),
    doubts: z.array(z.string().max(600)).max(10).default([]),
    /** What a person said of it; left out where nobody said anything. */
    taken: z.boolean().optional(),
  })
  .superRefine((item, context) => {
    const problem = problemOf(item);
    if (problem !== undefined) context.addIssue({ code: 'custom', path: ['data'], message: problem });
  });
/** Why a given thing cannot be used, in a sentence. */
function problemOf({ kind, owner, type, data }: { kind: string; owner: string; type: string; data: string }): string | undefined {
  if (kind === 'address') return isIpv4(data) || isIpv6(data) ? undefined : 'This is not an IPv4 or IPv6 address.';
  if (kind === 'nameserver') return Name.tryParse(data) === undefined ? 'This is no name of a nameserver.' : undefined;
  if (Name.tryParse(owner, ANY_ZONE) === undefined) return 'The name of this record cannot be read.';
  if (typeCode(type) === undefined) return `${type} is not a record type.`;
  try {
    rrsetFromText({ owner: 'x.', type, ttl: 0, data: [data] });
    return undefined;
  } catch (error) {
    if (error instanceof NameError || error instanceof TextError || error instanceof RangeError) return `This is no ${type} record: ${error.message}.`;
    throw error;
  }
}

const ANY_ZONE = Name.parse('zone.example.');

export type AllGivenItem = z.output<typeof givenItemSchema>;

/** What was given for a move, and what a person said of the names that show the website; names below the domain, `@` for itself. */
export const allGivenSchema = z.object({
  items: z.array(givenItemSchema).max(MOST_ITEMS, `There can be ${MOST_ITEMS} of them.`),
  newDnsHost: z.string().nullable().default(null),
  newWebHost: z.string().nullable().default(null),
  names: z
    .record(z.string().max(1100), z.boolean())
    .refine((names) => Object.keys(names).every((name) => Name.tryParse(name, ANY_ZONE) !== undefined), 'One of the names cannot be read.')
    .refine((names) => Object.keys(names).length <= MOST_SAID, `There can be ${MOST_SAID} names.`)
    .default({}),
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
  /** The title of the page for unused domains that is shown there; null: a website, or nobody knows. */
  parked: z.string().nullable(),
  /** Mail goes to the domain today. */
  hasMail: z.boolean(),
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
  /** The places are those of the plan that there is: what is given now is added to it, as long as the way is the same. */
  isAddition: z.boolean(),
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
