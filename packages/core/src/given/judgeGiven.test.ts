import { Name } from '../dns/name';
import { rrsetFromText } from '../dns/record';
import { readText } from '../reading/readText';
import { Scope } from '../move/scope';
import { GivenItem } from './givenItem';
import { givenPlaces } from './givenPlaces';
import { judgeGiven } from './judgeGiven';

const ZONE = Name.parse('kelp.example.');
const SETS: [string, string, ...string[]][] = [
  ['@', 'NS', 'ns1.saltmarsh.example.', 'ns2.saltmarsh.example.'],
  ['@', 'A', '198.51.100.80'],
  ['www', 'A', '198.51.100.80'],
  ['mail', 'A', '198.51.100.25'],
  ['@', 'MX', '10 mail.kelp.example.'],
  ['@', 'TXT', '"v=spf1 mx -all"', '"proof=1"'],
  ['_dmarc', 'TXT', '"v=DMARC1; p=none"'],
  ['shop', 'CNAME', 'shops.brinepost.example.'],
];
const FOUND = SETS.map(([owner, type, ...data]) => rrsetFromText({ owner: Name.parse(owner, ZONE).toString(), type, ttl: 3600, data }));
const NAMESERVERS = ['ns1.saltmarsh.example.', 'ns2.saltmarsh.example.'];

const judged = (lines: string, scope: Scope = { kind: 'whole' }): string[] => {
  const items = lines.split('\n').map((line): GivenItem => {
    const [owner, type, ...data] = line.trim().split(' ');
    const kind = type === undefined ? 'address' : owner === 'ns' ? 'nameserver' : 'record';
    const of =
      kind === 'address'
        ? { owner: '', type: 'A', data: owner! }
        : kind === 'nameserver'
          ? { owner: '@', type: 'NS', data: type! }
          : { owner: owner!, type: type!, data: data.join(' ') };
    return { kind, ...of, doubts: [] };
  });
  return judgeGiven(items, { zone: ZONE, scope, found: FOUND, nameservers: NAMESERVERS }).map(
    ({ use, isTaken, question }) => `${isTaken ? 'taken' : question === undefined ? 'left' : 'asked'} ${use}`,
  );
};

describe('what a given thing is for', () => {
  it.each([
    ['203.0.113.80', 'taken website'],
    ['198.51.100.80', 'left none'],
    ['@ A 203.0.113.80', 'taken website'],
    ['www A 203.0.113.80', 'taken website'],
    ['@ A 198.51.100.80', 'left none'],
    ['www CNAME sites.thornwick.example.', 'taken website'],
    ['www CNAME kelp.example.', 'taken record'],
    ['@ CNAME sites.thornwick.example.', 'asked website'],
    ['ns ns1.quillmere.example.', 'taken nameserver'],
    ['ns ns1.saltmarsh.example.', 'taken nameserver'],
    ['blog A 203.0.113.80', 'taken record'],
    ['shop CNAME shops.brinepost.example.', 'left none'],
    ['mail A 203.0.113.80', 'asked record'],
    ['* A 203.0.113.80', 'asked record'],
    ['@ MX 10 mx.thornwick.example.', 'asked record'],
    ['@ MX 10 mail.kelp.example.', 'left none'],
    ['@ TXT "thornwick=1"', 'taken record'],
    ['@ TXT "proof=1"', 'left none'],
    ['@ TXT "v=spf1 include:spf.thornwick.example -all"', 'asked record'],
    ['_dmarc TXT "v=DMARC1; p=reject"', 'asked record'],
    ['s1._domainkey TXT "v=DKIM1; k=rsa; p=AAAA"', 'taken record'],
    ['@ DS 1 8 2 00', 'left none'],
    ['www.other.example. A 203.0.113.80', 'left none'],
  ])('%s: %s', (line, expected) => {
    expect(judged(line)).toEqual([expected]);
  });

  it('takes nameservers of the present set for what is, where new ones are given as well', () => {
    expect(judged('ns ns1.saltmarsh.example.\nns ns1.quillmere.example.')).toEqual(['left none', 'taken nameserver']);
  });

  it('asks of a single name no more than what is about it', () => {
    const scope: Scope = { kind: 'names', names: ['blog.kelp.example'] };
    expect(judged('blog A 203.0.113.80\nwww A 203.0.113.80\n_proof TXT "x=1"\nns ns1.quillmere.example.', scope)).toEqual([
      'taken website',
      'left none',
      'taken record',
      'left none',
    ]);
  });

  it('does what a person says, also of what is asked about', () => {
    const mx: GivenItem = { kind: 'record', owner: '@', type: 'MX', data: '10 mx.thornwick.example.', doubts: [] };
    const subject = { zone: ZONE, scope: { kind: 'whole' }, found: FOUND, nameservers: NAMESERVERS } as const;
    expect(judgeGiven([{ ...mx, taken: true }], subject)[0]).toMatchObject({ isTaken: true });
    expect(judgeGiven([{ kind: 'address', owner: '', type: 'A', data: '203.0.113.80', doubts: [], taken: false }], subject)[0]!.isTaken).toBe(false);
  });

  it('puts what is taken together', () => {
    const text =
      'Hello,\n\nA record for @: 203.0.113.80\nCNAME www -> sites.thornwick.example\nTXT @ "thornwick=1a2b3c4d"\nMX @ 10 mx.thornwick.example\n\nOur nameservers: ns1.quillmere.example, ns2.quillmere.example\n';
    const items = readText(text, { zone: 'kelp.example.', as: 'new', own: [] }).finds.flatMap((find): GivenItem[] =>
      find.kind === 'name' ? [] : [{ kind: find.kind, owner: find.owner, type: find.type, data: find.data, doubts: find.questions }],
    );
    const places = givenPlaces(judgeGiven(items, { zone: ZONE, scope: { kind: 'whole' }, found: FOUND, nameservers: NAMESERVERS }), ZONE);
    expect(places).toMatchObject({
      nameservers: ['ns1.quillmere.example.', 'ns2.quillmere.example.'],
      web: { addresses: ['203.0.113.80'], aliasTarget: 'sites.thornwick.example.' },
      requires: [{ owner: '@', type: 'TXT', data: '"thornwick=1a2b3c4d"' }],
    });
  });
});
