import {
  BACK_WAYS,
  CHAPTERS,
  EDGES,
  FRONTING,
  LEG_KINDS,
  LOOK_KINDS,
  PURPOSES,
  REQUIREMENT_ENDS,
  RULE_RULINGS,
  RULINGS,
  STEP_BY,
  STEP_STATES,
  WAYS,
} from '@wanderon/core';
import { z } from 'zod';
import { derivedSchema, givenSetsSchema, hostName, instant, outsideSchema, rrsetSchema, scopeSchema, seenBetween, waySchema } from './common';
import { allGivenSchema } from './given';
import { knownStyleSchema } from './hosts';
import { MOST_ROWS, PAGE_ROWS } from './ledgerParts';
import { ownTaskSchema } from './ownTasks';
import { givenRegistrationSchema } from './registration';

export const stepSchema = z.object({
  id: z.string(),
  title: z.string(),
  chapter: z.enum(CHAPTERS),
  by: z.enum(STEP_BY),
  state: z.enum(STEP_STATES),
  dueAt: instant.nullable(),
  doneAt: instant.nullable(),
  decidedBy: z.string().nullable(),
  decidedAt: instant.nullable(),
  /** What it waits for, what was seen last, or what is wrong. */
  text: z.string().nullable(),
  since: instant.nullable(),
  ways: z.array(waySchema),
});
export type StepView = z.infer<typeof stepSchema>;

/** One statement of the gate that holds or does not, with its evidence and its age. */
export const lineSchema = z.object({
  key: z.string(),
  text: z.string(),
  holds: z.boolean(),
  /** It holds, or what is in its way was let pass. */
  passes: z.boolean(),
  evidence: z.string().nullable(),
  seenAt: instant.nullable(),
  holdsAt: instant.nullable(),
  waivable: z.boolean(),
  /** What is in its way, one by one. */
  about: z.array(z.string()),
  /** Stands for what is in its way; another one where anything of that is another. */
  facts: z.string(),
  /** Why a person let it pass. */
  waived: z.string().nullable(),
  ways: z.array(waySchema),
});
export type LineView = z.infer<typeof lineSchema>;

export const gateSchema = z.object({ open: z.boolean(), opensAt: instant.nullable(), goodUntil: instant.nullable(), lines: z.array(lineSchema) });

/** What a row of a ledger is decided to be. */
export const rowSchema = z.object({
  owner: z.string(),
  type: z.string(),
  ruling: z.enum(RULINGS),
  found: rrsetSchema.nullable(),
  planned: rrsetSchema.nullable(),
  reason: z.string(),
});

/** The same as it stands in the ledger. */
export const rulingSchema = rowSchema.extend({
  id: z.string(),
  decidedBy: z.string().nullable(),
  /** How its name is to be answered, at a host that fronts names; null where it does not, or the name leads nowhere. */
  fronting: z.enum(FRONTING).nullable(),
  /** Under which heading it stands, and where in the whole ledger, in the order in which it is worked through. */
  group: z.string(),
  place: z.int(),
  /** Where it stands among the rows of the plan, which follow each other as they were found. */
  index: z.int(),
});
export type RulingView = z.infer<typeof rulingSchema>;

export const remarkSchema = z.object({
  owner: z.string(),
  type: z.string(),
  weight: z.enum(['stop', 'look']),
  code: z.string(),
  text: z.string(),
  /** What it rests on; another word once that is otherwise. */
  fact: z.string(),
  /** Why somebody let it be; null where nobody did. */
  waived: z.string().nullable(),
  /** What would mend it, the likeliest first, as rows before and after; null: not in the plan. */
  fixes: z.array(
    z.object({
      key: z.string(),
      text: z.string(),
      rows: z.array(z.object({ owner: z.string(), type: z.string(), before: z.array(z.string()).nullable(), after: z.array(z.string()).nullable() })),
    }),
  ),
});
export type RemarkView = z.infer<typeof remarkSchema>;

