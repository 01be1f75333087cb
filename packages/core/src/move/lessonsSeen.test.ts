import { decision, legOf, plan, planned, rows } from '../testing/moving';
import { lessonsSeen } from './lessonsSeen';
import { setKey } from './plan';
import { AnswerSight } from './seen';

const byHand = { newHost: { ...plan.newHost!, keyed: false, fronts: [] } };
const MX = setKey('zone.test.', 'MX');
const MAIL = setKey('mail.zone.test.', 'A');
const WWW = setKey('www.zone.test.', 'A');

function keys(sets: Record<string, AnswerSight>, keyed = false): string[] {
  const zones = plan.newServers.flatMap((one) => rows(one.server, one.address, [0, 990, planned(sets)]));
  const leg = legOf({ now: 1000, zones, decisions: [decision('hosts')], plan: keyed ? {} : byHand });
  return lessonsSeen(leg, null).map(({ key }) => key);
}
const all = (ttl: number): Record<string, AnswerSight> => ({
  [WWW]: { ttl, data: ['192.0.2.2'] },
  [MX]: { ttl, data: ['10 mail.zone.test.'] },
  [MAIL]: { ttl, data: ['192.0.2.25'] },
});

describe('what the servers of a panel teach', () => {
  it('is what a slip says of the panel, where a person types there', () => {
    const appended = { [MX]: { ttl: 300, data: ['10 mail.zone.test.zone.test.'] } };
    expect(keys(appended)).toEqual(['targetDot']);
    expect(keys(appended, true)).toEqual([]);
  });

  it('is a TTL that all of it has, and never one that somebody may have raised', () => {
    expect(keys(all(300))).toEqual([]);
    expect(keys(all(900))).toEqual(['ttls']);
    // The lasting TTLs of the plan: they were typed so, or raised in the end.
    expect(keys(all(3600))).toEqual([]);
  });
});
