import { chmodSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { keyFile, migrated, ownCluster } from './ownPlace';
import { freePort, startPostgres } from './postgres';
import { ROOT, SERVER, Running, startNode } from './processes';
import { Api } from './api';
import { DEMO_PASSWORD, FIRST_PASSWORD, fillDemo } from './demoData';
import { secretKey } from './secretKey';

export interface DemoOptions {
  readonly fresh?: boolean;
  readonly port?: number;
  /** Where the demo keeps its data. */
  readonly data?: string;
  /** Without moves that are already under way. */
  readonly bare?: boolean;
  /** Nothing is described: no host, no resolver, no registry's data; as an installation begins. */
  readonly empty?: boolean;
  readonly quiet?: boolean;
}

export interface Demo {
  readonly address: string;
  readonly lab: string;
  stop(): Promise<void>;
}

/** Database, lab and server with the demo's data. Calls back with what it is doing. */
export async function openDemo(options: DemoOptions, tell: (doing: string) => void): Promise<Demo> {
  const data = options.data ?? process.env['WANDERON_DATA'] ?? join(ROOT, '.wanderon', 'demo');
  const cluster = ownCluster(data);
  const stops: (() => Promise<void> | void)[] = [];
  const stop = async (): Promise<void> => {
    for (const one of stops.reverse()) await one();
    stops.length = 0;
  };
  try {
    if (options.fresh) {
      tell('Clearing the old scenario');
      if (existsSync(join(cluster, 'data'))) (await startPostgres(cluster)).stop();
      rmSync(join(cluster, 'data'), { recursive: true, force: true });
      rmSync(join(data, 'lab.json'), { force: true });
      rmSync(join(data, 'filled'), { force: true });
    }
    mkdirSync(data, { recursive: true });
    // User postgres has to get through where root runs the demo; nobody lists it.
    chmodSync(data, 0o711);
    tell('Starting PostgreSQL');
    const postgres = await startPostgres(cluster);
    stops.push(() => postgres.stop());
    migrated(postgres);
    tell('Starting the lab');
    const lab = await startNode(
      'packages/lab/dist/main.js',
      ['--state', join(data, 'lab.json'), ...(options.empty ? ['--unlisted'] : [])],
      {},
      /^(http:\S+)$/,
      report(options),
    );
    stops.push(() => lab.stop());
    tell('Starting the server');
    const port = await freePort(options.port ?? Number(process.env['WANDERON_PORT'] ?? 8080));
    const address = `http://127.0.0.1:${port}`;
    const server: Running = await startNode(
      SERVER,
      [],
      {
        WANDERON_DATABASE: postgres.runner,
        WANDERON_SECRET_KEY: secretKey(keyFile(data)),
        WANDERON_PUBLIC_ADDRESS: address,
        WANDERON_PORT: String(port),
        WANDERON_LAB: lab.ready[1],
        // The lab's name servers are nobody else's.
        WANDERON_QUESTIONS_PER_SECOND: '5000',
        WANDERON_ADMIN_LOGIN: 'admin',
        WANDERON_ADMIN_PASSWORD: FIRST_PASSWORD,
        WANDERON_LOG: process.env['WANDERON_LOG'] ?? 'warn',
      },
      /^listening (\d+)$/,
      report(options),
    );
    stops.push(() => server.stop());
    if (!existsSync(join(data, 'filled'))) {
      tell('Filling in the demo data');
      await new Api(address).firstSignIn('admin', FIRST_PASSWORD, DEMO_PASSWORD);
      await fillDemo(address, lab.ready[1]!, options);
      writeFileSync(join(data, 'filled'), '');
    }
    return { address, lab: lab.ready[1]!, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}

/** The `demo` command: runs until Ctrl-C. */
export async function demo(args: readonly string[]): Promise<void> {
  const began = performance.now();
  const running = await openDemo({ fresh: args.includes('--fresh'), bare: args.includes('--bare'), empty: args.includes('--empty') }, (doing) =>
    console.error(`${doing} ...`),
  );
  console.log(`
Wanderon is ready after ${Math.round((performance.now() - began) / 1000)} s.

  Open      ${running.address}
  Sign in   technician   or viewer, or admin
  Password  ${DEMO_PASSWORD}

  The client's registrar       ${running.lab}/registrar
  Panel of the new DNS host    ${running.lab}/quillmere

Ctrl-C stops all of it. --fresh starts the scenario again.`);
  await new Promise<void>((resolve) => {
    process.once('SIGINT', () => resolve());
    process.once('SIGTERM', () => resolve());
  });
  console.error('Stopping ...');
  await running.stop();
}

function report(options: DemoOptions): (line: string) => void {
  return (line) => {
    if (!options.quiet && line.trim() !== '') console.error(line);
  };
}
