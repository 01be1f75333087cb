import { Lab, LabOptions } from '@wanderon/lab';
import { Api, until } from '../../../command/src/api';
import { DEMO_PASSWORD, FIRST_PASSWORD, fillDemo } from '../../../command/src/demoData';
import { freePort } from '../../../command/src/postgres';
import { SERVER, Running, startNode } from '../../../command/src/processes';
import { TestDatabase, makeDatabase } from './cluster';

export const SECRET_KEY = Buffer.alloc(32, 7).toString('base64');

/** A server process of ours on its own database, with whatever stands in for the internet given by `env`. */
export class ServerUnderTest {
  private running: Running | undefined;
  /** Every line that it wrote. */
  readonly said: string[] = [];
  /** Faults are made for it on purpose: it may write of them. */
  mayFail = false;
  private made: TestDatabase | undefined;
  private port = 0;
  private filled = false;

  constructor(private readonly env: NodeJS.ProcessEnv) {}

  /** `fill` is given an empty database, without the schema, before the server first sees it. */
  async open(fill?: (database: string) => void): Promise<this> {
    this.filled = fill !== undefined;
    this.made = await makeDatabase(this.filled);
    fill?.(this.made.url);
    this.port = await freePort();
    await this.start();
    // What it is filled with has people of its own, and whoever gives another password signs in with it.
    if (!fill && !this.env['WANDERON_ADMIN_PASSWORD']) await new Api(this.address).firstSignIn('admin', FIRST_PASSWORD, DEMO_PASSWORD);
    return this;
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** As the role that owns it. */
  get database(): string {
    return this.made!.url;
  }

  /** As the role under which the server runs. */
  get runner(): string {
    return this.made!.runner;
  }

  /** Of the process that runs. */
  get pid(): number {
    return this.running!.child.pid!;
  }

  get dead(): boolean {
    return this.running === undefined;
  }

  async start(): Promise<void> {
    this.running = await this.run(this.port);
  }

  /** A second process on the same database. */
  async another(): Promise<Running & { address: string }> {
    const port = await freePort();
    return { ...(await this.run(port)), address: `http://127.0.0.1:${port}` };
  }

  private run(port: number): Promise<Running> {
    return startNode(
      SERVER,
      [],
      {
        // What it is filled with is older: only the role that owns it can bring it up to date.
        WANDERON_DATABASE: this.filled ? this.made!.url : this.made!.runner,
        WANDERON_SECRET_KEY: SECRET_KEY,
        WANDERON_PUBLIC_ADDRESS: `http://127.0.0.1:${port}`,
        WANDERON_PORT: String(port),
        WANDERON_ADMIN_PASSWORD: FIRST_PASSWORD,
        WANDERON_LOG: 'error',
        // What a test watches from, it names.
        WANDERON_OWN_RESOLVERS: 'no',
        // No test fetches a list from outside; the lab has its own.
        WANDERON_RDAP_LIST: 'none',
        ...this.env,
      },
      /^listening (\d+)$/,
      (line) => {
        this.said.push(line);
        if (process.env['SHOW_SERVER']) console.error(line);
      },
    );
  }

  /** Ends the process as a power cut would. */
  async kill(): Promise<void> {
    const { running } = this;
    this.running = undefined;
    await running?.stop('SIGKILL');
  }

  async signIn(login = 'technician'): Promise<Api> {
    return new Api(this.address).signIn(login, DEMO_PASSWORD);
  }

  async close(): Promise<void> {
    await this.running?.stop('SIGKILL');
    await this.made?.drop();
    const faults = this.said.filter((line) => /"level":[56]0/.test(line));
    if (!this.mayFail && faults.length > 0) throw new Error(`${faults.length} faults of the server's own, such as ${faults[0]!.slice(0, 1000)}`);
  }
}

export interface World {
  readonly lab: Lab;
  readonly server: ServerUnderTest;
  readonly api: Api;
  close(): Promise<void>;
}

/** The lab in this process, the server in another, accounts and hosts filled in. */
export async function openWorld(options: LabOptions = {}, env: NodeJS.ProcessEnv = {}): Promise<World> {
  const lab = await Lab.open(options);
  const server = await new ServerUnderTest({ WANDERON_LAB: lab.address, ...env }).open();
  await fillDemo(server.address, lab.address, { bare: true });
  return {
    lab,
    server,
    api: await server.signIn(),
    close: async () => {
      await server.close();
      lab.close();
    },
  };
}

/** Lets lab time pass so fast that the server can still look now and then: what a jump skips, nobody has seen. */
export async function forward(lab: Lab, seconds: number): Promise<void> {
  const goal = lab.clock.now() + seconds;
  lab.clock.setRate(FAST);
  try {
    await until('lab time has passed', () => Promise.resolve(lab.clock.now() >= goal || undefined));
  } finally {
    lab.clock.setRate(1);
  }
}

/** Lab seconds in a real one. */
const FAST = 3600;
