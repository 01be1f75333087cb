import { MoveView, RulingView } from '@wanderon/contract';
import { Name, readRow } from '@wanderon/core';
import { FormEvent, useState } from 'react';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { inputLook } from '../../ui/field';
import { ownerBelow } from '../owner';

/** Rows of the preview that are shown; all are ruled. */
const SHOWN = 12;

/** Gives many rows of one type the same value, shown first as the rows that it changes. */
export function ManyEditor({
  move,
  rows,
  busy,
  onRepoint,
  onClose,
}: {
  move: MoveView;
  rows: readonly RulingView[];
  busy: boolean;
  onRepoint: (data: string) => void;
  onClose: () => void;
}) {
  const [data, setData] = useState('');
  const types = [...new Set(rows.map((row) => row.type))];
  const [type] = types;
  const read = readRow(Name.parse(`${move.domain}.`), { owner: '@', type: type ?? 'A', ttl: '300', data });
  const problem = data.trim() === '' || read.ok ? undefined : read.problem;
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (read.ok) onRepoint(data);
  };
  if (types.length > 1)
    return (
      <Dialog open onClose={onClose} title={`Change ${rows.length} rows`}>
        <p>They are of several types ({types.join(', ')}): one value is none for all of them. Mark rows of one type.</p>
        <Button className="mt-4" onClick={onClose}>
          Leave it
        </Button>
      </Dialog>
    );
  return (
    <Dialog open onClose={onClose} title={`Change ${rows.length} rows`} wide>
      <form onSubmit={submit} noValidate>
        <label className="block">
          <span className="mb-0.5 block font-semibold">Value of all of them ({type})</span>
          <textarea
            rows={2}
            autoFocus
            spellCheck={false}
            value={data}
            aria-invalid={problem !== undefined}
            onChange={(event) => setData(event.target.value)}
            className={`${inputLook} mono`}
          />
        </label>
        <p className={`mb-3 ${problem ? 'text-rust' : 'text-sm text-faded'}`}>{problem ?? 'One record a line. Each row keeps its TTL.'}</p>
        <div role="table" aria-label="Rows that change" className="max-h-[36vh] overflow-y-auto border-t border-ink" tabIndex={0}>
          {rows.slice(0, SHOWN).map((row) => (
            <div role="row" key={row.id} className="grid grid-cols-[11rem_minmax(0,1fr)_minmax(0,1fr)] gap-3 border-b border-rule py-0.5">
              <span role="cell" className="mono truncate font-semibold">
                {ownerBelow(row.owner, move.domain)}
              </span>
              <span role="cell" className="mono truncate text-faded">
                {(row.planned ?? row.found)?.data.join(', ')}
              </span>
              <span role="cell" className="mono truncate">
                {read.ok ? read.set.data.join(', ') : ''}
              </span>
            </div>
          ))}
          {rows.length > SHOWN && <p className="py-1 text-faded">and {rows.length - SHOWN} more rows</p>}
        </div>
        <div className="mt-4 flex gap-2">
          <Button kind="main" type="submit" disabled={busy || !read.ok}>
            Change {rows.length} rows
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