/** How each server of the new host answers, held against the plan. `extras`: what stands there that the plan does not name. */
export const servedSchema = z.object({
  servers: z.array(
    z.object({
      server: z.string(),
      address: z.string(),
      at: instant.nullable(),
      problem: z.string().nullable(),
      /** It refuses to answer for the zone. */
      refused: z.boolean(),
      /** Its apex NS set is the new one. */
      apexNew: z.boolean(),
      /** That set, where it is another. */
      apex: z.object({ ttl: z.number(), data: z.array(z.string()) }).nullable(),
      /** `slip`: what was done wrong, where a known slip explains it, and what to change; `forgotten`: only that it is not there, or as before. */
      differs: z.array(rrsetSchema.extend({ slip: z.string().nullable(), forgotten: z.boolean() })),
      extras: z.array(rrsetSchema),
    }),
  ),
  /** What is to be learned of the panel from it; on the first page of the ledger. */
  lessons: z.array(z.object({ key: z.string(), text: z.string(), choices: z.array(z.object({ label: z.string(), change: knownStyleSchema })) })),
});
export type ServedView = z.infer<typeof servedSchema>;

/** What is looked at now. */
export const lookNowSchema = z.object({ kind: z.enum(LOOK_KINDS) });
export type LookInput = z.output<typeof lookNowSchema>;

export const timesSchema = z.object({
  earliestSwitch: derivedSchema,
  /** False while some TTL is not seen lowered. */
  certain: z.boolean(),
  delegation: derivedSchema,
  /** Of resolvers that extend a delegation from the old servers' answers. */
  extended: derivedSchema,
  signedUntil: derivedSchema.nullable(),
  last: derivedSchema,
  switchSeen: z.boolean(),
  /** Record sets with a horizon of their own. */
  sets: z.number(),
});
export type TimesView = z.infer<typeof timesSchema>;

/** A leg without its rows: they are the ledger's. */
export const legSchema = z.object({
  id: z.string(),
  kind: z.enum(LEG_KINDS),
  /** The leg that is meant to follow, and whether one has begun; whether this one sets back what was changed. */
  next: z.object({ kind: z.enum(LEG_KINDS), newDnsHost: z.string().nullable(), newWebHost: z.string().nullable() }).nullable(),
  followed: z.boolean(),
  /** The zone goes into another account behind the same nameservers. */
  account: z.boolean(),
  isBack: z.boolean(),
  /** It is known where the domain, or its names, go. */
  chosen: z.boolean(),
  oldDnsHost: z.string().nullable(),
  oldWebHost: z.string().nullable(),
  newDnsHost: z.string().nullable(),
  newWebHost: z.string().nullable(),
  oldNameservers: z.array(z.string()),
  newNameservers: z.array(z.string()),
  steps: z.array(stepSchema),
  times: timesSchema.nullable(),
  gate: gateSchema,
  counts: z.object({ carry: z.number(), repoint: z.number(), drop: z.number(), new: z.number(), remarks: z.number(), stops: z.number() }),
  seen: z.object({ tl: seenBetween.nullable(), ts: instant.nullable(), t0: seenBetween.nullable(), te: seenBetween.nullable() }),
  plannedSwitch: instant.nullable(),
  /** When the TTLs are to go down, where that was agreed for a time. */
  lowerAt: instant.nullable(),
  /** The TTLs at the DNS host that answers now are typed by a person. */
  oldByHand: z.boolean(),
  lowerTo: z.number(),
  approved: z.boolean(),
  pushed: z.boolean(),
  /** What stands at the DNS host is typed by a person. */
  byHand: z.boolean(),
  /** The ways back, and how long each takes in seconds (null: no bound); none where there is nothing to set back. */
  back: z.array(z.object({ how: z.enum(BACK_WAYS), ruledOut: z.string().nullable(), takes: z.number().nullable(), gone: derivedSchema })),
  /** Who registered the domain, as the registry says; null where it was not asked yet, or does not say. */
  registrar: z.string().nullable(),
  /** What a registry tells of the registration was seen; else a person may say it. */
  registrationSeen: z.boolean(),
  givenRegistration: givenRegistrationSchema.nullable(),
  /** The registrar that somebody chose, by its id as a host. */
  registrarHost: z.string().nullable(),
  /** What the new hosts ask for; null where none does. */
  asked: z
    .object({
      /** Those that ask for something, and the web host, whose records they are. */
      hosts: z.array(z.string()),
      web: z.string().nullable(),
      needs: z.array(
        z.object({
          id: z.string(),
          owner: z.string(),
          type: z.string(),
          data: z.string().nullable(),
          state: z.enum(['planned', 'open', 'instead']),
          /** The host gives a value for this site. */
          given: z.boolean(),
          either: z.string(),
          needed: z.boolean(),
          early: z.boolean(),
          ends: z.enum(REQUIREMENT_ENDS),
        }),
      ),
      /** What is otherwise at the host by now than the move was planned with. */
      changes: z.array(z.string()),
    })
    .nullable(),
  /** Kinds of looks that can be asked for, and when each kind was made last. */
  looks: z.array(z.enum(LOOK_KINDS)),
  looked: z.partialRecord(z.enum(LOOK_KINDS), instant),
  ownTasks: z.array(ownTaskSchema.extend({ id: z.string() })),
  /** What is ticked on handover sheets, by everybody who has them open (`tickOf`). */
  ticks: z.array(z.string()),
  /** Names whose change in place no answer shows, since the same edge fronts them before and after. */
  unseen: z.array(z.string()),
  /** A survey was asked for and is not taken yet, beside the plan. */
  surveyAgain: z.boolean(),
  /** Steps for which something was sent to a server, whether or not it was seen to take effect. */
  sent: z.array(z.string()),
  survey: z.string().nullable(),
  /** The latest decision: what people said of the survey may be otherwise after another one. */
  said: z.number(),
  undoable: z.string().nullable(),
  redoable: z.string().nullable(),
});
export type LegView = z.infer<typeof legSchema>;

