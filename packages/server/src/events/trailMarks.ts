import { createHmac, hkdfSync, timingSafeEqual } from 'node:crypto';
import { Keys } from '../secrets/sealer';

/** What of an event its mark stands for; `before` and `after` as values. */
export interface MarkedEvent {
  readonly nonce: string | null;
  readonly at: number | null;
  readonly person_id: string | null;
  readonly domain: string | null;
  readonly move_id: string | null;
  readonly kind: string | null;
  readonly text: string | null;
  readonly before: unknown;
  readonly after: unknown;
}

/** The mark of whoever holds the key on each event that they write: an HMAC under a key of its own for it. */
export class TrailMarks {
  private readonly current: Uint8Array;
  private readonly all: readonly Uint8Array[];

  constructor(keys: Keys) {
    const derived = (key: Buffer): Uint8Array => new Uint8Array(hkdfSync('sha256', key, '', 'wanderon mark of an event', 32));
    this.current = derived(keys.WANDERON_SECRET_KEY);
    this.all = [this.current, ...keys.WANDERON_FORMER_KEYS.map(derived)];
  }

  of(event: MarkedEvent): string {
    return markOf(this.current, event).toString('hex');
  }

  holds(event: MarkedEvent, mark: string): boolean {
    const given = Buffer.from(mark, 'hex');
    return this.all.some((key) => {
      const own = markOf(key, event);
      return own.length === given.length && timingSafeEqual(own, given);
    });
  }
}

function markOf(key: Uint8Array, { nonce, at, person_id, domain, move_id, kind, text, before, after }: MarkedEvent): Buffer {
  const parts = [nonce, at, person_id, domain, move_id, kind, text, before, after];
  return createHmac('sha256', key)
    .update(JSON.stringify(sorted(parts)))
    .digest();
}

/** The database keeps the keys of objects in an order of its own. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, inner]) => [key, sorted(inner)]),
  );
}
