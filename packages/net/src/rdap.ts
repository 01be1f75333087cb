import { RegistrationLook, storable } from '@wanderon/core';
import { z } from 'zod';
import { HttpWorld, fetchOnce } from './http';
import { NetError } from './netError';

/** Which service answers for which top-level domains (RFC 9224 §3): pairs of suffixes and base addresses. */
const bootstrapSchema = z.object({ services: z.array(z.tuple([z.array(z.string().max(255)), z.array(z.string().max(500))])).max(5000) });
export type RdapBootstrap = z.infer<typeof bootstrapSchema>;

export function readBootstrap(json: unknown): RdapBootstrap {
  return bootstrapSchema.parse(json);
}

/** Octets of the list: the whole of it is a tenth of that. */
const LIST_LIMIT = 4 * 1024 * 1024;

/** The list of services as the bootstrap registry has it (RFC 9224 §3). Throws a NetError where it does not come, or cannot be read. */
export async function fetchBootstrap(world: HttpWorld, url: URL, signal?: AbortSignal): Promise<RdapBootstrap> {
  const answer = await fetchOnce(world, url, { accept: 'application/json', limit: LIST_LIMIT, signal });
  if (answer.certificate?.problem !== undefined)
    throw new NetError('refused', `the certificate of ${url.hostname} is not trusted: ${answer.certificate.problem}`);
  if (answer.status !== 200) throw new NetError('refused', `${url.hostname} answered with status ${answer.status}`);
  if (answer.cut) throw new NetError('malformed', `the list of ${url.hostname} is too long`);
  try {
    return readBootstrap(JSON.parse(new TextDecoder().decode(answer.body)));
  } catch (error) {
    if (error instanceof SyntaxError || error instanceof z.ZodError) throw new NetError('malformed', `the list of ${url.hostname} cannot be read`);
    throw error;
  }
}

const text = z.string().max(2000).transform(storable);
/** Of RFC 9083 §5.3 what is looked at; a registry's other members and wrong ones in lists are passed over. */
const domainSchema = z.object({
  ldhName: text.optional(),
  status: lenient(text),
  events: lenient(z.object({ eventAction: text, eventDate: text })),
  nameservers: lenient(z.object({ ldhName: text })),
  entities: lenient(z.object({ roles: z.array(text), vcardArray: z.unknown(), handle: text.optional() })),
  secureDNS: z
    .object({ delegationSigned: z.boolean().optional().catch(undefined), dsData: lenient(z.object({ keyTag: z.number() })) })
    .optional()
    .catch(undefined),
});

/** A list of which the members that fit are kept; at most 200 are looked at. */
function lenient<T>(member: z.ZodType<T>) {
  return z
    .array(z.unknown())
    .optional()
    .catch(undefined)
    .transform((list) =>
      (list ?? []).slice(0, 200).flatMap((one): T[] => {
        const read = member.safeParse(one);
        return read.success ? [read.data] : [];
      }),
    );
}

/** The base address for a domain (RFC 9224 §4): of the longest suffix that is listed; HTTPS where there is a choice. */
export function rdapServiceFor(bootstrap: RdapBootstrap, domain: string): string | undefined {
  const labels = domain.toLowerCase().split('.');
  for (let from = 1; from < labels.length; from++) {
    const suffix = labels.slice(from).join('.');
    const found = bootstrap.services.find(([suffixes]) => suffixes.some((one) => one.toLowerCase() === suffix));
    if (found) return found[1].find((base) => base.startsWith('https:')) ?? found[1][0];
  }
  return undefined;
}

const REDIRECTS = 3;
const LIMIT = 1024 * 1024;

/** What the registry says of a domain, without final dot (RFC 9082 §3.1.3). Whatever goes wrong is told as unknown, but for cancelling. */
export async function lookUpRegistration(world: HttpWorld, bootstrap: RdapBootstrap, domain: string, signal?: AbortSignal): Promise<RegistrationLook> {
  const base = rdapServiceFor(bootstrap, domain);
  const suffix = domain.slice(domain.indexOf('.') + 1);
  if (base === undefined) return { kind: 'unknown', problem: `no registration data service is listed for .${suffix}` };
  try {
    let url = new URL(`domain/${domain}`, base.endsWith('/') ? base : `${base}/`);
    for (let hop = 0; hop <= REDIRECTS; hop++) {
      const answer = await fetchOnce(world, url, { accept: 'application/rdap+json', limit: LIMIT, signal });
      if (answer.certificate?.problem !== undefined) return unknown(`the certificate of ${url.hostname} is not trusted: ${answer.certificate.problem}`);
      if (answer.status === 404) return { kind: 'absent', service: url.hostname };
      const location = answer.headers['location'];
      if (answer.status >= 300 && answer.status < 400 && location !== undefined) {
        if (!URL.canParse(location, url.href)) return unknown(`${url.hostname} leads to an address that is none`);
        url = new URL(location, url);
        continue;
      }
      if (answer.status === 429) return unknown(`${url.hostname} asks us to come back later`);
      if (answer.status !== 200) return unknown(`${url.hostname} answered with status ${answer.status}`);
      if (answer.cut) return unknown(`the answer of ${url.hostname} is too long`);
      return readRegistration(answer.body, url.hostname);
    }
    return unknown(`${url.hostname} sends us from one place to the next`);
  } catch (error) {
    if (error instanceof NetError && error.kind !== 'cancelled') return unknown(error.message);
    throw error;
  }
}

/** An answer as it came, in JSON. */
export function readRegistration(body: Uint8Array, service: string): RegistrationLook {
  let json: unknown;
  try {
    // Cleaned where it is taken out: whatever goes through all of it goes as deep as a registry cares to nest.
    json = JSON.parse(new TextDecoder().decode(body));
  } catch (error) {
    if (error instanceof SyntaxError) return unknown(`the answer of ${service} is not JSON`);
    throw error;
  }
  const read = domainSchema.safeParse(json);
  if (!read.success) return unknown(`the answer of ${service} cannot be read`);
  const { status, events, nameservers, entities, secureDNS } = read.data;
  const registrar = entities.find((entity) => entity.roles.includes('registrar'));
  const at = (action: string): number | undefined => {
    const moment = Date.parse(events.find((event) => event.eventAction === action)?.eventDate ?? '');
    return Number.isNaN(moment) ? undefined : moment / 1000;
  };
  return {
    kind: 'found',
    registration: {
      service,
      registrar: registrar && (nameInCard(registrar.vcardArray) ?? registrar.handle),
      registered: at('registration'),
      expires: at('expiration'),
      statuses: [...new Set(status.map((one) => one.toLowerCase()))],
      nameservers: nameservers.map((server) => server.ldhName.toLowerCase().replace(/\.$/, '')),
      delegationSigned: secureDNS?.delegationSigned,
      dsKeyTags: (secureDNS?.dsData ?? []).map((ds) => ds.keyTag),
    },
  };
}

/** The `fn` of a jCard (RFC 7095 §3.3). */
function nameInCard(card: unknown): string | undefined {
  const properties = z.tuple([z.literal('vcard'), z.array(z.array(z.unknown()))]).safeParse(card);
  const named = properties.success ? properties.data[1].find((property) => property[0] === 'fn')?.[3] : undefined;
  return typeof named === 'string' && named.trim() !== '' ? storable(named).trim().slice(0, 200) : undefined;
}

function unknown(problem: string): RegistrationLook {
  return { kind: 'unknown', problem };
}
