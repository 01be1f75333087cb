import { Name } from '@wanderon/core';
import { endsOutside, resolver } from './whereNamesLead';

describe('where hosts of pages lead', () => {
  const asked: string[] = [];
  const walker = {
    delegation: () => Promise.reject(new Error('not asked for here')),
    givenUp: new Set<string>(),
    addressesOf: (name: Name) => {
      asked.push(name.toString());
      return Promise.resolve(['192.0.2.9']);
    },
  };
  const zone = Name.parse('reed-bank.example.');
  const resolve = resolver(walker, (host) => (host.isAtOrBelow(zone) ? ['192.0.2.1'] : host));

  it('is known in the zone, and asked for once outside of it', async () => {
    expect(await resolve('www.reed-bank.example')).toEqual(['192.0.2.1']);
    expect(await Promise.all([resolve('edge.test'), resolve('EDGE.test'), resolve('edge.test.')])).toEqual([['192.0.2.9'], ['192.0.2.9'], ['192.0.2.9']]);
    expect(asked).toEqual(['edge.test.']);
  });

  it('is nowhere for what a hostile redirect takes for a host', async () => {
    for (const host of [`${'a'.repeat(70)}.test`, 'a..test', 'a.'.repeat(200)]) expect(await resolve(host)).toEqual([]);
    expect(asked).toEqual(['edge.test.']);
  });
});

describe('names outside the zone', () => {
  it('of which the way was too long are not said to have no address', async () => {
    const [near, far, gone] = ['mx.near.test.', 'mx.far.test.', 'mx.gone.test.'].map((name) => Name.parse(name)) as [Name, Name, Name];
    const walker = {
      delegation: () => Promise.reject(new Error('is not asked for')),
      addressesOf: (name: Name) => Promise.resolve(name.equals(near) ? ['192.0.2.9'] : []),
      givenUp: new Set([far.key]),
    };
    expect(await endsOutside(walker, [near, far, gone])).toEqual([
      { target: near, addresses: ['192.0.2.9'] },
      { target: gone, addresses: [] },
    ]);
  });
});
