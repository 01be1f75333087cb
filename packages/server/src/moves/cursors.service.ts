import { Injectable } from '@nestjs/common';
import { CursorInput } from '@wanderon/contract';
import { LiveService } from '../live/live.service';
import { Caller } from '../people/allow';
import { MoveStore } from './move.store';

/** Milliseconds of real time between two words about the cursors of one person: what comes sooner is not passed on. */
const PACE = 100;

/** Tells the open pages where somebody's cursor stands in a ledger. Nothing of it is kept. */
@Injectable()
export class CursorService {
  /** When each person was passed on last. */
  private readonly last = new Map<string, number>();

  constructor(
    private readonly store: MoveStore,
    private readonly live: LiveService,
  ) {}

  /** Throws a NotFound where there is no such leg. */
  async tell(leg: string, { page, row }: CursorInput, { id, name }: Caller): Promise<void> {
    const now = performance.now();
    if (row !== null && now - (this.last.get(id) ?? -PACE) < PACE) return;
    this.last.set(id, now);
    await this.store.moveOf(leg);
    await this.live.tell({ topic: 'cursor', leg, page, row, name });
  }
}
