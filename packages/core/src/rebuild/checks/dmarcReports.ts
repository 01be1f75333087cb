import { isDmarc, readDmarc } from '../../policy/dmarc';
import { Check, remark } from './check';
import { textsOf } from './textsAt';

/** A DMARC policy that has reports sent to a domain which does not say that it takes them: nobody sends them there (RFC 7489 §7.1). */
export const dmarcReports: Check = ({ rulings, outside }) =>
  rulings.flatMap((ruling) => {
    if (!outside || !/^_dmarc\./i.test(ruling.owner)) return [];
    const about = ruling.owner.slice('_dmarc.'.length).replace(/\.$/, '').toLowerCase();
    const policies = textsOf(ruling).filter(isDmarc).map(readDmarc);
    const places = new Set(policies.flatMap((one) => (one.ok ? one.reports : [])));
    const refusing = outside.reports.filter((one) => one.takes === false && one.about.toLowerCase() === about && places.has(one.to.toLowerCase()));
    return refusing.map(({ to }) =>
      remark(
        ruling,
        'look',
        'dmarc-reports',
        `Reports go to ${to}, which does not say that it takes them of ${about}: receivers send none. It says so by a text at ${about}._report._dmarc.${to}.`,
      ),
    );
  });
