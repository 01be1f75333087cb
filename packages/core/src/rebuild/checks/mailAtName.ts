import { ownMailName } from '../ownMailName';
import { readSpf } from '../../policy/spf';
import { Check, CheckInput, remark } from './check';
import { textsAt } from './textsAt';

/** A name without MX has its mail delivered to its address (RFC 5321 §5.1): where it moves with the website, the mail moves too. */
export const mailAtName: Check = (input) => {
  if (!sendsMail(input)) return [];
  const apex = input.zone.toString().toLowerCase();
  const own = input.rulings.filter((row) => row.owner.toLowerCase() === apex);
  if (own.some((row) => row.type === 'MX')) return [];
  const moved = own.find((row) => row.ruling === 'repoint' && (row.type === 'A' || row.type === 'AAAA'));
  return moved
    ? [
        remark(
          moved,
          'look',
          'mail-at-name',
          'There is no MX: mail for the domain goes to this address, which moves with the website. Give mail a name of its own that keeps the old one.',
          [ownMailName(input.zone, input.rulings, moved.owner, moved.owner)],
        ),
      ]
    : [];
};

/** Signs that the domain has mail at all: keys of signatures, or senders named in SPF. */
function sendsMail(input: CheckInput): boolean {
  if (input.rulings.some((row) => /\._domainkey\./i.test(row.owner))) return true;
  return textsAt(input, input.zone.toString()).some((text) => readSpf(text)?.terms.some((term) => term.name !== 'all') ?? false);
}
