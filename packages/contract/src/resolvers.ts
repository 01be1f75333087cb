import { isIpv4, isIpv6 } from '@wanderon/core';
import { z } from 'zod';

/** How a resolver that somebody adds is asked. */
export const RESOLVER_OVER = ['udp', 'tcp', 'tls', 'https'] as const;

/** A host name as certificates have it. */
const TLS_NAME = /^(?=.{1,253}$)[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)+$/i;

export const resolverInputSchema = z
  .object({
    name: z.string().trim().min(1, 'Type a name.').max(60),
    address: z
      .string()
      .trim()
      .refine((text) => isIpv4(text) || isIpv6(text), 'This is not an IPv4 or IPv6 address.'),
    over: z.enum(RESOLVER_OVER),
    /** Over TLS and HTTPS: the name that its certificate is for. */
    tlsName: z.string().trim().max(253).default(''),
    /** Over HTTPS: the path of its address (RFC 8484 §4.1.1); empty: /dns-query. */
    path: z
      .string()
      .trim()
      .max(200)
      .regex(/^$|^\/[!-~]*$/, 'A path such as /dns-query.')
      .default(''),
    /** Where it stands, or whose visitors ask it. */
    stands: z.string().trim().max(100).default(''),
    note: z.string().trim().max(300).default(''),
    /** It is added although it does not answer. */
    anyway: z.boolean().default(false),
  })
  .superRefine(({ over, tlsName }, context) => {
    if ((over === 'tls' || over === 'https') && !TLS_NAME.test(tlsName))
      context.addIssue({ code: 'custom', path: ['tlsName'], message: 'Type the name that its certificate is for, such as dns.resolver.example.' });
  });
export type ResolverInput = z.input<typeof resolverInputSchema>;
export type NewResolver = z.output<typeof resolverInputSchema>;

/** What came of asking a resolver for the root's nameservers. */
export const resolverTrialSchema = z.object({ milliseconds: z.number().nullable(), problem: z.string().nullable() });
export type ResolverTrial = z.infer<typeof resolverTrialSchema>;

export const resolverSchema = z.object({
  /** Null: it is always there, or of the configuration, and cannot be taken out here. */
  id: z.string().nullable(),
  name: z.string(),
  address: z.string(),
  /** `afresh`: no resolver, but our own way from the root servers down, which nothing remembers. */
  over: z.enum([...RESOLVER_OVER, 'afresh']),
  stands: z.string(),
  note: z.string(),
});
export type ResolverView = z.infer<typeof resolverSchema>;
export const resolverListSchema = z.object({ resolvers: z.array(resolverSchema) });

/** Added resolvers in the order in which they are to stand. */
export const resolverOrderSchema = z.object({ ids: z.array(z.uuid()).max(200) });
export const tryResolverSchema = z.object({ name: z.string().max(60) });
