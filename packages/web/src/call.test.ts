import { call } from './call';

describe('asking the server', () => {
  /** What the server holds at each address; its tag is the text. */
  let held: Map<string, string>;
  /** The tag that each question brought. */
  let tags: (string | null)[];
  beforeEach(() => {
    [held, tags] = [new Map(), []];
    jest.spyOn(globalThis, 'fetch').mockImplementation((address, init) => {
      const given = new Headers(init?.headers).get('if-none-match');
      tags.push(given);
      const text = held.get(String(address)) ?? '{}';
      const tag = `W/"${text}"`;
      if (init?.method === 'GET' && given === tag) return Promise.resolve(new Response(null, { status: 304, headers: { etag: tag } }));
      return Promise.resolve(new Response(text, { status: text.includes('title') ? 500 : 200, headers: init?.method === 'GET' ? { etag: tag } : {} }));
    });
  });
  afterEach(() => jest.restoreAllMocks());

  it('gives what is as before as the same object, and what is another anew', async () => {
    held.set('/api/a', '{"rows":[1]}');
    const before = await call('GET', '/api/a');
    expect(await call('GET', '/api/a')).toBe(before);
    held.set('/api/a', '{"rows":[2]}');
    expect(await call('GET', '/api/a')).toEqual({ rows: [2] });
    expect(tags).toEqual([null, 'W/"{"rows":[1]}"', 'W/"{"rows":[1]}"']);
  });

  it('keeps nothing of an act, nor of what was refused', async () => {
    held.set('/api/b', '{"rows":[1]}');
    await call('PUT', '/api/b', {});
    await call('PUT', '/api/b', {});
    held.set('/api/c', '{"type":"about:blank","title":"Not now.","status":500}');
    await expect(call('GET', '/api/c')).rejects.toMatchObject({ problem: { title: 'Not now.' } });
    await expect(call('GET', '/api/c')).rejects.toMatchObject({ problem: { title: 'Not now.' } });
    expect(tags).toEqual([null, null, null, null]);
  });

  it('keeps the answers of some addresses, those that were had last', async () => {
    for (let index = 0; index <= 40; index++) await call('GET', `/api/many/${index}`);
    await call('GET', '/api/many/40');
    await call('GET', '/api/many/0');
    expect(tags.slice(-2)).toEqual(['W/"{}"', null]);
  });
});
