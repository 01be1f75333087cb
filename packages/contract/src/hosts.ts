import {
  ACCOUNTS,
  AFTER_LEAVING,
  APEX_ALIAS,
  EDGES,
  FORM_CONFIRM,
  FORM_DOT,
  FORM_ENTRY,
  FRONTING_WISHES,
  NAMESERVER_SETS,
  PLACE_ACTS,
  Name,
  NameError,
  REQUIREMENT_ENDS,
  SIGNS,
  STYLE_APEX,
  STYLE_DOT,
  STYLE_LONG,
  STYLE_NAMES,
  STYLE_PRIORITY,
  STYLE_TEXT,
  TASK_BY,
  TASK_WHEN,
  TSIG_ALGORITHMS,
  USUAL_HABITS,
  beginsWith,
  forwardsTo,
  isIpv4,
  isIpv6,
  linkProblem,
  lockedSet,
  parsePrefix,
  rrsetFromText,
  typeCode,
} from '@wanderon/core';
import { z } from 'zod';
import { hostName, instant } from './common';

const address = z
  .string()
  .trim()
  .refine((text) => isIpv4(text) || isIpv6(text), 'This is not an IPv4 or IPv6 address.');

const prefix = z
  .string()
  .trim()
  .refine((text) => parsePrefix(text) !== undefined, 'This is not a range of addresses, such as 192.0.2.0/24.');

export const HOST_ROLES = ['dns', 'web', 'registrar'] as const;

export const requirementSchema = z
  .object({
    /** Empty: it is a new one. */
    id: z.string().max(2400).default(''),
    owner: z.string().trim().min(1, 'Type a name, or @ for the domain itself.').max(255),
    type: z.string().trim().toUpperCase().min(1).max(20),
    /** Empty: the host gives a value for each site. */
    data: z.string().trim().max(2000),
    either: z.string().trim().max(60).default(''),
    needed: z.boolean().default(true),
    early: z.boolean().default(false),
    ends: z.enum(REQUIREMENT_ENDS).default('kept'),
    fronting: z.enum(FRONTING_WISHES).default('either'),
  })
  .superRefine((need, context) => {
    const shown = (code: string, path: string): void => context.addIssue({ code: 'custom', path: [path], message: code });
    if (typeCode(need.type) === undefined) return shown(`${need.type} is not a record type.`, 'type');
    try {
      Name.parse(need.owner, Name.parse('zone.example.'));
    } catch (error) {
      if (!(error instanceof NameError)) throw error;
      return shown(`The name cannot be read: ${error.message}.`, 'owner');
    }
    if (need.data === '') return;
    try {
      rrsetFromText({ owner: 'x.', type: need.type, ttl: 0, data: [need.data.replaceAll('{zone}', 'zone.example')] });
    } catch (error) {
      context.addIssue({ code: 'custom', path: ['data'], message: `This is no ${need.type} record: ${(error as Error).message}.` });
    }
  });

/** Something that has to be done at a web host, besides records. */
export const taskSchema = z.object({
  /** Empty: it is a new one. */
  id: z.string().max(60).default(''),
  title: z.string().trim().min(1, 'Say what is to be done.').max(120),
  by: z.enum(TASK_BY),
  when: z.enum(TASK_WHEN),
  waits: z.boolean().default(false),
  redirects: z.boolean().default(false),
  note: z.string().trim().max(600).default(''),
});

/** How a registrar's page wants a nameserver set. */
export const registrarFormSchema = z
  .object({
    entry: z.enum(FORM_ENTRY),
    shown: z.number().int().min(1).max(26),
    least: z.number().int().min(1).max(13),
    most: z.number().int().min(1).max(26),
    dot: z.enum(FORM_DOT),
    emptyFirst: z.boolean(),
    apart: z.boolean(),
    consent: z.boolean(),
    confirm: z.enum(FORM_CONFIRM),
    warnings: z.array(z.string().trim().min(1).max(200)).max(10),
  })
  .refine((form) => form.least <= form.most, { path: ['most'], message: 'At the most is less than at the least.' });

