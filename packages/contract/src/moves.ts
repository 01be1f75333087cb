import { PURPOSES, RULINGS, STEP_KINDS } from '@wanderon/core';
import { z } from 'zod';

const instant = z.number();

export const scopeSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('whole') }),
  z.object({ kind: z.literal('names'), names: z.array(z.string()).min(1) }),
]);

export const readDomainSchema = z.object({ text: z.string().max(5000) });
export const domainChoiceSchema = z.object({ scope: z.enum(['whole', 'name']), zone: z.string(), name: z.string(), shown: z.string() });
export const readDomainResultSchema = z.object({ choices: z.array(domainChoiceSchema) });

export const newMoveSchema = z.object({ domain: z.string().min(1, 'Type a domain name.').max(5000), scope: z.enum(['whole', 'name']).default('whole') });
export type NewMove = z.infer<typeof newMoveSchema>;

export const rrsetSchema = z.object({ owner: z.string(), type: z.string(), ttl: z.number(), data: z.array(z.string()) });

const seenBetween = z.object({ lastOld: instant, firstNew: instant });

const derivedSchema = z.object({
  at: instant,
  formula: z.string(),
  terms: z.array(z.object({ symbol: z.string(), meaning: z.string(), value: z.number(), unit: z.enum(['instant', 'seconds']) })),
  follows: z.string(),
});

export const stepSchema = z.object({
  kind: z.enum(STEP_KINDS),
  title: z.string(),
  chapter: z.enum(['survey', 'rebuild', 'timetable', 'switch', 'watch']),
  by: z.enum(['person', 'decided', 'seen']),
  state: z.enum(['waiting', 'ready', 'due', 'doing', 'done', 'failed']),
  dueAt: instant.nullable(),
  doneAt: instant.nullable(),
  decidedBy: z.string().nullable(),
  decidedAt: instant.nullable(),
  problem: z.string().nullable(),
});
export type StepView = z.infer<typeof stepSchema>;

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

/** What a person said of a hint. */
export const HINT_ANSWERS = ['not ours', 'retired'] as const;
const hintSchema = z.object({ owner: z.string(), text: z.string(), answer: z.enum(HINT_ANSWERS).nullable() });
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
  earlier: z.array(z.object({ id: z.string(), takenAt: instant, grade: z.string(), sets: z.number() })),
});
export type MoveSurvey = z.infer<typeof moveSurveySchema>;

export const driftSchema = z.object({
  changes: z.array(z.object({ kind: z.enum(['added', 'gone', 'changed', 'TTL changed']), before: rrsetSchema.nullable(), after: rrsetSchema.nullable() })),
  remarks: z.array(z.string()),
});
export type DriftView = z.infer<typeof driftSchema>;

/** What a person has in hand of a zone, as read and confirmed in the browser. */
export const inHandSchema = z.object({
  /** Of the zone file, where it was one: a file whose serial is served is nearly a proof. */
  serial: z.number().int().min(0).max(0xffff_ffff).nullable().default(null),
  names: z.array(z.string().max(1100)).max(20_000),
  sets: z
    .array(z.object({ owner: z.string().max(1100), type: z.string().max(20), ttl: z.number(), data: z.array(z.string().max(300_000)).max(20_000) }))
    .max(40_000),
});
export type InHandInput = z.input<typeof inHandSchema>;

export const rulingSchema = z.object({
  id: z.string(),
  owner: z.string(),
  type: z.string(),
  ruling: z.enum(RULINGS),
  found: rrsetSchema.nullable(),
  planned: rrsetSchema.nullable(),
  reason: z.string(),
  decidedBy: z.string().nullable(),
});
export type RulingView = z.infer<typeof rulingSchema>;

export const remarkSchema = z.object({ owner: z.string(), type: z.string(), weight: z.enum(['stop', 'look']), code: z.string(), text: z.string() });

export const servedSchema = z.object({
  at: instant,
  servers: z.array(z.object({ server: z.string(), address: z.string(), problem: z.string().nullable(), differs: z.array(rrsetSchema) })),
});

export const timesSchema = z.object({
  earliestSwitch: derivedSchema,
  certain: z.boolean(),
  delegation: derivedSchema,
  sets: z.array(z.object({ owner: z.string(), type: z.string(), horizon: derivedSchema })),
  last: derivedSchema,
  switchSeen: z.boolean(),
});
export type TimesView = z.infer<typeof timesSchema>;
export type DerivedView = z.infer<typeof derivedSchema>;

export const gateSchema = z.object({ open: z.boolean(), lines: z.array(z.object({ text: z.string(), holds: z.boolean() })) });

