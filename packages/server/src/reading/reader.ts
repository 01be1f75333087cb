import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { Injectable, OnModuleDestroy } from '@nestjs/common';
import { InvalidInput } from '../refusals';
import { LargeKind, LargeValues, readLarge } from './readLarge';
import type { ReadAsked, ReadTold } from './reader.worker';

/** Octets that are read on the spot: handing them over would take longer. */
const SMALL = 32_768;
/** Milliseconds that a body may take to read: the largest takes two seconds. */
const LONGEST = 30_000;
/** Megabytes that the reader may hold: the largest body and what is made of it take a fifth. */
const MEMORY = 512;

interface Waiting {
  readonly take: (told: ReadTold) => void;
  readonly fail: (error: Error) => void;
}

/**
 * Reads what may be as large as a zone in a thread of its own, so that nobody else waits for it; one after the other. The thread begins with
 * the first of them, and anew where it ends.
 */
@Injectable()
export class Reader implements OnModuleDestroy {
  private worker: Worker | undefined;
  private readonly waiting = new Map<number, Waiting>();
  private count = 0;

  /**
   * As `readLarge`: `body` is what was sent, undefined where that was no JSON or nothing. Throws an InvalidInput, and an Error where the
   * reader took too long or ended.
   */
  async read<K extends LargeKind>(kind: K, body: unknown, zone: string | null): Promise<LargeValues[K]> {
    const octets = body instanceof Uint8Array ? body : new Uint8Array();
    if (octets.length < SMALL) return readLarge(kind, octets, zone);
    const id = ++this.count;
    const worker = this.running();
    try {
      return await new Promise<LargeValues[K]>((resolve, reject) => {
        const parts: unknown[] = [];
        const timer = setTimeout(() => {
          reject(new Error(`a ${kind} of ${octets.length} octets was not read in time`));
          void worker.terminate();
        }, LONGEST);
        const end = (then: () => void): void => {
          clearTimeout(timer);
          then();
        };
        const take = (told: ReadTold): void => {
          if ('part' in told) for (const one of told.part) parts.push(one);
          else if ('refused' in told) end(() => reject(new InvalidInput(told.refused, told.more)));
          else if ('failed' in told) end(() => reject(new Error(told.failed)));
          else end(() => resolve((parts.length > 0 ? { ...told.value, sets: parts } : told.value) as LargeValues[K]));
        };
        this.waiting.set(id, { take, fail: (error) => end(() => reject(error)) });
        worker.postMessage({ id, kind, octets, zone } satisfies ReadAsked);
      });
    } finally {
      this.waiting.delete(id);
    }
  }

  async onModuleDestroy(): Promise<void> {
    await this.worker?.terminate();
  }

  private running(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(join(__dirname, 'largeReader.js'), { resourceLimits: { maxOldGenerationSizeMb: MEMORY } });
    worker.unref();
    const ended = (error: Error): void => {
      if (this.worker !== worker) return;
      this.worker = undefined;
      for (const { fail } of this.waiting.values()) fail(error);
    };
    worker.on('message', (told: ReadTold) => this.waiting.get(told.id)?.take(told));
    worker.on('error', ended);
    worker.on('exit', (code) => ended(new Error(`the reader of large bodies ended (${code})`)));
    this.worker = worker;
    return worker;
  }
}
