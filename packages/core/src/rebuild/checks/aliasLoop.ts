import { Check, remark } from './check';
import { rowAt } from '../fix';

/** An alias that leads back to itself, at once or over others: it has no end (RFC 1034 §3.6.2, §5.2.2). */
export const aliasLoop: Check = ({ rulings }) =>
  rulings.flatMap((ruling) => {
    if (ruling.type !== 'CNAME' || !ruling.planned) return [];
    const own = ruling.owner.toLowerCase();
    const seen = new Set<string>();
    for (let at = ruling.planned.data[0]?.toLowerCase(); at !== undefined && !seen.has(at); at = rowAt(rulings, at, 'CNAME')?.planned?.data[0]?.toLowerCase()) {
      if (at === own)
        return [
          remark(
            ruling,
            'stop',
            'alias-loop',
            seen.size === 0 ? 'This alias leads to itself.' : `This alias leads back to itself over ${[...seen].join(', ')}.`,
          ),
        ];
      seen.add(at);
    }
    return [];
  });
