import { NetError } from '@wanderon/net';
import knex from 'knex';
import { isDatabaseAway } from './away';

const coded = (code: string, message = 'x'): Error => Object.assign(new Error(message), { code });

describe('a database that is away', () => {
  it.each(['57P01', '57P02', '57P03', '08006', '08P01', '53300'])('is told by %s', (code) => expect(isDatabaseAway(coded(code))).toBe(true));
  it.each(['23505', '22P02', '57014', '533'])('is not told by %s', (code) => expect(isDatabaseAway(coded(code))).toBe(false));
  it('is told by the driver’s own words, and not by those of other servers', () => {
    expect(isDatabaseAway(new Error('Connection terminated unexpectedly'))).toBe(true);
    expect(isDatabaseAway(new Error('select "version" from "moves" where "id" = $1 - Connection terminated unexpectedly'))).toBe(true);
    expect(isDatabaseAway(new Error('select $1 - Client was closed and is not queryable'))).toBe(true);
    expect(isDatabaseAway(new NetError('unreachable', 'connect ECONNREFUSED 192.0.2.1:53'))).toBe(false);
    expect([isDatabaseAway('Connection terminated'), isDatabaseAway(undefined)]).toEqual([false, false]);
  });
  it('is told where nobody listens at its address', async () => {
    const database = knex({ client: 'pg', connection: { host: '127.0.0.1', port: 1 }, pool: { min: 0, max: 1 }, acquireConnectionTimeout: 500 });
    const error: unknown = await database.raw('select 1').catch((thrown: unknown) => thrown);
    await database.destroy();
    expect([isDatabaseAway(error), String(error)]).toEqual([true, String(error)]);
  });
});
