import fc from 'fast-check';
import { name } from '../testing/arbitrary';
import { ByteReader, ByteWriter, WireError } from './bytes';
import { Name, NameError } from './name';

const zone = Name.parse('zone.example.');

describe('Name', () => {
  it.each([
    ['www', 'www.zone.example.'],
    ['@', 'zone.example.'],
    ['www.other.example.', 'www.other.example.'],
    ['a\\.b', 'a\\.b.zone.example.'],
    ['\\065bc', 'Abc.zone.example.'],
    ['*', '*.zone.example.'],
    ['\\000\\255', '\\000\\255.zone.example.'],
    ['käse', 'k\\195\\164se.zone.example.'],
  ])('reads %p below the origin as %p', (text, printed) => expect(Name.parse(text, zone).toString()).toBe(printed));

  it.each(['', 'a..b', '.a', 'a\\', 'a\\25', 'a\\256', 'a\\2x5', `${'x'.repeat(64)}.`, `${'abcdefg.'.repeat(32)}`])('refuses %p', (text) =>
    expect(() => Name.parse(text)).toThrow(NameError),
  );

  it('takes 63 octets in a label and 255 in all, and no more', () => {
    expect(Name.parse(`${'x'.repeat(63)}.`).labels).toHaveLength(1);
    const longest = `${'x'.repeat(63)}.${'x'.repeat(63)}.${'x'.repeat(63)}.${'x'.repeat(61)}.`;
    expect(Name.parse(longest).toString()).toBe(longest);
    expect(() => Name.parse(`x${longest}`)).toThrow(NameError);
  });

  it('is the same through text and through the wire', () => {
    fc.assert(
      fc.property(name, (one) => {
        expect(Name.parse(one.toString()).labels).toEqual(one.labels);
        const out = new ByteWriter();
        one.write(out);
        const reader = new ByteReader(out.done());
        expect(Name.read(reader).labels).toEqual(one.labels);
        expect(reader.left).toBe(0);
      }),
    );
  });

  it('compares without regard to ASCII case only', () => {
    expect(Name.parse('WWW.Zone.Example.').equals(Name.parse('www.zone.example.'))).toBe(true);
    expect(Name.parse('k\\195\\164se.').equals(Name.parse('k\\195\\132se.'))).toBe(false);
    expect(Name.parse('ab.c.').key).not.toBe(Name.parse('a.bc.').key);
  });

  it('sorts as RFC 4034 §6.1 shows', () => {
    const sorted = [
      'example.',
      'a.example.',
      'yljkjljk.a.example.',
      'Z.a.example.',
      'zABC.a.EXAMPLE.',
      'z.example.',
      '\\001.z.example.',
      '*.z.example.',
      '\\200.z.example.',
    ];
    expect(
      [...sorted]
        .reverse()
        .map((text) => Name.parse(text))
        .sort((a, b) => a.compare(b))
        .map(String),
    ).toEqual(sorted);
  });

  it('orders every three names consistently', () => {
    fc.assert(
      fc.property(name, name, name, (a, b, c) => {
        expect(Math.sign(a.compare(b))).toBe(-Math.sign(b.compare(a)) + 0);
        expect(a.order < b.order ? -1 : a.order > b.order ? 1 : 0).toBe(Math.sign(a.compare(b)));
        if (a.compare(b) <= 0 && b.compare(c) <= 0) expect(a.compare(c)).toBeLessThanOrEqual(0);
      }),
    );
  });

  it('prints relative to an origin and reads back', () => {
    expect(Name.parse('www.zone.example.').relativeTo(zone)).toBe('www');
    expect(zone.relativeTo(zone)).toBe('@');
    expect(Name.parse('zone.example.org.').relativeTo(zone)).toBe('zone.example.org.');
    expect(Name.parse('notzone.example.').isAtOrBelow(zone)).toBe(false);
  });

  describe('on the wire', () => {
    const read = (...octets: number[]): Name => Name.read(new ByteReader(Uint8Array.from(octets)));
    it.each([
      ['a pointer to itself', [0xc0, 0x00]],
      ['a pointer forwards', [0xc0, 0x02, 0x00]],
      ['a cut label', [5, 97, 98]],
      ['no end', [1, 97]],
      ['a cut pointer', [0xc0]],
      ['an unknown label type', [0x41, 0]],
    ])('refuses %s', (_what, octets) => expect(() => read(...octets)).toThrow(WireError));

    it('refuses two pointers that lead to each other', () => {
      const reader = new ByteReader(Uint8Array.from([1, 97, 0xc0, 0x04, 1, 98, 0xc0, 0x00]), 4);
      expect(() => Name.read(reader)).toThrow(WireError);
    });

    it('refuses a name that pointers make longer than 255 octets', () => {
      const out = new ByteWriter();
      for (let i = 0; i < 5; i++) {
        out.u8(60);
        out.bytes(new Uint8Array(60).fill(97));
      }
      out.u8(0);
      expect(() => Name.read(new ByteReader(out.done()))).toThrow(/longer than 255/);
    });
  });
});
