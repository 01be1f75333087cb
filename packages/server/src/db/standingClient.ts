import { Logger } from '@nestjs/common';
import { Client } from 'pg';

/** Milliseconds to the next try where the database is away. */
const AGAIN = 1000;

/** One connection of its own that is kept for good: once lost, it is made again until that comes about. */
export class StandingClient {
  private readonly log = new Logger('database');
  private client: Client | undefined;
  private timer: NodeJS.Timeout | undefined;
  private closing = false;

  /** `begin` readies a new connection; `lost` is told at once when it is gone. */
  constructor(
    private readonly address: string,
    private readonly begin: (client: Client) => Promise<void>,
    private readonly lost: () => void = () => undefined,
  ) {}

  /** Throws where the first connection cannot be made. */
  async open(): Promise<void> {
    const client = new Client({ connectionString: this.address });
    // A connection that is cut may say so twice.
    client.on('error', (error) => {
      if (this.client !== client) return;
      this.client = undefined;
      this.lost();
      this.again(error);
    });
    try {
      await client.connect();
      if (this.closing) return await client.end();
      this.client = client;
      await this.begin(client);
    } catch (error) {
      this.client = undefined;
      await client.end();
      throw error;
    }
  }

  async close(): Promise<void> {
    this.closing = true;
    clearTimeout(this.timer);
    const { client } = this;
    this.client = undefined;
    await client?.end();
  }

  private again(error: unknown): void {
    this.log.error(error);
    clearTimeout(this.timer);
    if (!this.closing) this.timer = setTimeout(() => void this.open().catch((failed: unknown) => this.again(failed)), AGAIN);
  }
}
