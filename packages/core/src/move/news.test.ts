import { NEW, OLD, answers, decision, legOf, plan, published, rows } from '../testing/moving';
import { newsOf } from './news';

const parent = (...seen: Parameters<typeof rows<ReturnType<typeof published>>>[2][]) => rows('a.nic.test.', '192.0.2.53', ...seen);
const zones = plan.oldServers.flatMap(({ server, address }) => rows(server, address, [0, 900, answers(3600)]));
const before = { now: 100, parent: parent([0, 100, published(OLD)]), zones };
const after = { now: 160, parent: parent([0, 100, published(OLD)], [160, 160, published(NEW)]), zones };

describe('news for the trail', () => {
  it('is nothing where nothing became otherwise', () => {
    expect(newsOf(legOf(before), legOf({ ...before, now: 160 }))).toEqual([]);
  });

  it('tells of a switch that nobody announced, and what was not yet true', () => {
    const news = newsOf(legOf(before), legOf(after));
    expect(news.find((one) => one.kind === 'switch')!.text).toMatch(/before everything was ready: ./);
    expect(news).toContainEqual({ kind: 'step', text: 'Change the nameservers: done.', about: 'Change the nameservers' });
  });

  it('does not call a switch unannounced that somebody submitted', () => {
    const decisions = [decision('submitted', '', null, 90)];
    expect(newsOf(legOf({ ...before, decisions }), legOf({ ...after, decisions })).filter((one) => one.kind === 'switch')).toEqual([]);
  });

  it('tells that a step is no longer so', () => {
    const relapsed = { now: 220, parent: parent([0, 100, published(OLD)], [160, 160, published(NEW)], [220, 220, published(OLD)]), zones };
    expect(newsOf(legOf(after), legOf(relapsed)).map((one) => one.text)).toContainEqual(expect.stringMatching(/^Change the nameservers: no longer so\. ./));
  });
});
