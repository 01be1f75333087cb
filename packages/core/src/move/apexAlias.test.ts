import { Name } from '../dns/name';
import { parseRdata } from '../dns/rdata';
import { rrsetFromText } from '../dns/record';
import { USUAL_HABITS } from '../hosts/dnsHabits';
import { HostKnowledge } from '../rebuild/host';
import { proposeRulings } from '../rebuild/propose';
import { checkRulings } from '../rebuild/checks';
import { NEW, OLD, answers, decision, legOf, plan, published, rows, ruling } from '../testing/moving';
import { checkInput } from '../testing/planLine';
import { frontVerdict } from '../watch/verdict';
import { takesApexAlias } from './apexAlias';
import { Leg } from './leg';
import { LegPlan } from './plan';
import { AnswerSight, ZoneSight } from './seen';
import { stepOf } from './steps';

const ZONE = Name.parse('zone.test.');
const taking = { name: 'New DNS', keyed: false, fronts: [], habits: { ...USUAL_HABITS, apexAlias: 'addresses' as const } };
const sites = (addresses: string[]): HostKnowledge => ({ name: 'Sites', nameservers: [], addresses, aliasTarget: 'sites.new.test.', requires: [] });
const RULINGS = [
  ruling('zone.test.', 'A', 'drop', 3600, ['192.0.2.1'], undefined),
  ruling('zone.test.', 'CNAME', 'new', 3600, undefined, ['sites.new.test.']),
  ruling('zone.test.', 'MX', 'carry', 3600, ['10 mx.post.test.'], ['10 mx.post.test.']),
  { ...ruling('zone.test.', 'NS', 'drop', 3600, OLD, undefined), reason: "the DNS host's own" },
];
const [A, AAAA, CNAME, MX] = ['zone.test./A', 'zone.test./AAAA', 'zone.test./CNAME', 'zone.test./MX'] as const;
const sight = (more: Record<string, AnswerSight>): ZoneSight => ({
  serial: null,
  refused: false,
  sets: { 'zone.test./NS': { ttl: 300, data: [...NEW] }, [MX]: { ttl: 300, data: ['10 mx.post.test.'] }, ...more },
});
const give = (data: string[]): AnswerSight => ({ ttl: 60, data });

function leg(served: ZoneSight, more: Partial<LegPlan> = {}): Leg {
  return legOf({
    now: 1000,
    plan: { rulings: RULINGS, newHost: taking, newWeb: sites([]), ...more },
    decisions: [decision('hosts'), decision('leave', 'push')],
    parent: rows('a.nic.test.', '192.0.2.53', [0, 1000, published(OLD)]),
    zones: [
      ...OLD.flatMap((server, index) => rows(server, plan.oldServers[index]!.address, [0, 1000, answers(300)])),
      ...NEW.flatMap((server, index) => rows(server, plan.newServers[index]!.address, [900, 1000, served])),
    ],
  });
}
const served = (one: Leg): string | undefined => stepOf(one, 'served')?.standing.state;