export const lookSchema = z.object({
  lookout: z.string(),
  owner: z.string(),
  type: z.string(),
  verdict: z.enum(['old', 'new', 'mixed', 'other', 'none']),
  answer: z.array(z.string()),
  rcode: z.string(),
  firstSeen: instant,
  lastSeen: instant,
  count: z.number(),
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

export const watchSchema = z.object({
  lookouts: z.array(z.object({ name: z.string(), address: z.string(), note: z.string() })),
  looks: z.array(lookSchema),
  parent: z.array(z.object({ server: z.string(), address: z.string(), state: z.enum(['old', 'new', 'other', 'none']), nameservers: z.array(z.string()) })),
  settled: z.boolean(),
  missing: z.array(z.string()),
  setAside: z.array(z.string()),
  /** Null before the website was looked at where the plan leads. */
  website: websiteLookSchema.nullable(),
  /** Share of lookout answers that were old, by time; and what is expected of caches that are asked all the time. */
  curve: z.array(z.object({ at: instant, old: z.number() })),
});
export type WatchView = z.infer<typeof watchSchema>;

export const legSchema = z.object({
  id: z.string(),
  kind: z.enum(['delegation', 'repoint']),
  oldDnsHost: z.string().nullable(),
  oldWebHost: z.string().nullable(),
  newDnsHost: z.string().nullable(),
  newWebHost: z.string().nullable(),
  oldNameservers: z.array(z.string()),
  newNameservers: z.array(z.string()),
  steps: z.array(stepSchema),
  rulings: z.array(rulingSchema),
  remarks: z.array(remarkSchema),
  served: servedSchema.nullable(),
  times: timesSchema.nullable(),
  gate: gateSchema,
  facts: z.object({
    tl: seenBetween.nullable(),
    ts: instant.nullable(),
    t0: seenBetween.nullable(),
    te: seenBetween.nullable(),
    plannedSwitch: instant.nullable(),
    /** One more survey was asked for, beside the plan. */
    surveyAgain: z.boolean(),
  }),
  undoable: z.string().nullable(),
});
export type LegView = z.infer<typeof legSchema>;

export const markSchema = z.object({ at: instant, label: z.string(), kind: z.enum(['step', 'horizon', 'planned']), derived: derivedSchema.nullable() });
export type Mark = z.infer<typeof markSchema>;

export const moveSummarySchema = z.object({
  id: z.string(),
  domain: z.string(),
  shown: z.string(),
  scope: scopeSchema,
  client: z.string().nullable(),
  state: z.enum(['open', 'closed', 'abandoned']),
  createdAt: instant,
  from: z.string().nullable(),
  to: z.string().nullable(),
  /** What is next, in words, and where it is done. */
  next: z
    .object({
      step: z.enum(STEP_KINDS),
      text: z.string(),
      chapter: z.enum(['survey', 'rebuild', 'timetable', 'switch', 'watch']),
      who: z.enum(['you', 'wanderon']),
      dueAt: instant.nullable(),
      failed: z.boolean(),
    })
    .nullable(),
  marks: z.array(markSchema),
  /** Old answers drain between these: from the switch seen to the last horizon. */
  drain: z.object({ from: instant, until: instant }).nullable(),
});
export type MoveSummary = z.infer<typeof moveSummarySchema>;
export const moveListSchema = z.object({ moves: z.array(moveSummarySchema) });

export const moveSchema = moveSummarySchema.extend({ survey: moveSurveySchema.nullable(), legs: z.array(legSchema), watch: watchSchema.nullable() });
export type MoveView = z.infer<typeof moveSchema>;

export const chooseHostsSchema = z.object({ newDnsHost: z.string(), newWebHost: z.string().nullable() });
export const editRulingSchema = z.object({ ruling: z.enum(RULINGS), ttl: z.string().max(40).optional(), data: z.string().max(70_000).optional() });
export const newRulingSchema = z.object({ owner: z.string().max(1100), type: z.string().max(20), ttl: z.string().max(40), data: z.string().max(70_000) });
export const approveSchema = z.object({
  /** When the TTLs go down; null: at once. */
  lowerAt: instant.nullable(),
  plannedSwitch: instant.nullable(),
  /** Seconds to which the TTLs go down. */
  lowerTo: z.number().int().min(1, 'A TTL is lowered to 1 s at least.').max(86_400).default(300),
});
export const stepActionSchema = z.object({ step: z.enum(STEP_KINDS), action: z.enum(['retry', 'skip']) });

export const eventSchema = z.object({
  id: z.number(),
  at: instant,
  who: z.string().nullable(),
  domain: z.string().nullable(),
  kind: z.string(),
  text: z.string(),
  before: z.unknown(),
  after: z.unknown(),
});
export const eventListSchema = z.object({ events: z.array(eventSchema) });
export type EventView = z.infer<typeof eventSchema>;
