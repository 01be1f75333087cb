import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Name, TsigKey } from '@wanderon/core';
import { DnsClient, RouteTable } from '@wanderon/net';
import { freePort } from '../../command/dist/postgres';
import { askZone, tryTransfer } from '../../packages/server/dist/engine/askZone';
import { startKnot } from './support/knot';
import { measure, spread } from './support/measure';

const SETS = 5000;
const ROUNDS = 15;
const WARMING = 3;
/** As the engine does beside a transfer (`engine/looks/zones.ts`). */
const BESIDE_TRANSFER = 200;
const SECRET = Buffer.alloc(32, 5);

/** Reading a plan of 5,000 sets back from a knot with a key, the questions beside the transfer included, against dig's transfer of the same zone. */
async function main(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-bench-'));
  const names = Array.from({ length: SETS }, (_, index) => `name-${index}.planned.example.`);
  const file = join(folder, 'zone');
  const head = '$TTL 300\nplanned.example. SOA ns1.planned.example. host.planned.example. 1 60 60 600 60\nplanned.example. NS ns1.planned.example.\n';
  writeFileSync(file, `${head}ns1.planned.example. A 192.0.2.1\n${names.map((name, index) => `${name} A 192.0.2.${index % 250}\n`).join('')}`);
  const port = await freePort();
  const key: TsigKey = { name: Name.parse('bench.key.'), algorithm: 'hmac-sha256', secret: new Uint8Array(SECRET) };
  const secret = SECRET.toString('base64');
  const knot = await startKnot(folder, port, [{ domain: 'planned.example', file, transfer: true, sign: false }], { name: 'bench.key.', secret });
  try {
    const zone = Name.parse('planned.example.');
    const keys = names.map((name) => `${name}/A`);
    const address = '192.0.2.53';
    const client = new DnsClient(
      new RouteTable((['udp', 'tcp'] as const).map((transport) => ({ address, port: 53, transport, toAddress: '127.0.0.1', toPort: port }))),
    );
    const ratios: number[] = [];
    for (let round = -WARMING; round < ROUNDS; round++) {
      const theirs = await measure('dig', [
        '@127.0.0.1',
        '-p',
        String(port),
        '-y',
        `hmac-sha256:bench.key.:${secret}`,
        'planned.example',
        'AXFR',
        '+noall',
        '+answer',
      ]);
      const began = performance.now();
      const transferred = await tryTransfer(client, address, zone, keys, key);
      const asked = await askZone(client, address, zone, keys.slice(0, BESIDE_TRANSFER));
      const seconds = (performance.now() - began) / 1000;
      if (Object.keys(transferred?.sets ?? {}).length < SETS || !('sight' in asked)) throw new Error('the zone was not read back');
      if (round >= 0) ratios.push(seconds / theirs.seconds);
    }
    console.log(`a plan of ${SETS} sets read back by key, with ${BESIDE_TRANSFER} questions beside: ${spread(ratios)} times dig's transfer of the zone`);
  } finally {
    knot.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
}

void main();
