import { panelTtl } from '../../hosts/enter';
import { fixedTo } from '../fix';
import { isHostsOwn } from '../ruling';
import { Check, remark } from './check';

/** A TTL under the least that can be given at the new host: what stands here is not what will be served. */
export const leastTtl: Check = ({ rulings, ttls }) => {
  if (!ttls) return [];
  return rulings.flatMap((row) => {
    if (!row.planned || isHostsOwn(row)) return [];
    const { owner, type, ttl, data } = row.planned;
    const given = panelTtl(ttls, ttl);
    if (given === undefined || given <= ttl) return [];
    const fix = { text: `Plan it with ${given} s.`, rows: [fixedTo(rulings, owner, type, data, given)] };
    return [remark(row, 'look', 'ttl-under-least', `The new host takes no TTL under ${given} s: it cannot be given ${ttl}.`, [fix])];
  });
};
