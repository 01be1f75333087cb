import { fixedTo } from '../fix';
import { Check, remark } from './check';

/** That no mail is taken, beside mail hosts that take it: it has to stand alone (RFC 7505 §3). */
export const nullMx: Check = ({ rulings }) =>
  rulings.flatMap((row) => {
    const data = row.type === 'MX' ? (row.planned?.data ?? []) : [];
    const hosts = data.filter((one) => !/^\d+ \.$/.test(one));
    if (hosts.length === data.length || hosts.length === 0) return [];
    return [
      remark(row, 'look', 'mx-null-beside', 'It says that no mail is taken here, and names mail hosts beside that: senders do either.', [
        { text: 'Keep the mail hosts.', rows: [fixedTo(rulings, row.owner, 'MX', hosts)] },
      ]),
    ];
  });
