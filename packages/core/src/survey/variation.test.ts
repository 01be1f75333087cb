import { parsePrefix } from '../dns/prefix';
import { RRset, rrsetFromText } from '../dns/record';
import { Sample, judgeSamples } from './variation';

const set = (type: string, ttl: number, ...data: string[]): RRset => rrsetFromText({ owner: 'www.reed-bank.example.', type, ttl, data });
const at = (server: string, seen: RRset | undefined): Sample => ({ server: `${server}.`, address: server === 'a.test' ? '192.0.2.1' : '192.0.2.2', seen });
const A = set('A', 60, '192.0.2.7', '192.0.2.8');
const FRONT = [{ host: 'Brackenfold', prefix: parsePrefix('203.0.113.128/27')! }];

describe('looking again', () => {
  it('is content with the same answer in any order', () => {
    const turned = set('A', 60, '192.0.2.8', '192.0.2.7');
    expect(judgeSamples(A, false, [at('a.test', A), at('a.test', turned), at('b.test', turned)], FRONT)).toEqual({ varying: undefined, fronted: undefined });
    expect(judgeSamples(A, true, [at('a.test', turned)], FRONT)).toEqual({ varying: undefined, fronted: undefined });
  });

  it('sees answers that rotate at one server, and servers that differ', () => {
    const other = set('A', 60, '192.0.2.9');
    expect(judgeSamples(A, false, [at('a.test', A), at('a.test', other)], []).varying).toMatch(
      /a\.test \(192\.0\.2\.1\) answers with other data .*192\.0\.2\.7 and 192\.0\.2\.8, then 192\.0\.2\.9/,
    );
    expect(judgeSamples(A, false, [at('a.test', A), at('b.test', other)], []).varying).toMatch(/servers differ: a\.test .* b\.test .*192\.0\.2\.9/);
    expect(judgeSamples(A, false, [at('a.test', A), at('b.test', undefined)], []).varying).toMatch(/nothing/);
  });

  it('takes a value for the host own where its address is known for that, its TTL runs down, or it is not what is stored', () => {
    expect(judgeSamples(set('A', 300, '203.0.113.130'), false, [], FRONT).fronted).toMatch(/203\.0\.113\.130 is an address of Brackenfold's own front/);
    expect(judgeSamples(A, false, [at('a.test', A), at('a.test', set('A', 53, '192.0.2.7', '192.0.2.8'))], []).fronted).toMatch(/from 60 to 53 s/);
    const alias = set('CNAME', 60, 'sites.saltmarsh.example.');
    expect(judgeSamples(alias, true, [at('a.test', undefined)], []).fronted).toMatch(/answers nothing, which is not what it stores/);
    // Another TTL at another server is what two servers have, not a TTL that runs down.
    expect(judgeSamples(A, false, [at('a.test', A), at('b.test', set('A', 53, '192.0.2.7', '192.0.2.8'))], []).fronted).toBeUndefined();
    expect(judgeSamples(set('TXT', 60, 'x'), false, [at('a.test', set('TXT', 60, 'y'))], FRONT).fronted).toBeUndefined();
  });
});
