import { KnownPlaces, fittingWays } from './fittingWays';

const NONE: KnownPlaces = { hasDns: false, isSameDns: false, hasWeb: false, isFirstUse: false, isNames: false };

it.each<[string, Partial<KnownPlaces>, string]>([
  ['nothing', {}, 'nameservers, repoint'],
  ['new nameservers', { hasDns: true }, 'nameservers'],
  ['new nameservers and an address', { hasDns: true, hasWeb: true }, 'nameservers, website first'],
  ['an address', { hasWeb: true }, 'repoint'],
  ['the nameservers that there are', { hasDns: true, isSameDns: true }, 'another account'],
  ['those and an address', { hasDns: true, isSameDns: true, hasWeb: true }, 'repoint, another account'],
  ['nothing for a single name', { isNames: true }, 'repoint'],
  ['nothing for a domain that was never used', { isFirstUse: true }, 'nameservers'],
])('%s given: the ways that fit, and nothing missing for the first of them once enough is known', (_what, known, fit) => {
  const all = { ...NONE, ...known };
  const fitting = fittingWays(all);
  expect(fitting.fit.join(', ')).toBe(fit);
  const needsServers = fitting.fit[0] === 'nameservers' && !all.hasDns;
  const needsWeb = fitting.fit[0] === 'repoint' && !all.hasWeb;
  expect(fitting.missing[fitting.fit[0]!] !== undefined).toBe(needsServers || needsWeb);
});

it('says of a way in two stages everything that it lacks', () => {
  expect(fittingWays(NONE).missing['website first']).toBe('the nameservers of the new DNS host, and an address or an alias of the new web host');
  expect(fittingWays({ ...NONE, hasWeb: true }).missing['nameservers first']).toBe('the nameservers of the new DNS host');
});
