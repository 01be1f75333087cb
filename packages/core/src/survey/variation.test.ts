import { parsePrefix } from '../dns/prefix';
import { RRset, rrsetFromText } from '../dns/record';
import { Source } from './evidence';
import { FrontRange, Sample, Variation, elsewhere, judgeSamples } from './variation';

const set = (type: string, ttl: number, ...data: string[]): RRset => rrsetFromText({ owner: 'www.reed-bank.example.', type, ttl, data });
const at = (server: string, seen: RRset | undefined): Sample => ({ server: `${server}.`, address: server === 'a.test' ? '192.0.2.1' : '192.0.2.2', seen });
const A = set('A', 60, '192.0.2.7', '192.0.2.8');
const FRONT = [{ host: 'Brackenfold', prefix: parsePrefix('203.0.113.128/27')! }];

const FROM: Source = { kind: 'transfer', server: 'a.test.', address: '192.0.2.1', serial: 7 };
const judge = (one: RRset, stored: boolean, samples: readonly Sample[], fronts: readonly FrontRange[]): Variation =>
  judgeSamples(one, one, stored ? FROM : undefined, samples, fronts);

describe('looking again', () => {
  it('is content with the same answer in any order', () => {
    const turned = set('A', 60, '192.0.2.8', '192.0.2.7');
    expect(judge(A, false, [at('a.test', A), at('a.test', turned), at('b.test', turned)], FRONT)).toEqual({
      varying: undefined,
      restless: false,
      fronted: undefined,
    });
    expect(judge(A, true, [at('a.test', turned)], FRONT)).toEqual({ varying: undefined, restless: false, fronted: undefined });
  });

  it('sees answers that rotate at one server, and servers that differ', () => {
    const other = set('A', 60, '192.0.2.9');
    expect(judge(A, false, [at('a.test', A), at('a.test', other)], []).varying).toMatch(
      /a\.test \(192\.0\.2\.1\) answers with other data .*192\.0\.2\.7 and 192\.0\.2\.8, then 192\.0\.2\.9/,
    );
    expect(judge(A, false, [at('a.test', A), at('b.test', other)], []).varying).toMatch(/servers differ: a\.test .* b\.test .*192\.0\.2\.9/);
    expect(judge(A, false, [at('a.test', A), at('b.test', undefined)], []).varying).toMatch(/nothing/);
  });

  it('takes a value for the host own where its address is known for that, its TTL runs down, or it is not what is stored', () => {
    expect(judge(set('A', 300, '203.0.113.130'), false, [], FRONT).fronted).toMatch(/203\.0\.113\.130 is an address of Brackenfold's own front/);
    expect(judge(A, false, [at('a.test', A), at('a.test', set('A', 53, '192.0.2.7', '192.0.2.8'))], []).fronted).toMatch(/from 60 to 53 s/);
    const alias = set('CNAME', 60, 'sites.saltmarsh.example.');
    expect(judge(alias, true, [at('a.test', undefined)], []).fronted).toMatch(/answers nothing, which is not what its transfer holds/);
    // Another TTL at another server is what two servers have, not a TTL that runs down.
    expect(judge(A, false, [at('a.test', A), at('b.test', set('A', 53, '192.0.2.7', '192.0.2.8'))], []).fronted).toBeUndefined();
    expect(judge(set('TXT', 60, 'x'), false, [at('a.test', set('TXT', 60, 'y'))], FRONT).fronted).toBeUndefined();
  });

  it('tells an answer that changes by itself from servers that differ', () => {
    const other = set('A', 60, '192.0.2.9');
    expect(judge(A, false, [at('a.test', A), at('a.test', other)], []).restless).toBe(true);
    expect(judge(A, false, [at('a.test', A), at('b.test', other)], []).restless).toBe(false);
  });

  it('does not take a server that is behind for one that makes answers', () => {
    const behind = judge(A, true, [at('a.test', A), at('b.test', set('A', 60, '192.0.2.1'))], []);
    expect([behind.fronted, behind.varying]).toEqual([undefined, expect.stringMatching(/servers differ/)]);
  });

  it('says where a transfer holds other data than everybody is answered', () => {
    const mail = set('MX', 60, '10 mail.reed-bank.example.');
    const asked = set('MX', 60, '10 mx.elsewhere.test.');
    expect(judge(mail, true, [at('a.test', asked), at('b.test', asked)], []).varying).toMatch(
      /a\.test .* answers 10 mx\.elsewhere\.test\., and the transfer from a\.test .* at serial 7 holds 10 mail\.reed-bank\.example\.: a view/,
    );
    expect(judge(mail, true, [at('a.test', undefined)], []).varying).toMatch(/answers nothing/);
    expect(judge(mail, true, [at('a.test', mail)], []).varying).toBeUndefined();
    // A cut hides the set: that nothing is answered is as it should be.
    expect(judgeSamples(mail, undefined, FROM, [at('a.test', undefined)], []).varying).toBeUndefined();
  });

  it('says what a server answers where nothing was found', () => {
    expect(elsewhere(15, undefined, [at('a.test', undefined), at('b.test', set('MX', 60, '10 mx.test.'))])).toBe('b.test (192.0.2.2) answers 10 mx.test.');
    expect(elsewhere(15, undefined, [at('a.test', undefined)])).toBeUndefined();
    const wild = set('TXT', 60, 'any');
    expect(elsewhere(16, wild, [at('b.test', wild)])).toBeUndefined();
  });

  it('takes what somebody edited meanwhile for no answer that the host makes', () => {
    const samples = [at('a.test', set('A', 60, '192.0.2.9'))];
    expect([false, true].map((edited) => judgeSamples(A, A, FROM, samples, [], edited).fronted !== undefined)).toEqual([true, false]);
  });
});
