import { Client } from 'pg';
import { ApiError, until } from '../../../command/src/api';
import { Driver } from '../support/drive';
import { clusterAddress } from '../support/cluster';
import { World, openWorld } from '../support/world';

/** The database cuts every connection and takes no new ones for a while, as when it is restarted or moved. */
describe('a database that goes away and comes back', () => {
  let world: World;
  let outside: Client;
  let name: string;

  beforeAll(async () => {
    world = await openWorld({ rate: 60 });
    world.server.mayFail = true;
    outside = new Client({ connectionString: clusterAddress() });
    name = new URL(world.server.database).pathname.slice(1);
    await outside.connect();
  });
  afterAll(async () => {
    await outside.end();
    await world.close();
  });

  it('leaves the server alive; moves go on, and pages are told again', async () => {
    await (await Driver.begin(world.api, 'canoe-yard.example')).done('survey');
    const refused = (): number =>
      world.server.said.filter((line) => line.includes('"context":"database"') && line.includes('is not currently accepting')).length;
    await outside.query(`alter database ${name} allow_connections false`);
    await outside.query(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}'`);
    // Each of the two standing connections was refused more than once.
    await until('connections were refused', () => Promise.resolve(refused() >= 4 || undefined));
    await outside.query(`alter database ${name} allow_connections true`);
    const standing = async (): Promise<{ alive: number; listening: number }> => {
      const { rows } = await outside.query<{ alive: number; listening: number }>(
        `select (select count(*)::int from pg_locks join pg_database on pg_database.oid = database where datname = '${name}' and locktype = 'advisory' and classid = 9009 and granted) as alive,
                (select count(*)::int from pg_stat_activity where datname = '${name}' and query like 'listen %') as listening`,
      );
      return rows[0]!;
    };
    await until('both standing connections are there again', async () => {
      const { alive, listening } = await standing();
      return (alive > 0 && listening > 0) || undefined;
    });
    await (await Driver.begin(world.api, 'allotment-society.example')).done('survey');
    expect(await standing()).toEqual({ alive: 1, listening: 1 });
  });

  it('leaves the server alive where the end of a job could not be written', async () => {
    const driver = await Driver.begin(world.api, 'seed-library.example');
    const locking = new Client({ connectionString: world.server.database });
    await locking.connect();
    try {
      const own = (await locking.query<{ pid: number }>('select pg_backend_pid() as pid')).rows[0]!.pid;
      // The survey is held up at its commit until its job is locked: it cannot end too early for us.
      await locking.query('begin');
      await locking.query('select id from moves where id = $1 for no key update', [driver.id]);
      await until('the survey is in hand', async () => {
        const { rows } = await locking.query(`select 1 from claims where move_id = $1 and work = 'survey'`, [driver.id]);
        return rows.length > 0 || undefined;
      });
      const jobs = new Client({ connectionString: world.server.database });
      await jobs.connect();
      try {
        await jobs.query('begin');
        // Its row alone: a lock of the table holds up whoever asks for a job too, and nobody is left to write the end of this one.
        const { rowCount } = await jobs.query(`select id from jobs.job where name = 'survey' and state = 'active' for update`);
        expect(rowCount).toBe(1);
        const ownJobs = (await jobs.query<{ pid: number }>('select pg_backend_pid() as pid')).rows[0]!.pid;
        await locking.query('rollback');
        await until('a job that is done waits to be written', async () => {
          const { rows } = await outside.query(
            `select 1 from pg_stat_activity where datname = '${name}' and wait_event_type = 'Lock' and query like '%completed_on = now()%'`,
          );
          return rows.length > 0 || undefined;
        });
        await outside.query(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}' and pid <> all($1)`, [[own, ownJobs]]);
      } finally {
        await jobs.end();
      }
    } finally {
      await locking.end();
    }
    await driver.done('survey');
  });

  it('is said to be away, and is no error of ours, to whoever asks while connections are cut', async () => {
    const { id } = await Driver.begin(world.api, 'lighthouse-museum.example');
    const refused: number[] = [];
    let asking = 8;
    const asks = async (): Promise<void> => {
      for (let round = 0; round < 4; round++)
        for (const path of [`/api/moves/${id}`, '/api/moves', '/api/hosts'])
          await world.api.call('GET', path).catch((error: unknown) => {
            if (!(error instanceof ApiError)) throw error;
            refused.push(error.status);
          });
      asking--;
    };
    const cuts = async (): Promise<void> => {
      while (asking > 0) await outside.query(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}'`);
    };
    await Promise.all([cuts(), ...Array.from({ length: asking }, asks)]);
    expect([...new Set(refused)]).toEqual([503]);
  });

  it('keeps every name that is given at the same time', async () => {
    const driver = await Driver.begin(world.api, 'gull-radio.example');
    await driver.done('survey');
    const leg = await driver.leg();
    const names = Array.from({ length: 12 }, (_, index) => `given-${index}`);
    await Promise.all(names.map((name) => world.api.call('POST', `${leg}/hints/name`, { owner: 'gull-radio.example.', text: 'a name is missing', name })));
    const address = new Client({ connectionString: world.server.database });
    await address.connect();
    const { rows } = await address.query<{ names: string[] }>('select names from in_hand order by id desc limit 1');
    await address.end();
    expect([...rows[0]!.names].sort()).toEqual(names.map((name) => `${name}.gull-radio.example.`).sort());
  });
});
