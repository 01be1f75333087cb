import { setMaxListeners } from 'node:events';
import { Injectable, OnModuleDestroy, OnModuleInit } from '@nestjs/common';
import { Subscription } from 'rxjs';
import { LiveService } from '../live/live.service';
import { Progress, tellProgress } from '../live/tellProgress';

/** Surveys that this process is taking: tells pages how far they are, and ends them when somebody says so in any process. */
@Injectable()
export class RunningSurveys implements OnModuleInit, OnModuleDestroy {
  private readonly running = new Map<string, Set<AbortController>>();
  private subscription: Subscription | undefined;
  /** The process is ending: what is cancelled now is taken up by the next one. */
  closing = false;

  constructor(private readonly live: LiveService) {}

  onModuleInit(): void {
    this.subscription = this.live.changes.subscribe((change) => {
      if (change.topic === 'stop') for (const one of this.running.get(keyOf(change)) ?? []) one.abort();
    });
  }

  onModuleDestroy(): void {
    this.closing = true;
    this.subscription?.unsubscribe();
    for (const all of this.running.values()) for (const one of all) one.abort();
  }

  /** Runs a survey that can be stopped and is spoken of meanwhile. */
  async run<T>(
    of: { move: string } | { sweep: string; domain: string },
    work: (signal: AbortSignal, onProgress: (progress: Progress) => void) => Promise<T>,
  ): Promise<T> {
    const key = keyOf(of);
    const controller = new AbortController();
    // Every question under way listens to it.
    setMaxListeners(0, controller.signal);
    const all = this.running.get(key) ?? new Set();
    this.running.set(key, all.add(controller));
    const pages = tellProgress(this.live, of);
    try {
      return await work(controller.signal, (progress) => !this.closing && pages.tell(progress));
    } finally {
      all.delete(controller);
      if (all.size === 0) this.running.delete(key);
      if (!this.closing) pages.over();
    }
  }
}

function keyOf(of: { readonly move?: string; readonly sweep?: string }): string {
  return of.move === undefined ? `sweep/${of.sweep}` : `move/${of.move}`;
}
