import { Client } from 'pg';
import { SweepSummary, SweepView } from '@wanderon/contract';
import { Lab, ScenarioDomain } from '@wanderon/lab';
import { Api, until } from '../../../command/src/api';
import { fillDemo } from '../../../command/src/demoData';
import { ServerUnderTest } from '../support/world';

/** A thousand take minutes: `DOMAINS=1000` asks for them. */
const COUNT = Number(process.env['DOMAINS'] ?? 350);
const many: ScenarioDomain[] = Array.from({ length: COUNT }, (_, i) => ({
  zone: `client-${i}.example.`,
  client: `Client ${i}`,
  extra: i % 3 === 0 ? [`n${i} A 192.0.2.${i % 250}`] : [],
  // A few at a host that gives no transfer.
  ...(i % 100 === 7 ? { at: 'pebbledock' } : {}),
}));
const DOMAINS = [...many.map(({ zone }) => zone.slice(0, -1)), 'nobody-has-this.example'];

describe(`a sweep of ${COUNT} domains`, () => {
  let lab: Lab;
  let server: ServerUnderTest;
  let api: Api;
  beforeAll(async () => {
    lab = await Lab.open({ more: many });
    server = await new ServerUnderTest({ WANDERON_LAB: lab.address, WANDERON_QUESTIONS_PER_SECOND: '100000' }).open();
    await fillDemo(server.address, lab.address, { bare: true });
    api = await server.signIn();
  }, 120_000);
  afterAll(async () => {
    await server.close();
    lab.close();
  });

  const look = (id: string): Promise<SweepView> => api.call<SweepView>('GET', `/api/sweeps/${id}`);
  const act = (id: string, action: string): Promise<SweepView> => api.call<SweepView>('POST', `/api/sweeps/${id}`, { action });
  /** The counts alone: all the rows again and again would be most of the work. */
  const counts = async (id: string): Promise<SweepSummary> =>
    (await api.call<{ sweeps: SweepSummary[] }>('GET', '/api/sweeps')).sweeps.find((sweep) => sweep.id === id)!;
  const finished = async (id: string): Promise<number> => {
    const { done, failed, cancelled } = await counts(id);
    return done + failed + cancelled;
  };

  it('is paused, goes on, outlives a killed server, and surveys each domain exactly once', async () => {
    const { id } = await api.call<SweepView>('POST', '/api/sweeps', { name: 'All of them', text: DOMAINS.join('\n') });
    await until('some are surveyed', async () => (await finished(id)) > 50, 120);
    await act(id, 'pause');
    // What is in hand is finished; then nothing moves.
    const paused = await until('it rests', async () => {
      const first = await finished(id);
      return (await idle(server)) && first === (await finished(id)) ? first : undefined;
    });
    await expect(act(id, 'pause')).rejects.toThrow(/not under way/);
    await act(id, 'resume');
    await until('more are surveyed', async () => (await finished(id)) > paused + 100, 120);
    await server.kill();
    await server.start();
    const before = await finished(id);
    expect(before).toBeLessThan(DOMAINS.length);
    await until('it is done', async () => (await counts(id)).state === 'done', 400);
    const sweep = await look(id);
    expect([sweep.done, sweep.failed, sweep.waiting]).toEqual([DOMAINS.length, 0, 0]);
    expect(sweep.rows.map((row) => row.domain)).toEqual(DOMAINS);
    const { rows } = await query(server, 'select d.name, count(*)::int as times from surveys s join domains d on d.id = s.domain_id group by d.name');
    expect(rows).toHaveLength(DOMAINS.length);
    expect(rows.filter((row) => row['times'] !== 1)).toEqual([]);
    const grades = new Map(sweep.rows.map((row) => [row.domain, row.gist!.grade]));
    expect([grades.get('client-0.example'), grades.get('client-7.example')]).toEqual(['whole', 'partial']);
    const absent = sweep.rows.at(-1)!.gist!;
    expect([absent.stops, absent.sets]).toEqual([1, 0]);
    expect(absent.said[0]).toMatch(/is not delegated/);
    const one = await api.call<{ domain: string; survey: { sets: unknown[] } }>('GET', `/api/surveys/${sweep.rows[0]!.surveyId!}`);
    expect([one.domain, one.survey.sets.length]).toEqual(['client-0.example', sweep.rows[0]!.gist!.sets]);
  }, 600_000);

  it('is cancelled, and surveys what is missing when asked to', async () => {
    const { id } = await api.call<SweepView>('POST', '/api/sweeps', { name: '', text: DOMAINS.slice(0, 60).join('\n') });
    expect((await look(id)).name).toBe('client-0.example and 59 more');
    await until('some are surveyed', async () => (await finished(id)) > 5, 120);
    await act(id, 'cancel');
    const cancelled = await until('nothing is waiting', async () => {
      const sweep = await counts(id);
      return sweep.waiting === 0 ? sweep : undefined;
    });
    expect([cancelled.state, cancelled.cancelled > 0]).toEqual(['cancelled', true]);
    await expect(act(id, 'resume')).rejects.toThrow(/not paused/);
    await act(id, 'retry');
    const done = await until(
      'all are surveyed',
      async () => {
        const sweep = await counts(id);
        return sweep.state === 'done' ? sweep : undefined;
      },
      200,
    );
    expect(done.done).toBe(60);
  }, 400_000);

  it('refuses a list that holds something else, and one that holds nothing', async () => {
    await expect(api.call('POST', '/api/sweeps', { name: '', text: 'reed-bank.example\n192.0.2.1' })).rejects.toThrow(/Line 2: 192\.0\.2\.1 is an address/);
    await expect(api.call('POST', '/api/sweeps', { name: '', text: '\n\n' })).rejects.toThrow(/no domain/);
    const viewer = await server.signIn('viewer');
    await expect(viewer.call('POST', '/api/sweeps', { name: '', text: 'reed-bank.example' })).rejects.toThrow();
  });
});

/** Nobody has a domain in hand. */
async function idle(server: ServerUnderTest): Promise<boolean> {
  return (await query(server, `select 1 from sweep_domains where in_hand is not null limit 1`)).rows.length === 0;
}

async function query(server: ServerUnderTest, text: string): Promise<{ rows: Record<string, unknown>[] }> {
  const client = new Client({ connectionString: server.database });
  await client.connect();
  try {
    return await client.query(text);
  } finally {
    await client.end();
  }
}
