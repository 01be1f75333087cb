import { call } from './call';

describe('asking the server', () => {
  /** What the server holds at each address; its tag is the text. */
  let held: Map<string, string>;
  /** What takes long to be read. */
  const large = (row: number): string => JSON.stringify({ rows: [row], words: 'x'.repeat(60_000) });
  /** The tag that each question brought. */
  let tags: (string | null)[];
  beforeEach(() => {
    [held, tags] = [new Map(), []];
    jest.spyOn(globalThis, 'fetch').mockImplementation((address, init) => {
      const given = new Headers(init?.headers).get('if-none-match');
      tags.push(given);
      const text = held.get(String(address)) ?? '{}';
      const tag = `W/"${text.length}-${text.slice(0, 12)}"`;
      if (init?.method === 'GET' && given === tag) return Promise.resolve(new Response(null, { status: 304, headers: { etag: tag } }));
      return Promise.resolve(new Response(text, { status: text.includes('title') ? 500 : 200, headers: init?.method === 'GET' ? { etag: tag } : {} }));
    });
  });
  afterEach(() => jest.restoreAllMocks());

  it('gives what is as before as the same object, and what is another anew', async () => {
    held.set('/api/a', large(1));
    const before = await call('GET', '/api/a');
    expect(await call('GET', '/api/a')).toBe(before);
    held.set('/api/a', large(2));
    expect(await call('GET', '/api/a')).toMatchObject({ rows: [2] });
    expect(await call('GET', '/api/a')).toMatchObject({ rows: [2] });
    expect(tags.map((tag) => tag?.includes('[1') ?? null)).toEqual([null, true, true, false]);
  });

  it('keeps nothing of an act, of what is small, nor of what was refused', async () => {
    held.set('/api/b', large(1));
    await call('PUT', '/api/b', {});
    await call('PUT', '/api/b', {});
    await call('GET', '/api/small');
    await call('GET', '/api/small');
    held.set('/api/c', '{"type":"about:blank","title":"Not now.","status":500}');
    for (let time = 0; time < 2; time++) await expect(call('GET', '/api/c')).rejects.toMatchObject({ problem: { title: 'Not now.' } });
    expect(tags).toEqual([null, null, null, null, null, null]);
  });

  it('keeps the answers of some addresses, those that were had last', async () => {
    for (let index = 0; index <= 8; index++) {
      held.set(`/api/many/${index}`, large(index));
      await call('GET', `/api/many/${index}`);
    }
    await call('GET', '/api/many/8');
    await call('GET', '/api/many/0');
    expect(tags.slice(-2).map((tag) => tag !== null)).toEqual([true, false]);
  });

  it.each(['/api/moves/../me', '/api/moves/%2e%2e/me', '/api/surveys/x\\..\\..\\me', '/api/moves/a b', '//elsewhere.example/api/me', '/api/moves/x#/ledger'])(
    'asks nothing where what an address names leads elsewhere: %s',
    async (path) => {
      await expect(call('GET', path)).rejects.toMatchObject({ problem: { status: 404 } });
      expect(tags).toEqual([]);
      await call('GET', '/api/legs/1/answers/2001:db8::1?text=a/../b');
      expect(tags).toEqual([null]);
    },
  );

  it('takes an answer that ends too early, or cannot be read, for none', async () => {
    held.set('/api/d', large(1).slice(0, -5));
    await expect(call('GET', '/api/d')).rejects.toMatchObject({ problem: { title: 'Wanderon gave an answer that cannot be read.' } });
    const cut = new ReadableStream({ start: (stream) => stream.error(new TypeError('cut')) });
    jest.mocked(fetch).mockResolvedValueOnce(new Response(cut, { status: 200 }));
    // As where nobody answers at all: an act is asked for again, by its name, and nobody says that it was not done.
    await expect(call('PUT', '/api/d', {})).rejects.toMatchObject({ problem: { status: 0, detail: expect.stringMatching(/is not known/) as string } });
    jest.mocked(fetch).mockRejectedValueOnce(new TypeError('away'));
    const away = await call('DELETE', '/api/d').catch((error: { problem: object }) => error.problem);
    expect(away).not.toHaveProperty('kept');
    held.set('/api/d', large(1));
    expect(await call('GET', '/api/d')).toMatchObject({ rows: [1] });
    expect(tags.filter((tag) => tag !== null)).toEqual([]);
  });
});
