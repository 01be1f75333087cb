import { DKIM_BITS, readDkimKey } from '../../policy/dkim';
import { Check, remark } from './check';
import { textsOf } from './textsAt';

/** A key of signatures that receivers cannot use: cut where it was typed or pasted, unreadable, or too short (RFC 6376 §3.6.1, RFC 8301 §3.2). */
export const dkimKey: Check = ({ rulings }) =>
  rulings.flatMap((ruling) => {
    if (!/\._domainkey\./i.test(ruling.owner)) return [];
    return textsOf(ruling).flatMap((text) => {
      if (!/(?:^|;)\s*(?:p|v)\s*=/i.test(text)) return [];
      const key = readDkimKey(text);
      if (!key.ok) return [remark(ruling, 'look', 'dkim-unreadable', `Receivers cannot use this key: ${key.problem}.`)];
      return key.bits !== undefined && key.bits < DKIM_BITS
        ? [remark(ruling, 'look', 'dkim-short', `The key has ${key.bits} bits; receivers want ${DKIM_BITS} at least.`)]
        : [];
    });
  });
