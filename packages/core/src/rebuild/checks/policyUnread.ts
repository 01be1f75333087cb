import { isBimi, readBimi } from '../../policy/bimi';
import { badReports, isDmarc } from '../../policy/dmarc';
import { isTlsReports, readTlsReports } from '../../policy/tlsReports';
import { Check, Remark, remark } from './check';
import { textsOf } from './textsAt';

/** Policies of mail whose readers pass them over: where reports about TLS go (RFC 8460 §3), the mark beside a sender, places for DMARC reports (RFC 7489 §6.2). */
export const policyUnread: Check = ({ rulings }) =>
  rulings.flatMap((row): Remark[] =>
    textsOf(row).flatMap((text): Remark[] => {
      if (isTlsReports(text)) {
        const read = readTlsReports(text);
        return read.ok ? [] : [remark(row, 'look', 'tls-reports-unreadable', `Nobody sends these reports: ${read.problem}.`)];
      }
      if (isBimi(text)) {
        const read = readBimi(text);
        return read.ok ? [] : [remark(row, 'look', 'bimi-unreadable', `Mailboxes show no mark by it: ${read.problem}.`)];
      }
      if (!isDmarc(text) || !/^_dmarc\./i.test(row.owner)) return [];
      return badReports(text).map((uri) =>
        remark(row, 'look', 'dmarc-reports', `“${uri.slice(0, 60)}” is no place for reports: it has to be mailto: and an address.`),
      );
    }),
  );
