import { Name } from '../dns/name';
import { PageLook } from '../survey/website';
import { parkedPage } from './parkedPage';

const ZONE = Name.parse('choir.example.');
const look = (start: string, title: string | null | undefined): PageLook => ({
  ...{ start, hops: [], problem: title === undefined ? 'no answer' : null, keepsPath: null },
  page: title === undefined ? null : { title, fingerprint: 'f', octets: 9, cut: false, headers: {} },
});
const seen = (...titles: (string | null | undefined)[]): string | undefined =>
  parkedPage(
    ZONE,
    titles.map((title, index) => look(['http://choir.example/', 'https://www.choir.example/', 'http://shop.choir.example/'][index]!, title)),
  );

describe('a page for unused domains', () => {
  it.each([
    'choir.example is parked',
    'This domain is for sale',
    'Coming soon',
    'Diese Domain ist geparkt',
    'Hier entsteht eine neue Internetpräsenz',
    'Website in aanbouw',
    'Deze domeinnaam is gereserveerd',
    'Ce nom de domaine est à vendre',
    'Site en construction',
    'Página en construcción',
    'Sito in costruzione',
    'Default web page',
  ])('is told by its title: %s', (title) => {
    expect(seen(title)).toBe(title);
  });

  it.each([
    'The choir of the harbour',
    'Parks and gardens',
    'Sparking joy',
    'Bibliothèque en ligne',
    'A construction company',
    'Parking at the harbour',
    'Espace réservé aux membres',
    'Boats for sale',
    'Casa in vendita',
    null,
  ])('is no page with another title: %s', (title) => {
    expect(seen(title)).toBeUndefined();
  });

  it('is one only where neither spelling shows a website, and other names do not count', () => {
    expect(seen('Parked domain', 'The choir')).toBeUndefined();
    expect(seen('Parked domain', undefined)).toBe('Parked domain');
    expect(seen(undefined, undefined)).toBeUndefined();
    expect(seen('The choir', 'The choir', 'Parked domain')).toBeUndefined();
  });
});
