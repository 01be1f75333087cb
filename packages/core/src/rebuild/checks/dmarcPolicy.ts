import { isDmarc, readDmarc } from '../../policy/dmarc';
import { Check, remark } from './check';
import { textsOf } from './textsAt';

/** A DMARC policy that receivers do not take: several, or one that cannot be read (RFC 7489 §6.6.3). */
export const dmarcPolicy: Check = ({ rulings }) =>
  rulings.flatMap((ruling) => {
    if (!/^_dmarc\./i.test(ruling.owner)) return [];
    const texts = textsOf(ruling);
    const policies = texts.filter(isDmarc);
    if (policies.length > 1) return [remark(ruling, 'look', 'dmarc-several', 'There are several DMARC policies: receivers then take none.')];
    const [text] = policies.length > 0 ? policies : texts;
    const read = text === undefined ? undefined : readDmarc(text);
    return read && !read.ok ? [remark(ruling, 'look', 'dmarc-unreadable', `Receivers do not take this policy: ${read.problem}.`)] : [];
  });
