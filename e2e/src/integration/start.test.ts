import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from '../../../command/src/processes';
import { openDatabase } from '../../../packages/server/src/db/database';
import { makeDatabase } from '../support/cluster';
import { SECRET_KEY, ServerUnderTest } from '../support/world';

const started = (env: NodeJS.ProcessEnv): { status: number | null; stderr: string } =>
  spawnSync(process.execPath, [join(ROOT, 'command/dist/main.js'), 'start'], { env: { PATH: process.env['PATH'], ...env }, encoding: 'utf8', timeout: 20_000 });

describe('the start for real use', () => {
  it('names everything that the configuration lacks, at once', () => {
    const { status, stderr } = started({ WANDERON_DATABASE: '' });
    expect(status).toBe(1);
    for (const name of ['WANDERON_DATABASE', 'WANDERON_SECRET_KEY', 'WANDERON_PUBLIC_ADDRESS']) expect(stderr).toContain(name);
    expect(
      started({
        WANDERON_DATABASE: 'mysql://x',
        WANDERON_SECRET_KEY: 'short',
        WANDERON_PUBLIC_ADDRESS: 'moves',
        WANDERON_PORT: '99999',
        WANDERON_LOOKOUTS: 'One=nowhere',
      }).stderr,
    ).toMatch(
      /WANDERON_DATABASE is the address[\s\S]*WANDERON_SECRET_KEY is 32 octets[\s\S]*WANDERON_PUBLIC_ADDRESS is the address[\s\S]*WANDERON_PORT[\s\S]*WANDERON_LOOKOUTS.*needs an IPv4 or IPv6 address/,
    );
  });

  it('runs under a role that owns nothing, once the owner has brought the schema up to date', async () => {
    const database = await makeDatabase(true);
    const migrate = (env: NodeJS.ProcessEnv): { status: number | null; stdout: string; stderr: string } =>
      spawnSync(process.execPath, [join(ROOT, 'command/dist/main.js'), 'migrate'], { env: { PATH: process.env['PATH'], ...env }, encoding: 'utf8' });
    try {
      const env = { WANDERON_DATABASE: database.runner, WANDERON_SECRET_KEY: SECRET_KEY, WANDERON_PUBLIC_ADDRESS: 'http://127.0.0.1:1' };
      expect(started(env).stderr).toContain('run ./wanderon migrate first');
      expect(migrate(env)).toMatchObject({ status: 1, stderr: expect.stringContaining('WANDERON_OWNER_DATABASE is the address') as string });
      expect(migrate({ ...env, WANDERON_OWNER_DATABASE: database.runner }).stderr).toContain('name the same role');
      const runner = new URL(database.runner).username;
      // Safe to say twice.
      for (let times = 0; times < 2; times++)
        expect(migrate({ ...env, WANDERON_OWNER_DATABASE: database.url })).toMatchObject({
          status: 0,
          stdout: `The schema is up to date, and ${runner} can run with it.\n`,
        });
      await (await openDatabase(database.runner)).destroy();
    } finally {
      await database.drop();
    }
  });

  it('makes the first administrator once, and says so where the password was made up', async () => {
    const hints = join(ROOT, 'e2e/corpus/hints');
    const server = await new ServerUnderTest({ WANDERON_ROOT_HINTS: hints, WANDERON_ADMIN_PASSWORD: 'a-password-of-ours' }).open(() => undefined);
    try {
      await server.kill();
      await server.start();
      const signIn = async (password: string): Promise<number> =>
        (
          await fetch(`${server.address}/api/sign-in`, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ login: 'admin', password }),
          })
        ).status;
      expect([await signIn('a-password-of-ours'), await signIn('another-password')]).toEqual([200, 401]);
      const nonces = new Set<string>();
      for (const path of ['/', '/index.html', '/moves/x']) {
        const page = await fetch(`${server.address}${path}`);
        const [, nonce] = /script-src 'self';.*style-src 'self' 'nonce-([A-Za-z0-9+/]{22}==)'$/.exec(page.headers.get('content-security-policy')!)!;
        const text = await page.text();
        expect(text).toContain('<div id="root">');
        expect(text).toContain(`<meta name="style-nonce" content="${nonce!}">`);
        expect(page.headers.get('cache-control')).toBe('no-store');
        nonces.add(nonce!);
      }
      // The program is named to everybody, what the page will ask first to whoever may be signed in.
      const named = async (cookie: string): Promise<string | null> => (await fetch(`${server.address}/hosts`, { headers: { cookie } })).headers.get('link');
      const program = String.raw`</assets/index-[\w-]+\.js>; rel=modulepreload; crossorigin, </assets/index-[\w-]+\.css>; rel=preload; as=style; crossorigin`;
      const answers = '</api/me>; rel=preload; as=fetch; crossorigin, </api/clock>; rel=preload; as=fetch; crossorigin';
      expect(await named('wanderon_session=x')).toMatch(new RegExp(`^${program}, ${answers}$`));
      expect(await named('other=x')).toMatch(new RegExp(`^${program}$`));
      // Whoever has seen one page cannot write styles into the next.
      expect(nonces.size).toBe(3);
      expect((await fetch(`${server.address}/api/me`)).headers.get('content-security-policy')).toMatch(/style-src 'self' 'self'$/);
    } finally {
      await server.close();
    }
  });
});