export const hostKeySchema = z.object({
  name: hostName,
  algorithm: z.enum(TSIG_ALGORITHMS),
  /** Base64; taken in and never given out. */
  secret: z
    .string()
    .trim()
    .regex(/^[A-Za-z0-9+/]+={0,2}$/, 'The secret is base64.'),
});

/** Any zone: what stands in a line is tried with it. */
const SOME_ZONE = 'zone.example.';

/** Lines of which each one is read by itself; what it throws is what is wrong with it. */
const readLines = (most: number, read: (line: string) => unknown) =>
  z
    .array(
      z
        .string()
        .trim()
        .min(1)
        .max(4000)
        .superRefine((line, context) => {
          try {
            read(line);
          } catch (error) {
            context.addIssue({ code: 'custom', message: (error as Error).message });
          }
        }),
    )
    .max(most, `There can be ${most} lines.`);

/** How a DNS host goes about its zones. */
export const dnsHabitsSchema = z.object({
  company: z.string().trim().max(100),
  begins: readLines(60, (line) => beginsWith([line], SOME_ZONE)),
  locks: readLines(30, (line) => lockedSet(line, SOME_ZONE)),
  forwards: readLines(40, (line) => forwardsTo([line])),
  afterLeaving: z.enum(AFTER_LEAVING),
  edge: z.enum(EDGES),
  standIn: z.union([z.literal(''), address]).default(''),
  accounts: z.enum(ACCOUNTS).default('unknown'),
  signs: z.enum(SIGNS).default('unknown'),
  apexAlias: z.enum(APEX_ALIAS).default('unknown'),
  nameservers: z.enum(NAMESERVER_SETS).default('fixed'),
  most: z.number().int('A whole number.').min(1, 'One at the least.').max(1_000_000).nullable().default(null),
  warnings: z.array(z.string().trim().min(1).max(200)).max(10, 'There can be 10 lines.').default([]),
});

/** What is known of how one host's panel wants names and values typed; what is left out, nobody has said or seen yet. */
export const knownStyleSchema = z.object({
  names: z.enum(STYLE_NAMES).optional(),
  apex: z.enum(STYLE_APEX).optional(),
  targetDot: z.enum(STYLE_DOT).optional(),
  text: z.enum(STYLE_TEXT).optional(),
  longText: z.enum(STYLE_LONG).optional(),
  priority: z.enum(STYLE_PRIORITY).optional(),
  ttls: z.array(z.number().int('A TTL is a whole number of seconds.').min(0).max(2_147_483_647)).max(40).nullable().optional(),
  leastTtl: z.number('Whole seconds.').int('A TTL is a whole number of seconds.').min(0).max(604_800, 'A week at the most.').optional(),
  lacks: z
    .array(
      z
        .string()
        .trim()
        .toUpperCase()
        .refine((type) => typeCode(type) !== undefined, 'This is not a record type.'),
    )
    .max(60)
    .optional(),
});

/** A page that is opened in a browser; `{zone}` stands for the domain. Empty: none is known. */
const link = z
  .string()
  .trim()
  .max(500)
  .superRefine((text, context) => {
    const problem = linkProblem(text);
    if (problem !== undefined) context.addIssue({ code: 'custom', message: problem });
  });

/** Where in the panel of a place something is done; all of it empty: nobody wants to note it. */
export const whereSchema = z.object({
  link: link.default(''),
  path: z.string().trim().max(300).default(''),
  first: z.string().trim().max(300).default(''),
});
export type WhereInput = z.output<typeof whereSchema>;
export const placeActSchema = z.enum(PLACE_ACTS);

/** A domain in ASCII, as CAA records name an issuer. */
const ISSUER = /^[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)+$/;

/** A host name in which the domain or its first label stands; empty: each site is given its own, or none. */
const PROVISIONAL = /^$|^(?:[a-z0-9-]|\{zone\}|\{label\})+(?:\.(?:[a-z0-9-]|\{zone\}|\{label\})+)+$/;