const checkedWebSchema = z.object({
  name: z.string(),
  addresses: z.array(z.string()),
  aliasTarget: z.string().optional(),
  issuers: z.array(z.string()).optional(),
  forcesHttps: z.boolean().optional(),
});
/** What the checks rest on beside the rows: what is being typed is checked by the same. */
const checkingSchema = z.object({
  oldWeb: z.array(checkedWebSchema),
  newWeb: checkedWebSchema.nullable(),
  fronted: z.array(rrsetSchema),
  outside: outsideSchema.nullable(),
  scope: scopeSchema,
  lacks: z.array(z.string()),
  most: z.number().nullable(),
  ttls: z.object({ ttls: z.array(z.number()).nullable(), leastTtl: z.number().optional() }).nullable(),
  redirects: z.array(z.object({ from: z.string(), to: z.string() })),
  faults: z.array(z.object({ pages: z.array(z.string()), text: z.string() })),
  sharedServers: z.array(z.string()),
  leaves: z.object({ name: z.string(), forwards: z.array(z.string()) }).nullable(),
  edge: z.object({ host: z.string(), fronting: z.array(z.tuple([z.string(), z.enum(FRONTING)])), how: z.enum(EDGES), standIn: z.string() }),
  apexAlias: z.object({ host: z.string(), takes: z.boolean(), known: z.boolean() }),
});

/** The rows of a leg. */
export const ledgerSchema = z.object({
  rulings: z.array(rulingSchema),
  remarks: z.array(remarkSchema),
  served: servedSchema.nullable(),
  /** What the panel of the DNS host was seen to show, as somebody pasted it; told on the first page. */
  shown: z.array(rrsetSchema).nullable(),
  /** What people say record sets are for; told on the first page. */
  purposes: z.array(z.object({ owner: z.string(), type: z.string(), purpose: z.enum(PURPOSES) })),
  /** Told on the first page. */
  checking: checkingSchema.nullable(),
  /** Rules that stand, each with the rows that came later and to which it is offered, as they would be; told on the first page. */
  rules: z.array(
    z.object({
      id: z.number(),
      words: z.string(),
      who: z.string().nullable(),
      rows: z.array(z.object({ id: z.string(), ruling: z.enum(RULINGS).nullable(), planned: rrsetSchema.nullable() })),
    }),
  ),
});
export type LedgerView = z.infer<typeof ledgerSchema>;

