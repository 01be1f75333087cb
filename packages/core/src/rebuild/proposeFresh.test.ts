import { checkInput } from '../testing/planLine';
import { Name } from '../dns/name';
import { rrsetFromText } from '../dns/record';
import { checkRulings } from './checks';
import { HostKnowledge } from './host';
import { proposeRulings } from './propose';
import { proposeFresh } from './proposeFresh';
import { proposeRepoint } from './proposeRepoint';
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
const fresh = (found: typeof PARKED, newWeb: HostKnowledge | undefined, declineMail: boolean) =>
  proposeFresh(ZONE, proposeRulings(ZONE, found, { oldWeb: [], newDns, newWeb: undefined }), { newWeb, declineMail });
const brief = (found: typeof PARKED, newWeb: HostKnowledge | undefined, declineMail: boolean): string[] =>
  fresh(found, newWeb, declineMail)
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
    expect(checkRulings(checkInput(ZONE, fresh([], web(), true))).filter((one) => one.weight === 'stop')).toEqual([]);
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

  it('empties a live zone in place, and leaves what is the DNS host’s own', () => {
    const newWeb = web({ addresses: ['203.0.113.90'], aliasTarget: undefined });
    const inPlace = proposeRepoint(ZONE, PARKED, { scope: { kind: 'whole' }, oldWeb: [], dns: newDns, newWeb });
    const rows = proposeFresh(ZONE, inPlace, { newWeb, declineMail: false });
    expect(rows.map((row) => `${row.owner} ${row.type} ${row.ruling}`)).toEqual([
      'choir.example. NS carry',
      'choir.example. A repoint',
      '*.choir.example. A drop',
      'www.choir.example. A new',
    ]);
    // Where the website is there already, nothing of it changes.
    const there = proposeFresh(ZONE, inPlace, { newWeb: web({ addresses: ['192.0.2.200'], aliasTarget: undefined }), declineMail: false });
    expect(there.find((row) => row.type === 'A' && row.owner === 'choir.example.')!.ruling).toBe('carry');
  });

  it('gives the domain itself an alias only where its DNS host takes one there', () => {
    const newWeb = web({ addresses: [] });
    const rows = (apexAlias: boolean) => proposeFresh(ZONE, [], { newWeb, apexAlias, declineMail: false }).map((row) => `${row.owner} ${row.type}`);
    expect(rows(true)).toEqual(['choir.example. CNAME', 'www.choir.example. CNAME']);
    expect(rows(false)).toEqual(['www.choir.example. CNAME']);
  });
});
