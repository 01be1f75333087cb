import { Name } from '@wanderon/core';
import { checked, inZone } from '../reading/readGiven';
import { InvalidInput } from '../refusals';

/** A name as typed: below the zone, or whole. Throws an InvalidInput. */
export function readNameBelow(text: string, zone: Name): string {
  const whole = zone.toString().replace(/\.$/, '');
  const absolute = text.endsWith('.')
    ? text
    : text === '@' || text === whole || text.endsWith(`.${whole}`)
      ? `${text === '@' ? whole : text}.`
      : `${text}.${whole}.`;
  return checked('name', text, () => inZone(Name.parse(absolute), zone));
}

/** Pages of a domain, as host name and path. Throws an InvalidInput that names the one that is none. */
export function readPages(pages: readonly string[], domain: string): string[] {
  return [
    ...new Set(
      pages
        .filter((page) => page.trim() !== '')
        .map((page) => {
          const address = `https://${page.trim().replace(/^https?:\/\//i, '')}`;
          const url = URL.canParse(address) ? new URL(address) : undefined;
          if (!url || url.port !== '' || url.username !== '' || !(url.hostname === domain || url.hostname.endsWith(`.${domain}`)))
            throw new InvalidInput(`${page} is not a page of ${domain}.`, {
              field: 'pages',
              detail: `Type it like www.${domain}/contact.`,
              kept: 'Nothing was changed.',
            });
          return `${url.hostname}${url.pathname}${url.search}`;
        }),
    ),
  ];
}
