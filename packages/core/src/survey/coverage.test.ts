import { AuthorityAnswer, transferCoverage } from './coverage';

const authority = (server: string, more: Partial<AuthorityAnswer>): AuthorityAnswer => ({
  server,
  address: '192.0.2.1',
  authoritative: true,
  serial: 5,
  transferred: false,
  problem: undefined,
  ...more,
});

describe('coverage', () => {
  it('is whole where a transfer was had and every other authority serves the same serial', () => {
    expect(transferCoverage([authority('a', { transferred: true }), authority('b', {})]).grade).toBe('whole');
  });
  it('is likely whole where another authority is silent', () => {
    expect(transferCoverage([authority('a', { transferred: true }), authority('b', { serial: undefined, problem: 'no answer' })]).grade).toBe('likely whole');
  });
  it('is partial where another authority serves another serial, and says which', () => {
    const coverage = transferCoverage([authority('a', { transferred: true }), authority('b', { serial: 6 })]);
    expect(coverage.grade).toBe('partial');
    expect(coverage.reasons.join(' ')).toContain('b (192.0.2.1) serves serial 6');
  });
  it('is partial without a transfer', () => expect(transferCoverage([authority('a', {})]).grade).toBe('partial'));
});
