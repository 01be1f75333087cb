import { Name } from '../../dns/name';
import { fixedAway } from '../fix';
import { isHostsOwn } from '../ruling';
import { Check, remark } from './check';

/** What signing makes, at the apex; CDS and CDNSKEY are read by the parent. */
const SIGNING: ReadonlySet<string> = new Set(['DNSKEY', 'RRSIG', 'NSEC', 'NSEC3', 'NSEC3PARAM']);
const FOR_PARENT: ReadonlySet<string> = new Set(['CDS', 'CDNSKEY']);

/**
 * Records of signing that are to stand at the new host: they speak for keys of whoever signed the zone before. A parent that scans takes
 * a CDS left over for a wish, and points its DS at keys that nobody has (RFC 7344 §4.1, RFC 8078 §3).
 */
export const signingCarried: Check = ({ zone, rulings }) =>
  rulings.flatMap((row) => {
    const forParent = FOR_PARENT.has(row.type);
    if (!row.planned || isHostsOwn(row) || !(forParent || SIGNING.has(row.type)) || !Name.parse(row.owner).equals(zone)) return [];
    const text = forParent
      ? `A parent that reads ${row.type} points its DS where this says: at keys that the new host may not have.`
      : `${row.type} is made by whoever signs the zone; the old one speaks for keys that the new host does not have.`;
    return [remark(row, 'look', 'signing-carried', text, [{ text: 'Take it out.', rows: [fixedAway(row)] }])];
  });
