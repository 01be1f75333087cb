import { PURPOSES, isIpv4, isIpv6 } from '@wanderon/core';
import { z } from 'zod';
import { givenSetsSchema, hostName, instant, outsideSchema, rrsetSchema } from './common';
import { HINT_ANSWERS } from './hintAnswers';

const referralSchema = z.object({
  server: z.string(),
  address: z.string(),
  nameservers: z.array(z.string()),
  ttl: z.number().nullable(),
  glue: z.array(z.object({ name: z.string(), address: z.string(), ttl: z.number() })),
  ds: z.array(z.string()),
  dsTtl: z.number().nullable().default(null),
  problem: z.string().nullable(),
});
const authoritySchema = z.object({
  server: z.string(),
  address: z.string(),
  authoritative: z.boolean(),
  withoutAuthority: z.boolean().optional(),
  serial: z.number().nullable(),
  transferred: z.boolean(),
  problem: z.string().nullable(),
  responded: z.boolean().default(true),
  tcpProblem: z.string().nullable().default(null),
  nameservers: z.array(z.string()).default([]),
  signed: z.boolean().default(false),
  /** False: only the zone itself names it. */
  delegated: z.boolean().default(true),
});

const hintSchema = z.object({ owner: z.string(), text: z.string(), unread: z.string().optional(), answer: z.enum(HINT_ANSWERS).nullable() });
export type HintView = z.infer<typeof hintSchema>;
export const answerHintSchema = z.object({ owner: z.string().max(1100), text: z.string().max(1000), answer: z.enum(HINT_ANSWERS).nullable() });
export type AnswerHint = z.infer<typeof answerHintSchema>;
/** The name behind a hint, as typed below the zone or whole. */
export const nameHintSchema = z.object({ owner: z.string().max(1100), text: z.string().max(1000), name: z.string().trim().min(1, 'Type the name.').max(1100) });
export type NameHint = z.infer<typeof nameHintSchema>;

/** Where a record set was seen. `data`: where it is otherwise than the set's own. */
export const evidenceSchema = z.object({
  kind: z.enum(['transfer', 'walk', 'answer', 'given']),
  server: z.string().nullable(),
  address: z.string().nullable(),
  serial: z.number().nullable(),
  because: z.string().nullable(),
  ttl: z.number().nullable(),
  data: z.array(z.string()).nullable(),
  absent: z.boolean(),
});
export type EvidenceView = z.infer<typeof evidenceSchema>;

export const findingSchema = z.object({ weight: z.enum(['stop', 'look', 'note']), code: z.string(), text: z.string() });
export type FindingView = z.infer<typeof findingSchema>;

export const registrationSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('found'),
    registration: z.object({
      service: z.string(),
      registrar: z.string().optional(),
      registered: instant.optional(),
      expires: instant.optional(),
      statuses: z.array(z.string()).readonly(),
      nameservers: z.array(z.string()).readonly(),
      delegationSigned: z.boolean().optional(),
      dsKeyTags: z.array(z.number()).readonly(),
    }),
  }),
  z.object({ kind: z.literal('absent'), service: z.string() }),
  z.object({ kind: z.literal('unknown'), problem: z.string() }),
]);

const certificateSchema = z.object({
  names: z.array(z.string()).readonly(),
  issuer: z.string(),
  from: instant,
  until: instant,
  fingerprint: z.string(),
  problem: z.string().nullable(),
});
/** How an address of a page answered. */
export const pageSchema = z.object({
  start: z.string(),
  hops: z.array(z.object({ url: z.string(), address: z.string(), status: z.number(), certificate: certificateSchema.nullable() })).readonly(),
  problem: z.string().nullable(),
  keepsPath: z.boolean().nullable(),
  page: z
    .object({
      title: z.string().nullable(),
      fingerprint: z.string(),
      octets: z.number(),
      cut: z.boolean(),
      headers: z.record(z.string(), z.string()).readonly(),
    })
    .nullable(),
});
export type PageView = z.infer<typeof pageSchema>;

