import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { rowAt } from '../fix';
import { Check, remark } from './check';

/**
 * A mail host gets another address: receivers ask for the name of the address that a message comes from, and the one who holds the new
 * address has to set it (RFC 1912 §2.1, RFC 5321 §4.1.4).
 */
export const reverseNames: Check = ({ zone, rulings, newWeb }) => {
  const hosts = new Set(
    rulings
      .flatMap((row) => {
        if (row.type !== 'MX' || !row.planned) return [];
        const set = rrsetRead(row.planned);
        return set.data.flatMap((data) => namesIn(set.type, data).slice(0, 1));
      })
      .flatMap((name) => (name.isAtOrBelow(zone) && !name.isRoot ? [name.toString().toLowerCase()] : [])),
  );
  return [...hosts].flatMap((host) =>
    (['A', 'AAAA'] as const).flatMap((type) => {
      const row = rowAt(rulings, host, type);
      if (row?.ruling !== 'repoint' || !row.planned) return [];
      // A website’s address is said to be none for mail already.
      const fresh = row.planned.data.filter((one) => !row.found?.data.includes(one) && !newWeb?.addresses.includes(one));
      if (fresh.length === 0) return [];
      return [
        remark(row, 'look', 'reverse-name', `Mail comes from here: have whoever holds ${fresh.join(', ')} set the name of it to ${host.replace(/\.$/, '')}.`),
      ];
    }),
  );
};
