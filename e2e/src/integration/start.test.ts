import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from '../../../command/src/processes';
import { ServerUnderTest } from '../support/world';

const started = (env: NodeJS.ProcessEnv): { status: number | null; stderr: string } =>
  spawnSync(process.execPath, [join(ROOT, 'command/dist/main.js'), 'start'], { env: { PATH: process.env['PATH'], ...env }, encoding: 'utf8', timeout: 20_000 });

describe('the start for real use', () => {
  it('names everything that the configuration lacks, at once', () => {
    const { status, stderr } = started({});
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
      const page = await fetch(server.address);
      expect(page.headers.get('content-security-policy')).toContain("script-src 'self'");
      expect(await page.text()).toContain('<div id="root">');
    } finally {
      await server.close();
    }
  });
});
