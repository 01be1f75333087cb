import { Column, IN_HAND_LIMIT, InHand, InHandRow, Name, printRdata, readInHand, typeMnemonic } from '@wanderon/core';
import { useMemo, useState } from 'react';
import { BadLines } from '../ui/badLines';
import { inputLook } from '../ui/field';
import { LoadFile } from '../ui/loadFile';

/** Seconds for rows of a table without a TTL. */
const TTL = 3600;
/** Rows of the preview that are shown; all are read. */
const SHOWN = 200;
const COLUMNS: readonly Column[] = ['name', 'type', 'ttl', 'class', 'priority', 'weight', 'port', 'value', 'other'];
const KINDS: Readonly<Record<InHand['kind'], string>> = {
  'zone file': 'a zone file',
  table: 'a table',
  names: 'a list of names',
  mail: 'a mail with its headers',
};

/** What was pasted, as it was read, with what a person set right about it. */
export interface PastedText {
  readonly text: string;
  readonly reading: InHand;
  readonly take: (text: string) => void;
  readonly setColumns: (columns: readonly Column[]) => void;
  readonly toggle: (line: number) => void;
}

/** Reads what is pasted about a zone: an export, a table, a list of names or a mail. */
export function usePasted(domain: string): PastedText {
  const [text, setText] = useState('');
  const [columns, setColumns] = useState<readonly Column[]>();
  const [other, setOther] = useState<ReadonlySet<number>>(new Set());
  const zone = useMemo(() => Name.parse(`${domain}.`), [domain]);
  const read = useMemo(() => readInHand(text, zone, { ttl: TTL, ...(columns ? { columns } : {}) }), [text, zone, columns]);
  const reading = useMemo(() => chosen(read, other), [read, other]);
  const take = (given: string): void => {
    setText(given);
    setColumns(undefined);
    setOther(new Set());
  };
  return { text, reading, take, setColumns, toggle: (line) => setOther((before) => toggled(before, line)) };
}

/** The field for it, and below it what was read, row by row. */
export function Pasted({ pasted, domain, label }: { pasted: PastedText; domain: string; label: string }) {
  const { text, reading } = pasted;
  const names = new Set(reading.rows.map((row) => row.name.key)).size;
  return (
    <>
      <textarea
        aria-label={label}
        autoFocus
        rows={text === '' ? 8 : 4}
        spellCheck={false}
        value={text}
        onChange={(event) => pasted.take(event.target.value)}
        className={`${inputLook} mono`}
      />
      {text.trim() !== '' && (
        <>
          <p role="status" className="mt-2">
            Read as {KINDS[reading.kind]}: {reading.rows.length} {reading.rows.length === 1 ? 'row' : 'rows'} with {names} {names === 1 ? 'name' : 'names'}
            {reading.bad.length > 0 && (
              <span className="text-rust">
                {' '}
                · {reading.bad.length} {reading.bad.length === 1 ? 'line' : 'lines'} cannot be read
              </span>
            )}
            {reading.leftOut > 0 && <span className="text-rust"> · {reading.leftOut} further lines were left out</span>}
          </p>
          {reading.columns.length > 0 && <ColumnChoice columns={reading.columns} onChange={pasted.setColumns} />}
          <Preview reading={reading} zone={Name.parse(`${domain}.`)} onOther={pasted.toggle} />
          <BadLines bad={reading.bad} />
        </>
      )}
    </>
  );
}

/** Takes it from a file. */
export function PastedFile({ pasted }: { pasted: PastedText }) {
  return <LoadFile accept=".txt,.csv,.zone,.db,.html,.eml,text/*,message/rfc822" largest={IN_HAND_LIMIT} onText={pasted.take} />;
}

function ColumnChoice({ columns, onChange }: { columns: readonly Column[]; onChange: (columns: readonly Column[]) => void }) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2" role="group" aria-label="What each column is">
      <span className="text-faded">Columns</span>
      {columns.map((column, index) => (
        <select
          key={index}
          aria-label={`Column ${index + 1}`}
          value={column}
          onChange={(event) => onChange(columns.map((one, at) => (at === index ? (event.target.value as Column) : one)))}
          className="rounded-[3px] border border-rule bg-sheet px-1 py-0.5"
        >
          {COLUMNS.map((one) => (
            <option key={one} value={one}>
              {one === 'ttl' ? 'TTL' : one}
            </option>
          ))}
        </select>
      ))}
    </div>
  );
}

function Preview({ reading, zone, onOther }: { reading: InHand; zone: Name; onOther: (line: number) => void }) {
  return (
    <div role="table" aria-label="As it was read" className="mt-2 max-h-[32vh] overflow-y-auto border-t border-ink" tabIndex={0}>
      {reading.rows.slice(0, SHOWN).map((row, index) => (
        <div role="row" key={index} className="grid grid-cols-[11rem_4.5rem_1fr] gap-3 border-b border-rule py-0.5">
          <span role="cell" className="mono font-semibold break-all">
            {row.name.relativeTo(zone)}
          </span>
          <span role="cell" className="mono">
            {row.record ? typeMnemonic(row.record.type) : ''}
          </span>
          <span role="cell">
            {row.record && <span className="mono break-all">{printRdata(row.record.type, row.record.data)}</span>}
            {row.guesses.length > 0 && <span className="block text-sm text-faded">{row.guesses.join('; ')}</span>}
            {row.otherName && (
              <button type="button" className="block text-left text-sm text-accent hover:underline" onClick={() => onOther(row.line)}>
                or is <span className="mono">{row.otherName.toString()}</span> meant?
              </button>
            )}
          </span>
        </div>
      ))}
      {reading.rows.length > SHOWN && <p className="py-1 text-faded">and {reading.rows.length - SHOWN} more rows</p>}
    </div>
  );
}

/** With the other reading of names where a person chose it. */
function chosen(reading: InHand, other: ReadonlySet<number>): InHand {
  const swapped = (row: InHandRow): InHandRow => {
    if (!row.otherName || !other.has(row.line)) return row;
    return { ...row, name: row.otherName, otherName: row.name, record: row.record && { ...row.record, owner: row.otherName } };
  };
  return { ...reading, rows: reading.rows.map(swapped) };
}

function toggled(set: ReadonlySet<number>, item: number): ReadonlySet<number> {
  const next = new Set(set);
  if (!next.delete(item)) next.add(item);
  return next;
}
