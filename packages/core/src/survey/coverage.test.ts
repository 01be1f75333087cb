import { AuthorityAnswer, Coverage, Compared, Means, coverageOf as claimed } from './coverage';

const authority = (server: string, more: Partial<AuthorityAnswer>): AuthorityAnswer => ({
  server,
  address: '192.0.2.1',
  authoritative: true,
  serial: 5,
  transferred: false,
  problem: undefined,
  responded: true,
  tcpProblem: undefined,
  nameservers: [],
  signed: false,
  ...more,
});

const coverageOf = (authorities: AuthorityAnswer[], means: Means, compared: Partial<Compared> = {}): Coverage =>
  claimed(authorities, means, { varying: 0, fronted: 0, left: 0, unasked: 0, against: [], ...compared });
const TRANSFER: Means = { kind: 'transfer', differing: 0 };
const walk = (more: object): Means => ({ kind: 'walk', address: '192.0.2.1', serial: 5, names: 9, whole: true, problems: [], ...more });

describe('coverage', () => {
  it('is whole where a transfer was had and every other authority serves the same serial', () => {
    expect(coverageOf([authority('a', { transferred: true }), authority('b', {})], TRANSFER).grade).toBe('whole');
  });
  it('is likely whole where another authority is silent', () => {
    expect(coverageOf([authority('a', { transferred: true }), authority('b', { serial: undefined, problem: 'no answer' })], TRANSFER).grade).toBe(
      'likely whole',
    );
  });
  it('is partial where another authority serves another serial, and says which', () => {
    const coverage = coverageOf([authority('a', { transferred: true }), authority('b', { serial: 6 })], TRANSFER);
    expect(coverage.grade).toBe('partial');
    expect(coverage.reasons.join(' ')).toContain('b (192.0.2.1) serves serial 6');
  });
  it('is partial without a transfer', () => expect(coverageOf([authority('a', {})], TRANSFER).grade).toBe('partial'));
  it('of a walk is what the walk says of itself, and no more than the other authorities allow', () => {
    const two = [authority('a', {}), authority('b', { address: '192.0.2.2' })];
    expect(coverageOf(two, walk({})).grade).toBe('whole');
    expect(coverageOf(two, walk({ whole: false, problems: ['The chain broke.'] }))).toMatchObject({
      grade: 'partial',
      reasons: [expect.anything(), 'The chain broke.'],
    });
    expect(coverageOf([two[0]!, authority('b', { address: '192.0.2.2', serial: 4 })], walk({})).grade).toBe('partial');
    expect(coverageOf([two[0]!, authority('b', { address: '192.0.2.2', serial: undefined })], walk({})).grade).toBe('likely whole');
  });
  it('of questions is partial, however many were asked', () => {
    const means: Means = { kind: 'questions', address: '192.0.2.1', asked: 900, remarks: ['A remark.'], file: undefined };
    const { grade, reasons } = coverageOf([authority('a', {})], means);
    expect(coverageOf([authority('a', {})], { ...means, range: true }).reasons[0]).toMatch(/neither addresses of the range nor named by others/);
    expect(grade).toBe('partial');
    expect(reasons.join(' ')).toMatch(/900 questions were put to a.*A remark\..*would close/);
  });

  it('is partial where servers give other zones at one serial', () => {
    const { grade, reasons } = coverageOf([authority('a', { transferred: true })], { kind: 'transfer', differing: 2 });
    expect([grade, reasons.join(' ')]).toEqual(['partial', expect.stringMatching(/2 record sets differ between servers/)]);
  });

  it('is likely whole with a file whose serial is served, and that says nothing else than the servers', () => {
    const asked: Means = { kind: 'questions', address: '192.0.2.1', asked: 9, remarks: [], file: { serial: 5, differing: 0 } };
    expect(coverageOf([authority('a', {})], asked).grade).toBe('likely whole');
    expect(coverageOf([authority('a', {})], { ...asked, file: { serial: 4, differing: 0 } }).grade).toBe('partial');
    expect(coverageOf([authority('a', {})], { ...asked, file: { serial: 5, differing: 1 } }).grade).toBe('partial');
    expect(coverageOf([authority('a', {}), authority('b', { address: '192.0.2.2', serial: 6 })], asked).grade).toBe('partial');
  });

  const file: Means = { kind: 'questions', address: '192.0.2.1', asked: 9, remarks: [], file: { serial: 5, differing: 0 } };
  it.each([
    ['a transfer', TRANSFER, 'whole'],
    ['a walk', walk({}), 'whole'],
    ['a file', file, 'likely whole'],
  ] as const)('of %s is partial where answers differ, vary or are made, or something else speaks against it', (_, means, grade) => {
    const all = [authority('a', { transferred: true })];
    expect(coverageOf(all, means).grade).toBe(grade);
    for (const compared of [{ varying: 1 }, { fronted: 1 }, { against: ['A view.'] }]) expect(coverageOf(all, means, compared).grade).toBe('partial');
    expect(coverageOf(all, means, { varying: 2, against: ['A view.'] }).reasons).toEqual(
      expect.arrayContaining(['A view.', '2 record sets are not answered alike: both answers stand beside each.']),
    );
  });

  it('is not whole where names were not asked whether a zone of their own begins there', () => {
    const { grade, reasons } = coverageOf([authority('a', { transferred: true })], TRANSFER, { unasked: 1 });
    expect([grade, reasons[1]]).toEqual(['likely whole', '1 name was not asked whether a zone of its own begins there.']);
  });

  it('is not whole where sets were too many to be held against every server', () => {
    const { grade, reasons } = coverageOf([authority('a', { transferred: true })], TRANSFER, { left: 3 });
    expect([grade, reasons[1]]).toEqual(['likely whole', '3 record sets were not compared with what every nameserver answers.']);
  });
});