/** Servers whose last answers can be held against something, those of the old host first. */
export const answeringSchema = z.object({
  servers: z.array(z.object({ server: z.string(), address: z.string(), of: z.enum(['old', 'new']), at: instant, sets: z.number() })),
});
export type AnsweringView = z.infer<typeof answeringSchema>;
/** What one server answered last; a set without data was denied, and one that is not here was not asked for. */
export const answersSchema = z.object({ server: z.string(), address: z.string(), at: instant, sets: z.array(rrsetSchema) });
export type AnswersView = z.infer<typeof answersSchema>;

/** The horizons of the sets of a leg, the latest first; of many only the first of them. */
export const horizonsSchema = z.object({
  horizons: z.array(z.object({ owner: z.string(), type: z.string(), horizon: derivedSchema })),
  total: z.number(),
});
export type HorizonsView = z.infer<typeof horizonsSchema>;

export const ledgerQuerySchema = z.object({
  /** The id of the last row of the page before. */
  after: z.string().max(40).optional(),
  /** Rows before the first one of the page, for whoever does not know the id yet. */
  from: z.coerce.number().int().min(0).max(1_000_000).optional(),
  limit: z.coerce.number().int().min(1).max(MOST_ROWS).default(PAGE_ROWS),
});
export const ledgerPageSchema = ledgerSchema.extend({
  leg: z.string(),
  /** The id of the row before its first one; null where that is the ledger's first. */
  after: z.string().nullable(),
  /** Rows of the whole ledger. */
  total: z.number(),
  next: z.string().nullable(),
});
export type LedgerPage = z.infer<typeof ledgerPageSchema>;

/** `newDnsHost`: where the nameservers change; `newWebHost` null: the website stays. */
export const chooseHostsSchema = z.object({
  way: z.enum(WAYS).default('nameservers'),
  newDnsHost: z.string().nullable(),
  newWebHost: z.string().nullable(),
  /** Nothing of what was found is kept: the zone starts from what the web host needs. Null: what was found is kept. */
  fresh: z.object({ declineMail: z.boolean() }).nullable().default(null),
  /** What the new place gave; a host that is null is made of it where the way needs one. */
  given: allGivenSchema.nullable().default(null),
});
export type ChooseHosts = z.output<typeof chooseHostsSchema>;
export const editRulingSchema = z.object({
  ruling: z.enum(RULINGS),
  ttl: z.string().max(40).optional(),
  data: z.string().max(300_000).optional(),
  /** What was seen of the row (`rowSeen`): it is not ruled where somebody else has made it another one meanwhile. */
  seen: z.string().max(100).optional(),
});
export type EditRuling = z.infer<typeof editRulingSchema>;
/** The same for many rows at once, as one decision. */
export const editRulingsSchema = z.object({
  rows: z.array(z.string().max(40)).min(1).max(5000),
  ruling: z.enum(['carry', 'repoint', 'drop']),
  data: z.string().max(300_000).optional(),
  /** What was seen of each of the rows, in their order. */
  seen: z.array(z.string().max(100)).max(5000).optional(),
});
export type EditRulings = z.infer<typeof editRulingsSchema>;
const rowIds = z.array(z.string().max(40)).max(5000);
/** A rule, and the rows that its preview showed as otherwise afterwards: these are ruled, and those in `except` are not, though they are like it. */
export const makeRuleSchema = z.object({
  like: z.string().max(500),
  group: z.string().max(60).nullable(),
  ruling: z.enum(RULE_RULINGS),
  to: z.string().max(2000).default(''),
  rows: rowIds,
  except: rowIds.default([]),
  /** What was seen of each of the rows, in their order (`rowSeen`). */
  seen: z.array(z.string().max(100)).max(5000),
});
export type MakeRule = z.output<typeof makeRuleSchema>;
/** Rows to which a rule is offered, as they were seen. */
export const takeRuleSchema = makeRuleSchema.pick({ rows: true, seen: true });
export type TakeRule = z.output<typeof takeRuleSchema>;
export const newRulingSchema = z.object({ owner: z.string().max(1100), type: z.string().max(20), ttl: z.string().max(40), data: z.string().max(300_000) });
export const approveSchema = z.object({
  /** When the TTLs go down; null: at once. */
  lowerAt: instant.nullable(),
  plannedSwitch: instant.nullable(),
  /** Seconds to which the TTLs go down. */
  lowerTo: z.number().int().min(1, 'A TTL is lowered to 1 s at least.').max(86_400).default(300),
});
/** The value that the web host gave for this site. */
export const givenSchema = z.object({ requirement: z.string().max(2400), data: z.string().max(10_000) });
export type GivenInput = z.infer<typeof givenSchema>;
export const backSchema = z.object({ how: z.enum(BACK_WAYS) });
export type BackInput = z.infer<typeof backSchema>;
/** The nameservers that the new DNS host gave this domain. */
export const namedSchema = z.object({ names: z.array(hostName).max(13, 'A domain has thirteen nameservers at the most.') });
export type NamedInput = z.output<typeof namedSchema>;
/** At which spelling visitors are to end, and where the site stands beforehand; host names, null where it is not said. */
const siteName = z
  .string()
  .trim()
  .toLowerCase()
  .max(253)
  .regex(/^(?:[a-z0-9_](?:[a-z0-9-]*[a-z0-9])?\.)+[a-z][a-z0-9-]*[a-z0-9]\.?$/, 'A name such as choir.sites.host.example, without http:// and path.')
  .transform((name) => name.replace(/\.$/, ''));