export const hostInputSchema = z.object({
  name: z.string().trim().min(1, 'Type a name.').max(100),
  role: z.enum(HOST_ROLES),
  nameservers: z.array(hostName).max(13),
  addresses: z.array(address).max(50),
  /** Of a DNS host: addresses with which it answers for names that it fronts. */
  fronts: z.array(prefix).max(200).default([]),
  /** Null: nothing is known of its panel, and what most want is taken. */
  entry: knownStyleSchema.nullable().default(null),
  /** Where one logs in to its panel, and where things are done there; left out: it stays as it is. */
  login: link.optional(),
  where: z
    .array(whereSchema.extend({ act: placeActSchema }))
    .max(PLACE_ACTS.length)
    .optional(),
  aliasTarget: hostName.nullable(),
  requires: z.array(requirementSchema).max(40),
  tasks: z.array(taskSchema).max(40).default([]),
  /** Of a web host: what it wants of a DNS host that fronts names, and whether it sends everybody to HTTPS. */
  fronting: z.enum(FRONTING_WISHES).default('either'),
  forcesHttps: z.boolean().default(false),
  /** Of a web host: titles of its pages for domains that it does not know. */
  holding: z.array(z.string().trim().min(1).max(200)).max(10, 'There can be 10 lines.').default([]),
  /** Of a web host: where sites stand before their domain leads there; `{zone}` and `{label}` stand for the domain and its first label. */
  provisional: z.string().trim().toLowerCase().regex(PROVISIONAL, 'A name such as {label}.sites.host.example.').max(250).default(''),
  issuers: z.array(z.string().trim().toLowerCase().regex(ISSUER, 'A name such as certs.example.')).max(20).default([]),
  /** Of a DNS host; false: it takes a zone only once the domain is delegated to it. */
  holdsEarly: z.boolean().default(true),
  /** Of a DNS host. */
  habits: dnsHabitsSchema.default(() => ({ ...USUAL_HABITS, begins: [], locks: [], forwards: [], warnings: [] })),
  /** Of a registrar; null: nothing is known of its page. */
  form: registrarFormSchema.nullable().default(null),
  /** Where updates are sent; the first nameserver where absent. */
  updateAddress: address.nullable(),
  note: z.string().trim().max(2000),
  /** Left out: the key stays as it is. Null: it is forgotten. */
  key: hostKeySchema.nullable().optional(),
});
export type HostInput = z.input<typeof hostInputSchema>;

export const hostSchema = z.object({
  id: z.string(),
  name: z.string(),
  role: z.enum(HOST_ROLES),
  nameservers: z.array(z.string()),
  addresses: z.array(z.string()),
  fronts: z.array(z.string()),
  entry: knownStyleSchema.nullable(),
  login: z.string(),
  where: z.array(whereSchema.extend({ act: placeActSchema })),
  aliasTarget: z.string().nullable(),
  requires: z.array(requirementSchema),
  tasks: z.array(taskSchema),
  fronting: z.enum(FRONTING_WISHES),
  forcesHttps: z.boolean(),
  issuers: z.array(z.string()),
  holding: z.array(z.string()),
  provisional: z.string(),
  holdsEarly: z.boolean(),
  habits: dnsHabitsSchema,
  form: registrarFormSchema.nullable(),
  updateAddress: z.string().nullable(),
  note: z.string(),
  keyName: z.string().nullable(),
  /** It is a place of this move alone, made of what was given for it; null: a host of the agency. */
  ofMove: z.string().nullable(),
});
export type Host = z.infer<typeof hostSchema>;

/** `move`: the places that only this move knows are listed as well. */
export const hostQuerySchema = z.object({ move: z.uuid().optional() });
export const hostListSchema = z.object({ hosts: z.array(hostSchema) });

/** A host with what it is used for, and what became of it. */
export const hostPageSchema = z.object({
  host: hostSchema,
  /** Open moves first. */
  uses: z.array(z.object({ id: z.string(), domain: z.string(), state: z.string(), as: z.string() })),
  history: z.array(z.object({ at: instant, person: z.string().nullable(), text: z.string() })),
});
export type HostPageView = z.infer<typeof hostPageSchema>;
