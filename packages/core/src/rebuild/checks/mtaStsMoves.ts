import { isLead } from '../leads';
import { isChanging } from '../ruling';
import { Check, remark } from './check';

/** The policy of MTA-STS is a page of its own host (RFC 8461 §3.3): where that moves with the website and the page does not, mail that was told to insist on it waits. */
export const mtaStsMoves: Check = ({ zone, rulings }) => {
  const at = (label: string): string => zone.child(label).toString().toLowerCase();
  if (!rulings.some((row) => row.type === 'TXT' && row.planned && row.owner.toLowerCase() === at('_mta-sts'))) return [];
  const host = rulings.find((row) => isLead(row.type) && row.owner.toLowerCase() === at('mta-sts') && isChanging(row));
  return host
    ? [
        remark(
          host,
          'look',
          'mta-sts-moves',
          'It serves the policy for mail: have /.well-known/mta-sts.txt at the new place, with a certificate, before the cutover.',
        ),
      ]
    : [];
};
