import { createHash } from 'node:crypto';
import { PageHop, PageLook, readPage } from '@wanderon/core';
import { HttpAnswer, HttpWorld, fetchOnce } from './http';
import { limited } from './limited';
import { NetError } from './netError';

const HOPS = 8;
/** A path that no site has: shows whether a redirect takes the path along. */
const ELSEWHERE = '/wanderon-asks/whether-paths-are-kept';
/** Headers that change what visitors get after a move, in small letters. */
const KEPT_HEADERS = [
  'strict-transport-security',
  'content-security-policy',
  'x-robots-tag',
  'server',
  'content-type',
  'alt-svc',
  'access-control-allow-origin',
];

/**
 * How pages answer today, over HTTP and HTTPS, so that it can be held against later: each redirect, certificate, header
 * that matters, and a fingerprint. `pages`: host names with a path. Throws a NetError only where cancelled.
 */
export async function lookAtPages(world: HttpWorld, pages: readonly string[], signal?: AbortSignal): Promise<PageLook[]> {
  const addresses = pages.flatMap((page) => [`http://${page}`, `https://${page}`]);
  return limited(addresses, 4, (address) => lookAt(world, address, signal));
}

async function lookAt(world: HttpWorld, start: string, signal: AbortSignal | undefined): Promise<PageLook> {
  const hops: PageHop[] = [];
  let url = new URL(start);
  try {
    for (;;) {
      const answer = await fetchOnce(world, url, { signal });
      const location = redirectOf(answer, url);
      hops.push({
        url: url.href,
        address: answer.address,
        status: answer.status,
        certificate: answer.certificate ? { ...answer.certificate, problem: answer.certificate.problem ?? null } : null,
      });
      if (!location) return { start, hops, problem: null, keepsPath: hops.length > 1 ? await keepsPath(world, start, signal) : null, page: pageOf(answer) };
      if (hops.length >= HOPS || hops.some((hop) => hop.url === location.href))
        return { start, hops, problem: 'the redirects have no end', keepsPath: null, page: null };
      url = location;
    }
  } catch (error) {
    if (error instanceof NetError && error.kind !== 'cancelled') return { start, hops, problem: error.message, keepsPath: null, page: null };
    throw error;
  }
}

function redirectOf(answer: HttpAnswer, from: URL): URL | undefined {
  const location = answer.headers['location'];
  if (answer.status < 300 || answer.status >= 400 || answer.status === 304 || location === undefined) return undefined;
  return URL.canParse(location, from.href) ? new URL(location, from) : undefined;
}

/** Whether the first redirect of a site leads to the same path elsewhere. */
async function keepsPath(world: HttpWorld, start: string, signal: AbortSignal | undefined): Promise<boolean | null> {
  try {
    const url = new URL(ELSEWHERE, start);
    const location = redirectOf(await fetchOnce(world, url, { signal, limit: 1024 }), url);
    return location ? location.pathname === ELSEWHERE : null;
  } catch (error) {
    if (error instanceof NetError && error.kind !== 'cancelled') return null;
    throw error;
  }
}

function pageOf({ headers, body, cut }: HttpAnswer): PageLook['page'] {
  const { title, text } = readPage(new TextDecoder('utf-8').decode(body));
  // Digits differ from one visit to the next: times, counters.
  const steady = text.replace(/\d+/g, '0');
  return {
    title: title ?? null,
    fingerprint: createHash('sha256').update(steady).digest('hex'),
    octets: body.length,
    cut,
    headers: Object.fromEntries(KEPT_HEADERS.flatMap((name) => (headers[name] === undefined ? [] : [[name, headers[name]!]]))),
  };
}
