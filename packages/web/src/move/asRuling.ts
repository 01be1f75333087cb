import { RulingView } from '@wanderon/contract';
import { Ruling } from '@wanderon/core';

/** A row as core knows it: what does not stand over HTTP is not there. */
export function asRuling(row: RulingView): Ruling {
  return { ...row, found: row.found ?? undefined, planned: row.planned ?? undefined };
}
