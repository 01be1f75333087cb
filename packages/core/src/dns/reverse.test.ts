import { Name } from './name';
import { parsePrefix } from './prefix';
import { addressLabels, isReverse, reverseZone } from './reverse';

describe('names of addresses', () => {
  it.each([
    ['192.0.2.0/24', '2.0.192.in-addr.arpa'],
    ['198.51.0.0/16', '51.198.in-addr.arpa'],
    ['10.0.0.0/8', '10.in-addr.arpa'],
    ['2001:db8::/32', '8.b.d.0.1.0.0.2.ip6.arpa'],
    ['2001:db8:a0::/44', 'a.0.0.8.b.d.0.1.0.0.2.ip6.arpa'],
    // RFC 2317: its zone has whatever name its holder's provider gave it.
    ['192.0.2.64/26', undefined],
    ['2001:db8::/33', undefined],
    ['192.0.2.7/32', undefined],
    ['0.0.0.0/0', undefined],
    ['::/0', undefined],
    ['2001:db8::1/128', undefined],
  ])('of the range %s stand in %s', (range, zone) => {
    expect(reverseZone(parsePrefix(range)!)).toBe(zone);
    if (zone) expect(isReverse(Name.parse(`${zone}.`))).toBe(true);
  });

  it.each([
    ['192.in-addr.arpa.', 256, '0', '255'],
    ['2.0.192.in-addr.arpa.', 256, '0', '255'],
    ['7.2.0.192.in-addr.arpa.', 0, undefined, undefined],
    ['64-127.2.0.192.in-addr.arpa.', 256, '0', '255'],
    ['65.64-127.2.0.192.in-addr.arpa.', 0, undefined, undefined],
    ['subnet.clients.2.0.192.in-addr.arpa.', 256, '0', '255'],
    ['8.b.d.0.1.0.0.2.ip6.arpa.', 16, '0', 'f'],
    [`${'0.'.repeat(32)}ip6.arpa.`, 0, undefined, undefined],
    [`${'0.'.repeat(31)}ip6.arpa.`, 16, '0', 'f'],
    ['in-addr.arpa.', 0, undefined, undefined],
    ['in-addr.arpa.example.', 0, undefined, undefined],
    ['lighthouse.example.', 0, undefined, undefined],
  ])('go on below %s by %i labels', (name, count, first, last) => {
    const labels = addressLabels(Name.parse(name));
    expect([labels.length, labels[0], labels.at(-1)]).toEqual([count, first, last]);
  });

  it('are told by where they stand', () => {
    expect(
      ['in-addr.arpa.', 'home.arpa.', 'x.in-addr.arpa.example.', 'A.In-Addr.ARPA.', '0-63.2.0.192.in-addr.arpa.'].map((one) => isReverse(Name.parse(one))),
    ).toEqual([false, false, false, true, true]);
  });
});
