import { Fix, fixedTo } from '../fix';
import { Check, remark } from './check';

/** Seconds: what changes and turns out wrong is remembered for so long. */
const DAY = 86_400;

/** A new value with a TTL of more than a day, or of nothing at all. */
export const longTtl: Check = ({ rulings }) =>
  rulings.flatMap((ruling) => {
    if (!ruling.planned || ruling.ruling === 'carry') return [];
    const { owner, type, data } = ruling.planned;
    const lasting = (ttl: number, words: string): Fix => ({ text: `Give it ${words}.`, rows: [fixedTo(rulings, owner, type, data, ttl)] });
    if (ruling.planned.ttl === 0)
      return [remark(ruling, 'look', 'ttl-zero', 'A TTL of 0 has every visitor’s resolver ask each time.', [lasting(300, '5 minutes')])];
    return ruling.planned.ttl > DAY
      ? [remark(ruling, 'look', 'ttl-long', 'Its TTL is more than a day: a mistake in it is remembered for so long.', [lasting(3600, '1 hour')])]
      : [];
  });