export const siteSchema = z.object({ main: siteName.nullable(), provisional: siteName.nullable() });
export type SiteInput = z.output<typeof siteSchema>;
/** How a name is to be answered at a host that fronts names. */
export const frontingSchema = z.object({ owner: z.string().min(1).max(1100), state: z.enum(FRONTING) });
export type FrontingInput = z.infer<typeof frontingSchema>;
/** What the panel shows, as it was read from what was copied there; null: it is forgotten. */
export const panelShownSchema = z.object({ sets: givenSetsSchema.nullable() });
export type PanelShown = z.infer<typeof panelShownSchema>;
/** A plan that was edited elsewhere, as it was read. */
export const planReadSchema = z.object({ sets: givenSetsSchema });
export type PlanRead = z.infer<typeof planReadSchema>;
/** A way that a person takes, with a reason where one is asked for. */
export const takeWaySchema = z.object({
  step: z.string().max(2500),
  act: waySchema.shape.act,
  subject: z.string().max(2500),
  reason: z.string().max(2000).default(''),
});
export type TakeWay = z.input<typeof takeWaySchema>;
/** `facts`: of the line that the person saw; it is not let pass where something else is in its way by now. `reason` null: held up again. */
export const waiveSchema = z.object({
  line: z.string().max(60),
  facts: z.string().max(100),
  reason: z.string().trim().min(3, 'Say why, in a few words.').max(2000).nullable(),
});
export type WaiveInput = z.infer<typeof waiveSchema>;

const remarkOf = { owner: z.string().max(1100), type: z.string().max(20), code: z.string().max(60) };
/** `fact`: what the remark that the person saw rests on. `reason` null: no longer let be. */
export const letBeSchema = z.object({ ...remarkOf, fact: waiveSchema.shape.facts, reason: waiveSchema.shape.reason });
export type LetBeInput = z.infer<typeof letBeSchema>;
/** `fix`: the key of the fix that the person saw. */
export const mendSchema = z.object({ ...remarkOf, fix: z.string().max(100) });
export type MendInput = z.infer<typeof mendSchema>;
