import { SheetRow } from '@wanderon/core';
import { useEffect, useRef, useState } from 'react';
import { listKeys, useKeys } from '../../ui/useKeys';
import { Button } from '../../ui/button';
import { useCopying } from '../../ui/copy';

const ACTS = { delete: 'delete', edit: 'edit', add: 'add' };
const FIELDS = ['name', 'type', 'priority', 'value', 'ttl', 'front'] as const;
type FieldName = (typeof FIELDS)[number];
const TITLES: Readonly<Record<FieldName, string>> = { name: 'Name', type: 'Type', priority: 'Priority', value: 'Value', ttl: 'TTL', front: 'Own addresses' };
/** What is chosen in a panel, and not typed. */
const CHOSEN: ReadonlySet<FieldName> = new Set(['type', 'front']);

/** What has to be typed of a row: what is chosen from a list is not copied, nor what stands there already. */
function copied({ entry, before }: SheetRow): FieldName[] {
  return entry ? FIELDS.filter((field) => !CHOSEN.has(field) && entry[field] !== undefined && entry[field] !== '' && entry[field] !== before?.[field]) : [];
}

/** What to do in a panel, field by field as it wants them: one key copies the next field and moves on; ticks are everybody's. */
export function HandSheet({
  rows,
  typed,
  onTick,
  slips,
  onGive,
}: {
  rows: readonly SheetRow[];
  typed: readonly string[];
  /** Undefined: nothing can be ticked. */
  onTick: ((row: string, is: boolean) => void) | undefined;
  slips: (row: SheetRow) => readonly string[];
  /** Gives the sheet to somebody else; undefined where that cannot be done here. */
  onGive?: (() => void) | undefined;
}) {
  // Somebody else may have begun: the first row that is open is the one that a key acts on.
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      rows.findIndex((row) => !typed.includes(row.id)),
    ),
  );
  const [next, setNext] = useState(0);
  const copying = useCopying();
  const done = new Set(typed);
  const current = rows[Math.min(at, rows.length - 1)];
  const table = useRef<HTMLTableElement>(null);
  // Enter copies from the first moment on, and follows no link that led here.
  useEffect(() => table.current?.focus({ preventScroll: true }), []);

  const point = (row: number): void => {
    setAt(Math.max(0, Math.min(rows.length - 1, row)));
    setNext(0);
  };
  const mark = (row: SheetRow, is: boolean): void => {
    onTick?.(row.id, is);
  };
  const copy = (row: SheetRow, field: FieldName): Promise<boolean> => copying(row.entry?.[field] ?? '', `${TITLES[field]} is copied.`);
  const advance = async (): Promise<void> => {
    if (!current) return;
    const fields = copied(current);
    const field = fields[next];
    const isLast = next >= fields.length - 1;
    if (isLast) point(at + 1);
    else setNext(next + 1);
    if (!field || (await copy(current, field))) {
      if (isLast) mark(current, true);
      return;
    }
    // It goes on from what was not copied: else the value of the field before would be typed there.
    setAt(at);
    setNext(next);
  };

  useKeys({
    ...listKeys((by) => point(at + by)),
    Enter: advance,
    t: () => current && mark(current, !done.has(current.id)),
  });

  if (rows.length === 0) return <p className="py-2 text-faded">Nothing is to be typed.</p>;
  const left = rows.filter((row) => !done.has(row.id)).length;
  // A field that this panel does not have is no column.
  const columns = FIELDS.filter((field) => rows.some((row) => (row.entry ?? row.before)?.[field] !== undefined));
  return (
    <div>
      <p className="flex items-baseline gap-4 pb-1 print:hidden">
        <span>
          {left === 0 ? 'Every row is ticked; what is served is read back all the same.' : `${rows.length - left} of ${rows.length} rows are ticked.`}
        </span>
        <span className="ml-auto text-sm text-faded">Enter copies the next field · t tick · j k rows</span>
        {onGive && <Button onClick={onGive}>Give it to somebody</Button>}
        <Button onClick={() => window.print()}>Print</Button>
      </p>
      <table ref={table} tabIndex={-1} className="w-full outline-none" aria-label="Handover sheet">
        <thead>
          <tr className="smallcaps border-b border-ink text-left">
            <th className="py-0.5" />
            <th className="pr-4">Do</th>
            {columns.map((field) => (
              <th key={field} className={field === 'value' ? '' : 'pr-3'}>
                {TITLES[field]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, index) => (
            <Row
              key={row.id}
              row={row}
              columns={columns}
              done={done.has(row.id)}
              current={index === at}
              field={index === at ? copied(row)[next] : undefined}
              slips={slips(row)}
              onPoint={() => point(index)}
              onCopy={(field) => void copy(row, field)}
              onTick={onTick ? (is) => mark(row, is) : undefined}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Row({
  row,
  columns,
  done,
  current,
  field,
  slips,
  onPoint,
  onCopy,
  onTick,
}: {
  row: SheetRow;
  columns: readonly FieldName[];
  done: boolean;
  current: boolean;
  field: FieldName | undefined;
  slips: readonly string[];
  onPoint: () => void;
  onCopy: (field: FieldName) => void;
  onTick: ((is: boolean) => void) | undefined;
}) {
  const shown = row.entry ?? row.before!;
  return (
    <tr
      onClick={onPoint}
      aria-current={current || undefined}
      className={`border-b border-rule align-top leading-6 ${current ? 'bg-shade shadow-[inset_3px_0_0_var(--accent)]' : ''} ${done ? 'text-faded' : ''}`}
    >
      <td className="py-1 pr-3 pl-2">
        <input
          type="checkbox"
          aria-label={`${shown.name} ${shown.type} is typed`}
          disabled={!onTick}
          checked={done}
          onChange={(event) => onTick?.(event.target.checked)}
        />
      </td>
      <td className={`pr-4 ${row.act === 'delete' ? 'text-rust' : 'font-semibold text-accent'}`}>{ACTS[row.act]}</td>
      {columns.map((one) => {
        const value = shown[one];
        const was = row.act === 'edit' ? row.before![one] : undefined;
        return (
          <td
            key={one}
            className={`mono min-w-0 pr-3 ${one === 'value' ? 'w-full max-w-0 break-words' : 'whitespace-nowrap'} ${row.act === 'delete' ? 'line-through' : ''}`}
          >
            {was !== undefined && was !== value && <span className="block text-faded line-through">{was}</span>}
            {value === undefined ? (
              <span className="text-faded">—</span>
            ) : value === '' ? (
              <span className="text-faded italic">empty</span>
            ) : row.entry && !CHOSEN.has(one) ? (
              <button
                type="button"
                title={`Copy the ${TITLES[one].toLowerCase()}`}
                onClick={() => onCopy(one)}
                className={`min-h-[24px] min-w-[24px] max-w-full cursor-pointer text-left break-words hover:text-accent ${field === one ? 'underline decoration-accent decoration-2 underline-offset-4' : ''}`}
              >
                {value}
              </button>
            ) : (
              value
            )}
            {(one === 'name' || one === 'value') && row.whole?.[one] !== undefined && <WholeForm field={one} text={row.whole[one]} />}
            {one === 'value' &&
              slips.map((slip) => (
                <span key={slip} className="block font-[family-name:var(--font-sans)] text-rust print:hidden">
                  {slip}
                </span>
              ))}
          </td>
        );
      })}
    </tr>
  );
}

/** The other form of a field, where it is not known which of the two the panel wants. */
function WholeForm({ field, text }: { field: 'name' | 'value'; text: string }) {
  const copying = useCopying();
  return (
    <button
      type="button"
      title={`Copy the whole ${field}`}
      onClick={() => void copying(text, `The whole ${field} is copied.`)}
      className="block max-w-full cursor-pointer text-left text-sm break-words text-faded hover:text-accent"
    >
      {text}
    </button>
  );
}