export const tieSchema = z.object({ code: z.string(), owner: z.string(), text: z.string() });

export const surveySchema = z.object({
  id: z.string(),
  takenAt: instant,
  parent: z.string(),
  coverage: z.object({ grade: z.enum(['whole', 'likely whole', 'partial']), reasons: z.array(z.string()) }),
  referrals: z.array(referralSchema),
  authorities: z.array(authoritySchema),
  registration: registrationSchema.nullable(),
  findings: z.array(findingSchema),
  sets: z.array(
    rrsetSchema.extend({
      evidence: z.array(evidenceSchema),
      /** How its answers differ. */
      varying: z.string().nullable(),
      /** One server answers otherwise from one question to the next. */
      restless: z.boolean(),
      /** Why what is answered is not what its host stores; `stored`: what that is, where it is known. */
      fronted: z.string().nullable(),
      stored: z.array(z.string()).nullable(),
    }),
  ),
  /** Signs of names that were not seen. */
  hints: z.array(hintSchema),
  /** What names outside the zone end at. */
  ends: z.array(z.object({ target: z.string(), addresses: z.array(z.string()) })),
  pages: z.array(pageSchema),
  /** Null where it was not asked. */
  outside: outsideSchema.nullable(),
  /** Questions put to fill the inventory. */
  asked: z.number(),
});
export type SurveyView = z.infer<typeof surveySchema>;

const ofSet = { owner: z.string().max(1100), type: z.string().max(20) };
/** What a person says a record set is for; null: what the tool says stands. */
export const purposeSchema = z.object({ ...ofSet, purpose: z.enum(PURPOSES).nullable() });
export type PurposeInput = z.infer<typeof purposeSchema>;
/** What a fronted set really holds, as a person read it in the host's panel; one value a line. Empty: it is not known after all. */
export const storedSchema = z.object({ ...ofSet, data: z.string().max(70_000) });
export type StoredInput = z.infer<typeof storedSchema>;
/** Pages to look at beside the front ones: host names of the domain with a path. */
export const pagesSchema = z.object({ pages: z.array(z.string().trim().max(1000)).max(40) });
export type PagesInput = z.infer<typeof pagesSchema>;

/** A survey as it stands in a move: with what people said of it, and what hangs together with it. */
export const moveSurveySchema = surveySchema.extend({
  ties: z.array(tieSchema),
  purposes: z.array(z.object({ owner: z.string(), type: z.string(), purpose: z.enum(PURPOSES) })),
  /** Pages that a person listed. */
  listed: z.array(z.string()),
  /** Surveys of the same move before this one, the newest first. */
  earlier: z.array(z.object({ id: z.string(), takenAt: instant, grade: z.enum(['whole', 'likely whole', 'partial']), sets: z.number() })),
});
export type MoveSurvey = z.infer<typeof moveSurveySchema>;

export const driftSchema = z.object({
  changes: z.array(z.object({ kind: z.enum(['added', 'gone', 'changed', 'TTL changed']), before: rrsetSchema.nullable(), after: rrsetSchema.nullable() })),
  remarks: z.array(z.string()),
});
export type DriftView = z.infer<typeof driftSchema>;

/** A server by its name, which comes out absolute, or by its address. */
const serverSchema = z
  .string()
  .trim()
  .transform((text, context) => {
    if (isIpv4(text) || isIpv6(text)) return text;
    const name = hostName.safeParse(text);
    if (name.success && text !== '') return name.data;
    context.addIssue({ code: 'custom', message: 'Type the name of a server, or its address.' });
    return z.NEVER;
  });

/** What a person has in hand of a zone, as read and confirmed in the browser. */
export const inHandSchema = z.object({
  /** Of the zone file, where it was one: a file whose serial is served is nearly a proof. */
  serial: z.number().int().min(0).max(0xffff_ffff).nullable().default(null),
  names: z.array(z.string().max(1100)).max(20_000),
  sets: givenSetsSchema,
  servers: z.array(serverSchema).max(4).default([]),
});
export type InHandInput = z.input<typeof inHandSchema>;
