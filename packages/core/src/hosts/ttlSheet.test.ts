import { Ruling } from '../rebuild/ruling';
import { ruling } from '../testing/moving';
import { KnownStyle } from './entryStyle';
import { USUAL_HABITS } from './dnsHabits';
import { SheetRow } from './sheet';
import { lowerSheet, raiseSheet } from './ttlSheet';

const ZONE = 'zone.test.';
const RULINGS: readonly Ruling[] = [
  ruling('zone.test.', 'A', 'repoint', 3600, ['192.0.2.1', '192.0.2.3'], ['192.0.2.2']),
  ruling('www.zone.test.', 'CNAME', 'carry', 86_400, ['zone.test.'], ['zone.test.']),
  ruling('old.zone.test.', 'A', 'drop', 120, ['192.0.2.9'], undefined),
  ruling('zone.test.', 'MX', 'carry', 3600, ['10 mx.post.test.'], ['10 mx.post.test.']),
  { ...ruling('zone.test.', 'NS', 'drop', 7200, ['ns1.old.test.'], undefined), reason: "the DNS host's own" },
];
const words = (rows: readonly SheetRow[]): string[] =>
  rows.map(({ act, before, entry }) => `${act} ${entry!.name} ${entry!.type} ${entry!.value}: ${before!.ttl} > ${entry!.ttl}`);
const lower = (kind: 'delegation' | 'repoint', entry: KnownStyle | null = null, locks: readonly string[] = []): string[] =>
  words(lowerSheet({ kind, account: false, rulings: RULINGS }, ZONE, { entry, habits: { ...USUAL_HABITS, locks } }, 300));
const raise = (kind: 'delegation' | 'repoint', entry: KnownStyle | null = null): string[] =>
  words(raiseSheet({ kind, account: false, rulings: RULINGS }, ZONE, { entry }));

describe('what is lowered by hand', () => {
  it('is what changes, a line a record, and the zone’s own NS set where nameservers change', () => {
    const addresses = ['edit @ A 192.0.2.1: 3600 > 300', 'edit @ A 192.0.2.3: 3600 > 300'];
    expect(lower('repoint')).toEqual(addresses);
    expect(lower('delegation')).toEqual([...addresses, 'edit @ NS ns1.old.test: 7200 > 300']);
  });

  it('leaves out what the panel locks, goes to what it has, and is nothing where it sets no TTL', () => {
    expect(lower('delegation', null, ['@ NS'])).toHaveLength(2);
    expect(lower('repoint', { ttls: [120, 1800] })).toEqual(['edit @ A 192.0.2.1: 3600 > 120', 'edit @ A 192.0.2.3: 3600 > 120']);
    expect(lower('repoint', { ttls: [], leastTtl: 900 })[0]).toBe('edit @ A 192.0.2.1: 3600 > 900');
    expect(lower('repoint', { ttls: [3600] })).toEqual([]);
    expect(lower('repoint', { ttls: null })).toEqual([]);
  });
});

describe('what is raised by hand afterwards', () => {
  it('is all that was typed low: the whole zone, or in place what changed there', () => {
    expect(raise('repoint')).toEqual(['edit @ A 192.0.2.2: 300 > 3600']);
    expect(raise('delegation')).toEqual(['edit @ A 192.0.2.2: 300 > 3600', 'edit www CNAME zone.test: 300 > 86400', 'edit @ MX mx.post.test: 300 > 3600']);
  });

  it('undoes nothing that was never low', () => {
    const low = [ruling('zone.test.', 'A', 'repoint', 200, ['192.0.2.1'], ['192.0.2.2'])];
    expect(raiseSheet({ kind: 'delegation', account: false, rulings: low }, ZONE, { entry: null })).toEqual([]);
  });
});
