import { Name } from '../dns/name';
import { RRset, rrsetFromText, rrsetKey } from '../dns/record';
import { driftBetween } from './drift';

const ZONE = Name.parse('reed-bank.example.');
const set = (owner: string, type: string, ttl: number, ...data: string[]): RRset => rrsetFromText({ owner: `${owner}reed-bank.example.`, type, ttl, data });
const soa = (serial: number): RRset => set('', 'SOA', 60, `ns1.test. h.test. ${serial} 2 3 4 5`);
const survey = (sets: RRset[], grade: 'whole' | 'partial' = 'whole'): Parameters<typeof driftBetween>[1] => ({ sets, grade, varying: new Set() });

describe('drift', () => {
  it('is none between a survey and itself', () => {
    const one = survey([soa(7), set('www.', 'A', 60, '192.0.2.1')]);
    expect(driftBetween(ZONE, one, one)).toEqual({ changes: [], serials: { before: 7, after: 7 }, remarks: ['The serial is still 7.'] });
  });

  it('tells what was added, is gone and changed, and who may have done it', () => {
    const before = [soa(7), set('www.', 'A', 60, '192.0.2.1'), set('old.', 'A', 60, '192.0.2.1'), set('mail.', 'A', 60, '192.0.2.1')];
    const after = [soa(8), set('www.', 'A', 60, '192.0.2.2'), set('new.', 'A', 60, '192.0.2.1'), set('mail.', 'A', 300, '192.0.2.1')];
    const drift = driftBetween(ZONE, survey(before), survey(after));
    expect(drift.changes.map(({ kind, before: a, after: b }) => `${(a ?? b)!.owner.relativeTo(ZONE)} ${kind}`)).toEqual([
      'mail TTL changed',
      'new added',
      'old gone',
      'www changed',
    ]);
    expect(drift.remarks).toEqual(['The serial went from 7 to 8: somebody with access to the zone saved a change, or its host did.']);
    expect(driftBetween(ZONE, survey(before), survey([soa(7), ...after.slice(1)])).remarks[0]).toMatch(/still 7: nobody saved a change/);
  });

  it('says so where a survey that is not whole may be the reason, or answers that vary', () => {
    const a = [soa(7), set('old.', 'A', 60, '192.0.2.1')];
    const b = [soa(7), set('new.', 'A', 60, '192.0.2.1')];
    const key = rrsetKey(b[1]!.owner, b[1]!.type);
    const { remarks } = driftBetween(ZONE, survey(a, 'partial'), { ...survey(b, 'partial'), varying: new Set([key]) });
    expect(remarks.join(' ')).toMatch(/may have stood there then.*may only not have been found again.*1 of the differences is at sets whose answers vary/);
  });
});
