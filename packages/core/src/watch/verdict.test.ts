import { parseRdata } from '../dns/rdata';
import { combineVerdicts, expectedOldShare, isSamePlace, sameNameSet, verdictOf } from './verdict';

const a = (...addresses: string[]): Uint8Array[] => addresses.map((address) => parseRdata(1, address));

describe('verdicts', () => {
  const before = a('192.0.2.1', '192.0.2.2');
  const after = a('203.0.113.1');
  it.each([
    [0, a('192.0.2.2', '192.0.2.1'), 'old'],
    [0, after, 'new'],
    [0, a('192.0.2.1', '203.0.113.1'), 'mixed'],
    [0, a('192.0.2.1'), 'old'],
    [0, a('198.51.100.9'), 'other'],
    [0, a('203.0.113.1', '198.51.100.9'), 'other'],
    [0, [], 'none'],
    [3, [], 'none'],
    [2, [], 'none'],
    [2, after, 'none'],
  ])('response code %p with %p records', (rcode, data, wanted) => expect(verdictOf(1, { rcode, data }, before, after)).toBe(wanted));

  it('of a new name: absent is old', () =>
    expect([verdictOf(1, { rcode: 3, data: [] }, [], after), verdictOf(1, { rcode: 0, data: after }, [], after)]).toEqual(['old', 'new']));
  it('of a dropped name: absent is new', () =>
    expect([verdictOf(1, { rcode: 3, data: [] }, before, []), verdictOf(1, { rcode: 0, data: before }, before, [])]).toEqual(['new', 'old']));
  it('compare names without regard to case', () =>
    expect(
      verdictOf(2, { rcode: 0, data: [parseRdata(2, 'NS1.New.Example.')] }, [parseRdata(2, 'ns1.old.example.')], [parseRdata(2, 'ns1.new.example.')]),
    ).toBe('new'));

  it('of several looks at one address are mixed where they differ', () => {
    expect(combineVerdicts(['old', 'new', 'new'])).toBe('mixed');
    expect(combineVerdicts(['new', 'none', 'new'])).toBe('new');
    expect(combineVerdicts(['new', 'other'])).toBe('other');
    expect(combineVerdicts([])).toBe('none');
  });

  it('expect a straight fall for caches that are asked all the time, a lower one for others', () => {
    expect([0, 150, 300, 400].map((x) => expectedOldShare(x, 300))).toEqual([1, 0.5, 0, 0]);
    expect(expectedOldShare(0, 300, 1 / 300)).toBe(0.5);
  });

  it('of nameserver sets know no order and no case', () => {
    expect(sameNameSet(['A.example.', 'b.example.'], ['b.example', 'a.example.'])).toBe(true);
    expect(sameNameSet(['a.example.'], ['a.example.', 'b.example.'])).toBe(false);
  });
});

describe('the same place', () => {
  const now = { nameservers: ['ns1.a.test.', 'NS2.a.test.'], addresses: ['192.0.2.1', '192.0.2.2'] };
  it.each([
    [['ns2.a.test.', 'ns1.a.test.'], ['192.0.2.2'], true],
    [['ns2.a.test.', 'ns1.a.test.'], [], true],
    [['ns2.a.test.', 'ns1.a.test.'], ['192.0.2.2', '192.0.2.3'], false],
    [['ns1.a.test.'], ['192.0.2.1'], false],
  ])('%j at %j: %s', (nameservers, addresses, same) => expect(isSamePlace(now, { nameservers, addresses })).toBe(same));
});
