import { MoveView } from '@wanderon/contract';
import { ownerBelow } from '../owner';

export interface PreviewRow {
  readonly id: string;
  readonly owner: string;
  readonly type: string;
  readonly before: readonly string[];
  /** Undefined: the row is left out, or taken out. */
  readonly after: readonly string[] | undefined;
  readonly ruling: string;
}

/** Rows of a preview that are drawn; all are ruled. */
const SHOWN = 200;

/** What a rule makes of rows, each of which can be taken out of it. */
export function RulePreview({
  move,
  rows,
  without,
  onTurn,
}: {
  move: MoveView;
  rows: readonly PreviewRow[];
  /** Ids of rows that are taken out. */
  without: ReadonlySet<string>;
  onTurn: (id: string) => void;
}) {
  return (
    <div className="max-h-[34vh] overflow-y-auto border-t border-ink" tabIndex={0} role="region" aria-label="Rows that change">
      <table className="w-full table-fixed">
        <tbody>
          {rows.slice(0, SHOWN).map(({ id, owner, type, before, after, ruling }) => {
            const out = without.has(id);
            const name = `${ownerBelow(owner, move.domain)} ${type}`;
            return (
              <tr key={id} className={`border-b border-rule align-baseline ${out ? 'text-faded' : ''}`}>
                <td className="w-7 py-0.5">
                  <input type="checkbox" aria-label={name} checked={!out} onChange={() => onTurn(id)} className="size-4 translate-y-0.5 accent-(--accent)" />
                </td>
                <td className="mono w-44 truncate pr-3" title={name}>
                  <b className="font-semibold">{ownerBelow(owner, move.domain)}</b> <span className="text-faded">{type}</span>
                </td>
                <td className="mono truncate pr-3 text-faded" title={before.join('\n')}>
                  {before.join(', ')}
                </td>
                <td className="truncate" title={after?.join('\n')}>
                  {after === undefined ? (
                    <span className="text-faded italic">{ruling === 'drop' ? 'not rebuilt' : 'taken out'}</span>
                  ) : (
                    <>
                      <span className={`text-sm ${out ? '' : 'text-accent'}`}>{ruling}</span>{' '}
                      {ruling !== 'carry' && <span className="mono">{after.join(', ')}</span>}
                    </>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {rows.length > SHOWN && <p className="py-1 text-faded">and {rows.length - SHOWN} more rows, all of which it rules</p>}
    </div>
  );
}
