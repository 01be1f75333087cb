import { legOf, plan, ruling } from '../../testing/moving';
import { Ruling } from '../../rebuild/ruling';
import { Leg } from '../leg';
import { website } from './website';

const WEB = { name: 'New Web', nameservers: [], addresses: ['203.0.113.80'], aliasTarget: undefined, requires: [] };

/** A leg whose website was found at 192.0.2.1, with the look at its pages where the plan leads. */
function leg(planned: string, answers: readonly { page: string; addresses: string[] }[] | undefined): Leg {
  const rulings = [ruling('www.zone.test.', 'A', planned === '192.0.2.1' ? 'carry' : 'repoint', 3600, ['192.0.2.1'], [planned])];
  const look = answers && { at: 100, faults: [], answers, redirects: [] };
  return legOf({ now: 100, plan: { ...plan, newWeb: WEB, rulings }, seen: look ? { website: look } : {} });
}

const page = (...addresses: string[]): { page: string; addresses: string[] } => ({ page: 'https://www.zone.test/', addresses });

describe('the new web host answers for the domain', () => {
  it.each([
    ['where it does, at its own address', '203.0.113.80', [page('203.0.113.80')], true, /^New Web answers/],
    ['not where no planned record leads there', '192.0.2.1', [page('192.0.2.1')], false, /No record of the plan leads to New Web/],
    ['not where it sends visitors back to the old place', '203.0.113.80', [page('203.0.113.80', '192.0.2.1')], false, /the old place still answers/],
    ['not where nothing answers, as before', '203.0.113.80', [], false, /No page of what leads to New Web answers/],
    [
      'not by a page of a name that stays where it is',
      '203.0.113.80',
      [{ page: 'https://zone.test/', addresses: ['192.0.2.1'] }],
      false,
      /No page of what leads/,
    ],
    ['not where nobody looked', '203.0.113.80', undefined, false, /not looked at yet/],
  ])('is said %s', (_what, planned, answers, holds, text) => {
    const line = website(leg(planned, answers))!;
    expect([line.holds, line.waivable || holds]).toEqual([holds, true]);
    expect(line.text).toMatch(text);
  });

  it('is not said while one family, or one address of several, still leads to the old place', () => {
    const rows = (...more: Ruling[]): Leg =>
      legOf({
        now: 100,
        plan: { ...plan, newWeb: WEB, rulings: [ruling('www.zone.test.', 'A', 'repoint', 3600, ['192.0.2.1'], ['203.0.113.80']), ...more] },
        seen: { website: { at: 100, faults: [], answers: [page('203.0.113.80')], redirects: [] } },
      });
    const family = website(rows(ruling('www.zone.test.', 'AAAA', 'carry', 3600, ['2001:db8::1'], ['2001:db8::1'])))!;
    expect([family.holds, family.text]).toEqual([false, 'By the plan some visitors of www.zone.test (2001:db8::1) are still led to the old place.']);
    const apex = ruling('zone.test.', 'A', 'repoint', 3600, ['192.0.2.1'], ['203.0.113.80', '192.0.2.1']);
    expect(website(rows(apex))!.text).toBe('By the plan some visitors of zone.test (192.0.2.1) are still led to the old place.');
    // Something else at the old place is no visitor of the website.
    expect(website(rows(ruling('mail.zone.test.', 'A', 'carry', 3600, ['192.0.2.1'], ['192.0.2.1'])))!.holds).toBe(true);
  });

  it('what was let pass for one reason is not let pass for another', () => {
    const facts = [leg('192.0.2.1', undefined), leg('203.0.113.80', []), leg('203.0.113.80', [page('192.0.2.1')])].map((one) => website(one)!.about.join());
    expect(new Set(facts).size).toBe(3);
  });
});
