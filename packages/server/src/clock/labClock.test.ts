import { createServer } from 'node:http';
import { AddressInfo } from 'node:net';
import { LabClockFollower } from './labClock';

/** The clock as it is followed once the lab has told this of it. */
async function following(told: object): Promise<number> {
  const server = createServer((request, response) => void response.end(request.url === '/clock' ? JSON.stringify(told) : ''));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const clock = await LabClockFollower.open(`http://127.0.0.1:${(server.address() as AddressInfo).port}`);
  const now = clock.now();
  clock.close();
  // It is asked once more at the most.
  server.unref();
  return now;
}
const ago = (milliseconds: number): number => performance.timeOrigin + performance.now() - milliseconds;

describe('the clock of the lab, as it is followed', () => {
  it('goes on while word of it is on its way', async () => {
    expect(await following({ at: 1000, rate: 1000, sent: ago(4000) })).toBeGreaterThanOrEqual(1000 + 4 * 1000);
  });

  it('runs no further than a hurry goes, whether or not word of its end has come', async () => {
    const now = await following({ at: 1000, rate: 7200, then: { at: 1300, rate: 1 }, sent: ago(4000) });
    expect([now > 1303, now < 1320]).toEqual([true, true]);
  });

  it('stands where it is paused, and is taken as it comes where its word tells no time, or one of another machine', async () => {
    expect(await following({ at: 1000, rate: 0, sent: ago(4000) })).toBe(1000);
    for (const sent of [undefined, ago(-60_000), ago(3_600_000)]) {
      const now = await following({ at: 1000, rate: 0.001, sent });
      expect([now >= 1000, now < 1001]).toEqual([true, true]);
    }
  });
});
