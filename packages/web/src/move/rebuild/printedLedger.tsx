import { LedgerView, RulingView } from '@wanderon/contract';
import { LedgerGroup, RULING_LABELS } from '@wanderon/core';
import { duration, fullTime } from '../../time';
import { ownerBelow } from '../owner';

/** The whole ledger on paper: every row with its values, remarks and who decided it. */
export function PrintedLedger({
  title,
  domain,
  groups,
  remarksOf,
  lacking,
  now,
}: {
  title: string;
  domain: string;
  groups: readonly LedgerGroup<RulingView>[];
  remarksOf: (ruling: RulingView) => LedgerView['remarks'];
  /** Rows that are not read yet. */
  lacking: number;
  now: number;
}) {
  return (
    <table className="w-full table-fixed text-sm leading-snug">
      <colgroup>
        {['w-16', 'w-[18%]', '', '', 'w-[20%]'].map((width, index) => (
          <col key={index} className={width} />
        ))}
      </colgroup>
      <caption className="pb-2 text-left">
        <b className="text-base font-semibold">{domain}</b> {title}, {fullTime(now)}
        {lacking > 0 && <b className="font-semibold">, without {lacking} rows that could not be read</b>}
      </caption>
      <thead>
        <tr className="smallcaps border-b border-ink text-left">
          {['What to do', 'Name', 'Found', 'Planned', 'Remarks'].map((one) => (
            <th key={one} scope="col" className="pr-3 font-normal">
              {one}
            </th>
          ))}
        </tr>
      </thead>
      {groups.map((group) => (
        <tbody key={group.title}>
          <tr>
            <th scope="rowgroup" colSpan={5} className="pt-2 text-left font-semibold">
              {group.title}
            </th>
          </tr>
          {group.rows.map((row) => (
            <tr key={row.id} className="border-b border-rule align-baseline [break-inside:avoid]">
              <td className="pr-3">{RULING_LABELS[row.ruling]}</td>
              <td className="mono pr-3 [overflow-wrap:anywhere]">
                {ownerBelow(row.owner, domain)} {row.type}
              </td>
              <Values set={row.found} />
              {row.ruling === 'carry' ? <td className="pr-3 text-faded">the same</td> : <Values set={row.planned} />}
              <td>
                {remarksOf(row).map((one) => (
                  <span key={one.code + one.fact} className="block">
                    {one.weight === 'stop' ? 'Stop: ' : ''}
                    {one.text}
                    {one.waived !== null && ` Skipped: ${one.waived}`}
                  </span>
                ))}
                {row.decidedBy && <span className="block text-faded">decided by {row.decidedBy}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      ))}
    </table>
  );
}

function Values({ set }: { set: RulingView['found'] }) {
  return (
    <td className="mono pr-3 [overflow-wrap:anywhere]">
      {set?.data.map((one, index) => (
        <span key={index} className="block">
          {one}
        </span>
      ))}
      {set && <span className="block font-[family-name:var(--font-sans)] text-faded">TTL {duration(set.ttl)}</span>}
    </td>
  );
}
