import {
  Name,
  NameError,
  STYLE_APEX,
  STYLE_DOT,
  STYLE_LONG,
  STYLE_NAMES,
  STYLE_PRIORITY,
  STYLE_TEXT,
  TSIG_ALGORITHMS,
  isIpv4,
  isIpv6,
  parsePrefix,
  rrsetFromText,
} from '@wanderon/core';
import { z } from 'zod';

const hostName = z
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
  .object({ owner: z.string().trim().min(1).max(255), type: z.string().trim().min(1).max(20), data: z.string().trim().min(1).max(2000) })
  .superRefine((need, context) => {
    try {
      rrsetFromText({ owner: 'x.', type: need.type, ttl: 0, data: [need.data.replaceAll('{zone}', 'zone.example')] });
    } catch (error) {
      context.addIssue({ code: 'custom', path: ['data'], message: `This is no ${need.type} record: ${(error as Error).message}.` });
    }
  });

export const hostKeySchema = z.object({
  name: hostName,
  algorithm: z.enum(TSIG_ALGORITHMS),
  /** Base64; taken in and never given out. */
  secret: z
    .string()
    .trim()
    .regex(/^[A-Za-z0-9+/]+={0,2}$/, 'The secret is base64.'),
});

/** How one host's panel wants names and values typed. */
export const entryStyleSchema = z.object({
  names: z.enum(STYLE_NAMES),
  apex: z.enum(STYLE_APEX),
  targetDot: z.enum(STYLE_DOT),
  text: z.enum(STYLE_TEXT),
  longText: z.enum(STYLE_LONG),
  priority: z.enum(STYLE_PRIORITY),
  ttls: z.array(z.number().int('A TTL is a whole number of seconds.').min(0).max(2_147_483_647)).max(40).nullable(),
});

export const hostInputSchema = z.object({
  name: z.string().trim().min(1, 'Type a name.').max(100),
  role: z.enum(HOST_ROLES),
  nameservers: z.array(hostName).max(13),
  addresses: z.array(address).max(50),
  /** Of a DNS host: addresses with which it answers for names that it fronts. */
  fronts: z.array(prefix).max(200).default([]),
  /** Null: nothing is known of its panel, and what most want is taken. */
  entry: entryStyleSchema.nullable().default(null),
  aliasTarget: hostName.nullable(),
  requires: z.array(requirementSchema).max(20),
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
  entry: entryStyleSchema.nullable(),
  aliasTarget: z.string().nullable(),
  requires: z.array(z.object({ owner: z.string(), type: z.string(), data: z.string() })),
  updateAddress: z.string().nullable(),
  note: z.string(),
  keyName: z.string().nullable(),
});
export type Host = z.infer<typeof hostSchema>;

export const hostListSchema = z.object({ hosts: z.array(hostSchema) });
