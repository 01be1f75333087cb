import { checkInput } from '../testing/planLine';
import { Name } from '../dns/name';
import { rrsetFromText } from '../dns/record';
import { checkRulings } from './checks';
import { HostKnowledge } from './host';
import { proposeFresh } from './proposeFresh';
import { isHostsOwn } from './ruling';

const ZONE = Name.parse('choir.example.');
const newDns: HostKnowledge = { name: 'New DNS', nameservers: ['ns1.new.example.'], addresses: [], aliasTarget: undefined, requires: [] };
const web = (more: Partial<HostKnowledge> = {}): HostKnowledge => ({
  ...{ name: 'Larkspur', nameservers: [], addresses: ['203.0.113.90', '2001:db8::90'], aliasTarget: 'sites.larkspur.example.', requires: [] },
  ...more,
});
const PARKED = [
  { owner: 'choir.example.', type: 'NS', ttl: 60, data: ['park.registrar.example.'] },
  { owner: 'choir.example.', type: 'A', ttl: 60, data: ['192.0.2.200'] },
  { owner: '*.choir.example.', type: 'A', ttl: 60, data: ['192.0.2.200'] },
].map(rrsetFromText);
const brief = (found: typeof PARKED, newWeb: HostKnowledge | undefined, declineMail: boolean): string[] =>
  proposeFresh(ZONE, found, { newDns, newWeb, declineMail })
    .filter((row) => !isHostsOwn(row))
    .map((row) => `${row.owner} ${row.type} ${row.ruling} ${row.planned?.data.join(' ') ?? '-'}`);

describe('a zone that starts from nothing', () => {
  it('leads to the web host on both spellings, and declines mail where that is wanted', () => {
    expect(brief([], web(), true)).toEqual([
      'choir.example. A new 203.0.113.90',
      'choir.example. AAAA new 2001:db8::90',
      'www.choir.example. CNAME new sites.larkspur.example.',
      'choir.example. MX new 0 .',
      'choir.example. TXT new "v=spf1 -all"',
    ]);
    expect(brief([], web({ aliasTarget: undefined, addresses: ['203.0.113.90'] }), false)).toEqual([
      'choir.example. A new 203.0.113.90',
      'www.choir.example. A new 203.0.113.90',
    ]);
    expect(checkRulings(checkInput(ZONE, proposeFresh(ZONE, [], { newDns, newWeb: web(), declineMail: true }))).filter((one) => one.weight === 'stop')).toEqual(
      [],
    );
  });

  it('carries nothing of a registrar’s parking, its wildcard neither', () => {
    expect(brief(PARKED, web({ addresses: ['203.0.113.90'], aliasTarget: undefined }), false)).toEqual([
      'choir.example. A repoint 203.0.113.90',
      '*.choir.example. A drop -',
      'www.choir.example. A new 203.0.113.90',
    ]);
    expect(brief(PARKED, undefined, true)).toEqual([
      'choir.example. A drop -',
      '*.choir.example. A drop -',
      'choir.example. MX new 0 .',
      'choir.example. TXT new "v=spf1 -all"',
    ]);
  });
});
