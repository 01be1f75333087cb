import { Name } from '../dns/name';
import { printRdata } from '../dns/rdata';
import { givenSerial, givenSets, readInHand } from './readInHand';

const ZONE = Name.parse('kelp-forge.example.');
const read = (text: string) => readInHand(text, ZONE, { ttl: 60 });
const names = (text: string): string[] => read(text).rows.map((row) => row.name.toString());

describe('what people have in hand', () => {
  it('may be a zone file', () => {
    const text = '$TTL 1h\n@ IN SOA ns1 host (\n 1 2 3\n 4 5 )\nwww IN A 192.0.2.1\nodd A 192.0.2\nx.other.example. A 192.0.2.3\n';
    const { kind, bad } = read(text);
    expect([kind, names(text)]).toEqual(['zone file', ['kelp-forge.example.', 'www.kelp-forge.example.']]);
    expect(bad.map((one) => [one.line, one.problem])).toEqual([
      [6, '192.0.2 is not an IPv4 address'],
      [7, 'it is outside the zone'],
    ]);
    expect(givenSets(read(text)).map((set) => set.owner.toString())).toEqual(['www.kelp-forge.example.']);
  });

  it('may be a table', () => expect([read('www\tA\t192.0.2.1').kind, names('www\tA\t192.0.2.1')]).toEqual(['table', ['www.kelp-forge.example.']]));

  it('may be a list of names, addresses of pages and of people among them', () => {
    const text =
      'intranet\nshop.kelp-forge.example\nhttps://www.kelp-forge.example/visit\npost@mail.kelp-forge.example\nold.kelp-forge.example.\nelsewhere.test.\n@\n';
    expect(read(text).kind).toBe('names');
    expect(names(text)).toEqual([
      'intranet.kelp-forge.example.',
      'shop.kelp-forge.example.',
      'www.kelp-forge.example.',
      'mail.kelp-forge.example.',
      'old.kelp-forge.example.',
      'kelp-forge.example.',
    ]);
    expect(read(text).bad).toEqual([{ line: 6, text: 'elsewhere.test.', problem: 'it is outside the zone' }]);
    expect(read(text).rows[1]!.otherName!.toString()).toBe('shop.kelp-forge.example.kelp-forge.example.');
  });

  it('may be a mail, whose signatures name selectors', () => {
    const text = `Return-Path: <bounce+7@bounces.kelp-forge.example>
Received: from mx.brinepost.example
DKIM-Signature: v=1; a=rsa-sha256; c=relaxed/relaxed;
 d=kelp-forge.example; s=spring24;
 h=from:to; bh=AAAA; b=BBBB
DKIM-Signature: v=1; d=brinepost.example; s=relay; b=CC
From: The forge <hello@kelp-forge.example>

DKIM-Signature: s=inbody; d=kelp-forge.example`;
    expect(read(text).kind).toBe('mail');
    expect(names(text)).toEqual(['bounces.kelp-forge.example.', 'spring24._domainkey.kelp-forge.example.', 'kelp-forge.example.']);
    expect(read(text).bad.map((one) => one.text)).toEqual(['relay._domainkey.brinepost.example.']);
  });

  it('may be nothing at all', () => {
    expect(read('').rows).toEqual([]);
    expect(read('\n \n').rows).toEqual([]);
  });

  it('reads so much and no more, no line cut in two, and says how many were left out', () => {
    const line = 'n00 A 192.0.2.100\n';
    const reading = readInHand(line.repeat(1_000_000), Name.parse('reed-bank.example.'), { ttl: 60 });
    expect(reading.rows.length + reading.leftOut).toBe(1_000_000);
    expect(new Set(reading.rows.map((row) => row.record && printRdata(row.record.type, row.record.data)))).toEqual(new Set(['192.0.2.100']));
    const cut = readInHand(`${'x'.repeat(2_100_000)}\n`, Name.parse('reed-bank.example.'), { ttl: 60 });
    expect([cut.rows, cut.leftOut]).toEqual([[], 1]);
  });
});

describe('the serial of a zone file', () => {
  const file = '$TTL 60\n@ SOA ns1 host 42 1 1 1 1\nwww A 192.0.2.1\n';
  const serial = (text: string): number | undefined => givenSerial(read(text), ZONE);

  it('counts where the whole file was read, lines about other zones aside', () => {
    expect(serial(file)).toBe(42);
    expect(serial(`${file}ns1.elsewhere.test. A 192.0.2.2\n`)).toBe(42);
    expect(read(`${file}ns1.elsewhere.test. A 192.0.2.2\n`).bad).toHaveLength(1);
  });

  it('does not where a line was lost, or the end', () => {
    expect(serial(`${file}odd A 192.0.2\n`)).toBeUndefined();
    const long = file + 'n A 192.0.2.1\n'.repeat(20_000);
    expect([read(long).complete, read(long).leftOut, serial(long)]).toEqual([false, 2, undefined]);
    expect(serial(`${file};${'x'.repeat(2_000_000)}\n`)).toBeUndefined();
  });
});

// Each of these would keep a search that begins anew at every character busy for hours.
describe('hostile text', () => {
  const units = [
    'a 300 IN TXT ( "b"\n',
    '$GENERATE 1-9 a( ',
    '(',
    '( ',
    ')\n',
    '"',
    '" ',
    ' " ',
    ': ',
    '\n',
    ' \n',
    '\t\n',
    '\r',
    '<tr',
    '<td ',
    '<td>"',
    'a ',
    'a;',
    'a,"',
    '|',
    '\\',
    '$TTL ',
    '@ SOA ',
    'é',
    '#\u2028',
  ];
  it.each(units)('of nothing but %j is read to its end, and nothing is made of it', (unit) => {
    for (const before of ['', 'www A 192.0.2.1\n', '<table><tr><td>']) {
      const reading = read(`${before}${unit.repeat(120_000 / unit.length)}\u2028x`);
      expect(reading.rows.filter(({ record }) => record && !/^192/.test(printRdata(record.type, record.data)))).toEqual([]);
      expect(reading.bad.every((one) => one.text.length <= 300)).toBe(true);
    }
  });

  it('with a value longer than data can be is told, not cut', () => {
    const { rows, bad } = read(`${'www\tA\t192.0.2.1\n'.repeat(3)}big\tTXT\t${'a'.repeat(400_000)}\n`);
    expect(rows).toHaveLength(3);
    expect(bad).toEqual([expect.objectContaining({ line: 4, problem: 'it is longer than a record can be' })]);
  });

  it('with a parenthesis that is never closed is read once', () => {
    const { rows, bad } = read('a 300 IN TXT ( "b"\n'.repeat(80_000));
    expect([rows, bad.length > 0]).toEqual([[], true]);
  });

  it('with ranges that make millions of records is read until it is enough', () => {
    const { rows, leftOut, complete } = read(`$TTL 60\nwww A 192.0.2.1\n${'$GENERATE 0-900000 n$ A 192.0.2.2\n'.repeat(1000)}`);
    expect([rows.length, leftOut, complete]).toEqual([20_000, 1000, false]);
  });

  it('that is no zone file is not read to its end', () => {
    const { bad, leftOut } = read(`$TTL 1h\n${'x IN A nowhere\n'.repeat(20_000)}`);
    expect([bad.length, leftOut]).toEqual([5000, 15_000]);
  });
});
