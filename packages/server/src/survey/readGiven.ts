import { InHandInput } from '@wanderon/contract';
import { Name, NameError, TextError, rrsetFromText, rrsetToText } from '@wanderon/core';
import { InvalidInput } from '../refusals';
import { InHandGiven } from './inHand.store';

/** Names and record sets that a person gives, checked and in one spelling. Throws an InvalidInput that names the field. */
export function readGiven(input: InHandInput, zone: Name): InHandGiven {
  return {
    ...(typeof input.serial === 'number' ? { serial: input.serial } : {}),
    names: input.names.map((text) => checked('names', text, () => inZone(Name.parse(text), zone))),
    sets: input.sets.map((set) =>
      checked('sets', `${set.owner} ${set.type}`, () => {
        const read = rrsetFromText(set);
        inZone(read.owner, zone);
        return rrsetToText(read);
      }),
    ),
  };
}

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

function inZone(name: Name, zone: Name): string {
  if (!name.isAtOrBelow(zone)) throw new RangeError('it is outside the zone');
  return name.toString();
}

function checked<T>(field: string, what: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof NameError || error instanceof TextError || error instanceof RangeError)
      throw new InvalidInput(`${what} cannot be taken: ${error.message}.`, { field, kept: 'Nothing was changed.' });
    throw error;
  }
}
