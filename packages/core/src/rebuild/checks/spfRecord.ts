import { Name } from '../../dns/name';
import { quotedText } from '../../dns/quotedText';
import { mergedSpf } from '../../policy/spfText';
import { Ruling } from '../ruling';
import { Fix, fixedTo } from '../fix';
import { SPF_LOOKUPS, isSpf, readSpf } from '../../policy/spf';
import { Check, Remark, remark } from './check';
import { spfChain } from './spfChain';
import { textsOf } from './textsAt';

/** What receivers make of an SPF record: several are an error (RFC 7208 §4.5), so is what cannot be read, and too many lookups (§4.6.4). */
export const spfRecord: Check = (input) => {
  const { rulings } = input;
  return rulings.flatMap((ruling): Remark[] => {
    const records = textsOf(ruling).flatMap((text) => readSpf(text) ?? []);
    if (records.length > 1)
      return [
        remark(ruling, 'stop', 'spf-several', 'There are several SPF records: receivers take that for an error. Put them together into one.', [
          asOne(rulings, ruling),
        ]),
      ];
    const [spf] = records;
    if (!spf) return [];
    const { lookups, loop } = spfChain(input, Name.parse(ruling.owner), spf);
    const on = lookups > spf.lookups ? ', and what it includes in this zone,' : '';
    return [
      ...(spf.unread.length > 0 ? [remark(ruling, 'look', 'spf-unreadable', `Receivers cannot read “${spf.unread[0]!.slice(0, 60)}” in the SPF record.`)] : []),
      ...(lookups > SPF_LOOKUPS && !loop
        ? [
            remark(
              ruling,
              'look',
              'spf-lookups',
              `The SPF record${on} asks the DNS ${lookups > 2 * SPF_LOOKUPS ? `more than ${2 * SPF_LOOKUPS}` : lookups} times; after ${SPF_LOOKUPS} receivers give up.`,
            ),
          ]
        : []),
      ...(spf.ends || spf.unread.length > 0
        ? []
        : [remark(ruling, 'look', 'spf-open', 'The SPF record does not say what becomes of everybody else: it has no all at its end.')]),
      ...(spf.terms.some(({ name, qualifier }) => name === 'all' && qualifier === '+')
        ? [remark(ruling, 'look', 'spf-all', 'The SPF record lets everybody send: +all.')]
        : []),
    ];
  });
};

/** The texts of the row with one SPF record in the place of the first. */
function asOne(rulings: readonly Ruling[], ruling: Ruling): Fix {
  const texts = textsOf(ruling);
  const merged = mergedSpf(texts);
  const first = texts.findIndex(isSpf);
  const data = ruling.planned!.data.flatMap((one, index) => (index === first ? [quotedText(merged)] : isSpf(texts[index]!) ? [] : [one]));
  return { text: `Put them together: ${merged}`, rows: [fixedTo(rulings, ruling.owner, ruling.type, data)] };
}
