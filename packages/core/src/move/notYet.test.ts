import { PageChange } from '../watch/pageChanges';
import { HostKnowledge } from '../rebuild/host';
import { NEW, OLD, WWW, answers, decision, legOf, look, planned, published, rows } from '../testing/moving';
import { Leg } from './leg';
import { whyNotYet } from './notYet';

const web: HostKnowledge = {
  ...{ name: 'Reed Sites', nameservers: [], addresses: ['192.0.2.2'], aliasTarget: undefined, requires: [] },
  tasks: [{ id: 'c', title: 'Wait for its check', by: 'host', when: 'after', waits: false, redirects: false, note: 'It is late by 15 minutes.' }],
};
const broken = (text: string, ...pages: string[]): PageChange => ({ weight: 'broken', text, pages });
const SITE = 'https://zone.test/';

/** Switched at 4900 and seen at 5000; both servers of each side say the same. */
function at(now: number, more: Partial<Parameters<typeof legOf>[0]> = {}): Leg {
  return legOf({
    now,
    parent: rows('a.nic.test.', '192.0.2.53', [0, 4900, published(OLD)], [5000, now, published(NEW)]),
    zones: [
      ...OLD.flatMap((server, index) => rows(server, `198.51.100.${index + 1}`, [0, 1000, answers(3600)], [1060, now, answers(300, {}, NEW)])),
      ...NEW.flatMap((server, index) => rows(server, `203.0.113.${index + 1}`, [1000, now, planned()])),
    ],
    decisions: [decision('approve', '', { lowerTo: 300 }), decision('push'), decision('submitted', '', null, 4900)],
    plan: { newWeb: web },
    seen: { website: { at: now, faults: [], answers: [], redirects: [] }, watchers: 1, lookouts: [look('Heron', 'new', now)] },
    ...more,
  });
}
const brief = (leg: Leg, pages: PageChange[] = []): unknown[] => whyNotYet(leg, pages).map(({ place, act }) => `${place}: ${act}`);

describe('why the new is not seen yet', () => {
  it('is nobody’s question before the change', () => {
    expect(brief(at(4800, { parent: rows('a.nic.test.', '192.0.2.53', [0, 4800, published(OLD)]), decisions: [] }))).toEqual([]);
  });

  it('lies at the registrar while the parent does not publish it: it comes, or something else was typed', () => {
    const parent = (names: string[]): Parameters<typeof legOf>[0]['parent'] =>
      rows('a.nic.test.', '192.0.2.53', [0, 4900, published(OLD)], [4960, 5000, published(names)]);
    expect(brief(at(5000, { parent: parent(OLD) }))).toEqual(['registrar: wait']);
    const third = at(5000, { parent: parent(['ns1.third.test.', 'ns2.third.test.']) });
    expect(brief(third)).toEqual(['registrar: do']);
    expect(whyNotYet(third, [])[0]!.text).toMatch(/neither old nor new/);
  });

  it('lies at the authorities where they answer otherwise: no waiting sets that right, and nothing is said of caches', () => {
    const wrong = at(6000, {
      zones: NEW.flatMap((server, index) => rows(server, `203.0.113.${index + 1}`, [1000, 6000, planned({ [WWW]: { ttl: 300, data: ['192.0.2.9'] } })])),
    });
    expect(brief(wrong)).toEqual(['authorities: do']);
    expect(whyNotYet(wrong, [])[0]!.text).toContain('do not serve www.zone.test A as planned');
  });

  it('is remembered until a stated time where every server is right', () => {
    const [reason, check] = whyNotYet(at(5060), []);
    expect([reason!.place, reason!.act, reason!.until]).toEqual(['caches', 'nothing', at(5060).times.last.at]);
    expect(reason!.text).not.toContain('lookout');
    // The host's own check says what it says for a while.
    expect([check!.place, check!.text]).toEqual(['own check', 'Wait for its check. It is late by 15 minutes.']);
    const old = at(5060, { seen: { watchers: 1, lookouts: [look('Heron', 'old', 5060)], website: undefined } });
    expect(whyNotYet(old, [])[0]!.text).toContain('1 resolver still gives an old one');
  });

  it('lies at the web host, each kind of fault once, and a certificate is waited for within the hour only', () => {
    const pages = [
      broken('answers 404, before 200', SITE, 'http://zone.test/'),
      broken('answers 410', 'x'),
      broken('a browser refuses the certificate: it is for other names', SITE),
    ];
    expect(brief(at(5060), pages)).toEqual(['web host: do', 'certificate: wait']);
    expect(whyNotYet(at(5060), pages)[0]!.text).toBe(
      `Reed Sites answers that there is nothing: the domain may not be added there, or nothing published. ${SITE} answers 404, before 200, and 1 more.`,
    );
    expect(brief(at(5000 + 3601), pages.slice(2))[0]).toBe('certificate: do');
    expect(brief(at(5060), [broken('does not answer: it has no address', SITE)])).toEqual(['web host: do']);
    // A server that fails says nothing of whether it knows the site.
    expect(whyNotYet(at(5060), [broken('answers 503, before 200', SITE)])[0]!.text).toBe(
      `The website at Reed Sites is not as it should be. ${SITE} answers 503, before 200.`,
    );
    expect(brief(at(5060), [{ weight: 'otherwise', text: 'answers 404, before 500', pages: [SITE] }])).toEqual(['caches: nothing', 'own check: nothing']);
  });

  it('is one’s own browser where nothing else is left, and a lookout that goes on saying old where every bound has passed', () => {
    const late = 20_000;
    expect(brief(at(late, { plan: { newWeb: { ...web, tasks: [] } } }))).toEqual(['browser: nothing']);
    const stubborn = at(late, { seen: { watchers: 1, lookouts: [look('Heron', 'old', late)], website: { at: late, faults: [], answers: [], redirects: [] } } });
    expect(brief(stubborn)).toEqual(['caches: wait', 'own check: nothing', 'browser: nothing']);
  });
});