describe('an alias at the apex that a host answers as addresses', () => {
  it('is taken by a host whose panel offers it, and never set by update', () => {
    expect([
      takesApexAlias(taking),
      takesApexAlias({ ...taking, keyed: true }),
      takesApexAlias({ ...taking, habits: USUAL_HABITS }),
      takesApexAlias(undefined),
    ]).toEqual([...[true, false, false, false]]);
  });

  it('is served where addresses are given that were not there before, whatever they are where nobody knows them', () => {
    expect(served(leg(sight({ [A]: give(['198.18.0.9']), [AAAA]: give([]) })))).toBe('done');
    expect(served(leg(sight({ [A]: give(['198.18.0.9', '198.18.0.10']), [AAAA]: give(['2001:db8::9']) })))).toBe('done');
    // The old address, nothing at all, and an address beside the old one are not it.
    for (const data of [['192.0.2.1'], [], ['192.0.2.1', '198.18.0.9']]) expect(served(leg(sight({ [A]: give(data), [AAAA]: give([]) })))).toBe('doing');
    // The rest of the apex is read back as ever.
    expect(served(leg(sight({ [A]: give(['198.18.0.9']), [AAAA]: give([]), [MX]: give([]) })))).toBe('doing');
  });

  it('is held against the web host’s own addresses where they are known', () => {
    const known = { newWeb: sites(['203.0.113.80', '203.0.113.81']) };
    expect(served(leg(sight({ [A]: give(['203.0.113.81']), [AAAA]: give([]) }), known))).toBe('done');
    expect(served(leg(sight({ [A]: give(['198.18.0.9']), [AAAA]: give([]) }), known))).toBe('doing');
  });

  it('is told of a resolver as old, new or mixed', () => {
    const { front } = leg(sight({})).questions.find((question) => question.key === A)!;
    const say = (data: string[]) => frontVerdict(1, { rcode: 0, data: data.map((text) => parseRdata(1, text)) }, [parseRdata(1, '192.0.2.1')], front!);
    expect([say(['192.0.2.1']), say(['198.18.0.9']), say(['192.0.2.1', '198.18.0.9'])]).toEqual(['old', 'new', 'mixed']);
  });

  it('is nothing that a server is asked for itself', () => {
    const one = leg(sight({ [A]: give(['198.18.0.9']), [AAAA]: give([]) }));
    expect([one.wanted.data(CNAME), one.questions.map((question) => question.key)]).toEqual([undefined, expect.arrayContaining([A])]);
    expect(one.questions.map((question) => question.key)).not.toContain(CNAME);
  });

  it('is proposed where the web host has nothing else, and a plain name gets an ordinary alias', () => {
    const found = [
      rrsetFromText({ owner: 'zone.test.', type: 'A', ttl: 3600, data: ['192.0.2.1'] }),
      rrsetFromText({ owner: 'www.zone.test.', type: 'A', ttl: 3600, data: ['192.0.2.1'] }),
      rrsetFromText({ owner: 'shop.zone.test.', type: 'A', ttl: 3600, data: ['192.0.2.1'] }),
      rrsetFromText({ owner: 'shop.zone.test.', type: 'TXT', ttl: 3600, data: ['"x"'] }),
      rrsetFromText({ owner: 'zone.test.', type: 'MX', ttl: 3600, data: ['10 mx.post.test.'] }),
    ];
    const oldWeb = [{ ...sites(['192.0.2.1']), name: 'Old Web', aliasTarget: undefined }];
    const proposed = (apexAlias: boolean) =>
      proposeRulings(ZONE, found, { oldWeb, newDns: { ...sites([]), name: 'New DNS', aliasTarget: undefined, apexAlias }, newWeb: sites([]) });
    const aliases = (takes: boolean) => proposed(takes).flatMap((row) => (row.type === 'CNAME' ? [row.owner] : []));
    expect([aliases(true), aliases(false)]).toEqual([['zone.test.', 'www.zone.test.'], ['www.zone.test.']]);
    const stops = (takes: boolean, known = true) =>
      checkRulings(checkInput(ZONE, proposed(takes), { oldWeb, newWeb: sites([]), apexAlias: { host: 'New DNS', takes, known } })).flatMap((one) =>
        one.weight === 'stop' ? [`${one.code} ${one.owner}`] : [],
      );
    // Where text stands beside the name, no alias can: somebody has to decide.
    expect(stops(true)).toEqual(['leads-nowhere shop.zone.test.']);
    expect(stops(false)).toEqual(['leads-nowhere zone.test.', 'leads-nowhere shop.zone.test.']);
  });

  it('is stopped with what to do where nobody has said what the host makes of it', () => {
    const said = (known: boolean): string[] =>
      checkRulings(checkInput(ZONE, RULINGS, { apexAlias: { host: 'New DNS', takes: false, known } })).flatMap((one) =>
        one.code === 'alias-at-apex' ? [one.text] : [],
      );
    expect([said(true), said(false)]).toEqual([[expect.stringMatching(/nothing that takes its place/)], [expect.stringMatching(/say so at its page/)]]);
  });
});
