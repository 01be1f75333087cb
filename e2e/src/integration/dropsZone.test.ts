import { USUAL_HABITS } from '@wanderon/core';
import { KEY, PARENT, dig } from '../support/realServers';
import { RealDomain, RealMoves } from '../support/realMoves';

const isRoot = process.getuid?.() === 0;
const DOMAIN: RealDomain = { name: 'dropped.example', old: 'knot', fresh: 'bind' };

/** An old host that takes the zone away once the domain is delegated elsewhere, at Debian's servers. */
(isRoot ? describe : describe.skip)('a host that drops the zone (port 53 on loopback, so as root)', () => {
  const real = new RealMoves([DOMAIN]);
  beforeAll(() => real.open());
  afterEach(() => real.over());
  afterAll(() => real.close());

  it('has it turned before the switch, so that its own answers lead to the new servers when it goes', async () => {
    const host = await real.api
      .call<{ hosts: { id: string; name: string }[] }>('GET', '/api/hosts')
      .then(({ hosts }) => hosts.find((one) => one.name === 'old knot')!);
    await real.api.call('PUT', `/api/hosts/${host.id}`, { ...host, key: KEY, habits: { ...USUAL_HABITS, afterLeaving: 'drops' } });
    const driver = await real.lowered(DOMAIN);
    const turned = await driver.until('the old zone is turned', (move) => move.legs[0]!.gate.lines.some((line) => line.key === 'kept' && line.holds));
    expect(turned.legs[0]!.seen.ts).toBeNull();
    const ns = (await dig(real.oldAddress(DOMAIN), [DOMAIN.name, 'NS', '+short'])).stdout.trim();
    expect(ns).toBe(real.newName(DOMAIN));
    // The parent leads to the old servers, which give the old values still. A resolver that goes by the zone's own answers asks the new ones.
    const asked = async (at: string, ...question: string[]): Promise<string> => (await dig(at, [...question, '+short', '+norecurse'])).stdout.trim();
    expect(await asked(real.oldAddress(DOMAIN), `www.${DOMAIN.name}`, 'A')).toBe('192.0.2.80');
    expect((await dig(PARENT, [DOMAIN.name, 'NS', '+norecurse'])).stdout).toContain(real.oldName(DOMAIN));
    expect(['192.0.2.80', '203.0.113.80']).toContain(await real.answer(`www.${DOMAIN.name}`));
    await real.switched(DOMAIN, driver);
    const settled = await driver.done('settle');
    expect(await real.answer(`www.${DOMAIN.name}`)).toBe('203.0.113.80');
    expect(settled.legs[0]!.steps.find((step) => step.id === 'turn')!.state).toBe('done');
  });
});
