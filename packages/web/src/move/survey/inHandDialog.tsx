import { Column, IN_HAND_LIMIT, InHand, InHandRow, Name, givenSerial, givenSets, printRdata, readInHand, rrsetToText, typeMnemonic } from '@wanderon/core';
import { InHandInput, MoveView } from '@wanderon/contract';
import { useMemo, useState } from 'react';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { inputLook } from '../../ui/field';
import { LoadFile } from '../../ui/loadFile';
import { Failed } from '../../ui/states';

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

/** What somebody has in hand of the zone: read here, shown as it was understood, and then asked for. */
export function InHandDialog({ move, onClose }: { move: MoveView; onClose: () => void }) {
  const give = useMoveAction<InHandInput>(move.id, 'POST', () => '/in-hand');
  const [text, setText] = useState('');
  const [columns, setColumns] = useState<readonly Column[]>();
  const [other, setOther] = useState<ReadonlySet<number>>(new Set());
  const zone = useMemo(() => Name.parse(`${move.domain}.`), [move.domain]);
  const read = useMemo(() => readInHand(text, zone, { ttl: TTL, ...(columns ? { columns } : {}) }), [text, zone, columns]);
  const reading = useMemo(() => chosen(read, other), [read, other]);
  const take = (given: string): void => {
    setText(given);
    setColumns(undefined);
    setOther(new Set());
  };
  const names = new Set(reading.rows.map((row) => row.name.key)).size;
  const submit = (): void =>
    give.mutate(
      {
        serial: givenSerial(reading, zone) ?? null,
        names: reading.rows.filter((row) => !row.record).map((row) => row.name.toString()),
        sets: givenSets(reading).map(rrsetToText),
      },
      { onSuccess: onClose },
    );
  return (
    <Dialog open onClose={onClose} title={`What you have in hand of ${move.shown}`} wide>
      <p className="mb-2">
        Paste an export, the table of a panel, a list of names, or a mail from this domain with its headers. Every name in it is asked for, and what is served
        is held against it.
      </p>
      <textarea
        aria-label="What you have in hand"
        autoFocus
        rows={text === '' ? 8 : 4}
        spellCheck={false}
        value={text}
        onChange={(event) => take(event.target.value)}
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
          {reading.kind === 'zone file' && !reading.complete && (
            <p>What was not read may be in the zone all the same: this file does not show that the inventory is whole.</p>
          )}
          {reading.columns.length > 0 && <ColumnChoice columns={reading.columns} onChange={setColumns} />}
          <Preview reading={reading} zone={zone} onOther={(line) => setOther((before) => toggled(before, line))} />
          {reading.bad.length > 0 && (
            <ul className="mt-2 max-h-32 overflow-y-auto border-t border-ink">
              {reading.bad.slice(0, SHOWN).map((bad) => (
                <li key={bad.line} className="grid grid-cols-[4rem_1fr] gap-3 border-b border-rule py-0.5">
                  <span className="text-faded">line {bad.line}</span>
                  <span>
                    <span className="mono break-all">{bad.text}</span>: <span className="text-rust">{bad.problem}</span>
                  </span>
                </li>
              ))}
            </ul>
          )}
        </>
      )}
      {give.isError && <Failed error={give.error} />}
      <div className="mt-4 flex gap-2">
        <Button kind="main" disabled={give.isPending || reading.rows.length === 0} onClick={submit}>
          Ask for {names === 1 ? 'this name' : `these ${names} names`} and take the survey again
        </Button>
        <Button onClick={onClose}>Not now</Button>
        <span className="ml-auto self-center">
          <LoadFile accept=".txt,.csv,.zone,.db,.html,.eml,text/*,message/rfc822" largest={IN_HAND_LIMIT} onText={take} />
        </span>
      </div>
    </Dialog>
  );
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
