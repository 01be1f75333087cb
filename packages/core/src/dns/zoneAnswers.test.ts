import { RCODE } from './codes';
import { Name } from './name';
import { printRdata } from './rdata';
import { groupRecords } from './record';
import { TYPE_CODES, typeCode } from './typeNames';
import { ZoneAnswers } from './zoneAnswers';
import { parseZoneFile } from './zoneFile';

const zone = Name.parse('zone.test.');
const answers = new ZoneAnswers(
  zone,
  groupRecords(
    parseZoneFile(
      `
$TTL 600
@ 3600 SOA ns1.host.test. admin.host.test. 1 60 60 600 300
@ NS ns1.host.test.
@ A 192.0.2.1
www CNAME @
away CNAME elsewhere.test.
round CNAME again
again CNAME round
*.wild A 192.0.2.9
*.wild TXT "any"
there.wild MX 10 @
deep.below.wild A 192.0.2.10
sub NS ns.sub
sub DS 1 8 2 0000000000000000000000000000000000000000000000000000000000000000
ns.sub A 192.0.2.53
hidden.sub A 192.0.2.66
a.b.c A 192.0.2.7
old DNAME new
x.new A 192.0.2.8
`,
      zone,
    ).records,
  ),
);

const ask = (name: string, type: string): string => {
  const answer = answers.ask(Name.parse(name, zone), typeCode(type)!);
  const sets = answer.answers.map(
    (set) => `${set.owner.relativeTo(zone)} ${set.type === TYPE_CODES.CNAME ? 'CNAME ' : ''}${set.data.map((data) => printRdata(set.type, data)).join()}`,
  );
  const told = answer.referral ? `refers to ${answer.referral.owner.relativeTo(zone)} with ${answer.glue.length}` : sets.join(', ') || 'nothing';
  return answer.rcode === RCODE.NOERROR ? told : `${answer.rcode} ${told}`;
};

describe('what a server answers from a zone', () => {
  it.each([
    ['@', 'A', '@ 192.0.2.1'],
    ['@', 'MX', 'nothing'],
    ['www', 'A', 'www CNAME zone.test., @ 192.0.2.1'],
    ['www', 'CNAME', 'www CNAME zone.test.'],
    ['away', 'A', 'away CNAME elsewhere.test.'],
    ['nobody', 'A', '3 nothing'],
    ['b.c', 'A', 'nothing'],
    ['x.wild', 'A', 'x.wild 192.0.2.9'],
    ['x.wild', 'MX', 'nothing'],
    ['y.x.wild', 'TXT', 'y.x.wild "any"'],
    ['there.wild', 'A', 'nothing'],
    ['x.there.wild', 'A', '3 nothing'],
    ['below.wild', 'A', 'nothing'],
    ['x.below.wild', 'A', '3 nothing'],
    ['*.wild', 'A', '*.wild 192.0.2.9'],
    ['sub', 'A', 'refers to sub with 1'],
    ['hidden.sub', 'A', 'refers to sub with 1'],
    ['ns.sub', 'A', 'refers to sub with 1'],
    ['sub', 'DS', 'sub 1 8 2 0000000000000000000000000000000000000000000000000000000000000000'],
    ['x.old', 'A', 'old new.zone.test., x.old CNAME x.new.zone.test., x.new 192.0.2.8'],
    ['old', 'DNAME', 'old new.zone.test.'],
    ['z.old', 'A', '3 old new.zone.test., z.old CNAME z.new.zone.test.'],
    ['other.test.', 'A', '5 nothing'],
  ])('%s %s', (name, type, wanted) => expect(ask(name, type)).toBe(wanted));

  it('ends where aliases go in a circle', () => expect(ask('round', 'A').split(',').length).toBeGreaterThan(2));
  it('knows how long a denial may be remembered', () => expect(answers.negative).toBe(300));
  it('gives a name that a wildcard answers its own data back', () =>
    expect(answers.own(Name.parse('x.wild.zone.test.'), TYPE_CODES.A)!.data.map((data) => printRdata(1, data))).toEqual(['192.0.2.9']));
});
