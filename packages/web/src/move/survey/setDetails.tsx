import { PURPOSES, Purpose } from '@wanderon/core';
import { PurposeInput, StoredInput } from '@wanderon/contract';
import { FormEvent, ReactNode, useId, useState } from 'react';
import { useMoveAction } from '../../api';
import { duration } from '../../time';
import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';
import { useToast } from '../../ui/toast';
import { SetRow, evidenceWords } from './surveyRows';

/** Everything known of one record set: each sighting beside the other, why its name was asked for, what it ends at and is for. */
export function SetDetails({ row, move, may }: { row: SetRow; move: string | undefined; may: boolean }) {
  const { text, ends } = row;
  return (
    <div role="gridcell" className="mt-1 mb-1 ml-4 border-l-2 border-rule pl-3 text-[0.93rem] leading-snug">
      <Part title="seen by">
        {text.evidence.map((one, index) => (
          <div key={index} className="grid grid-cols-[minmax(0,32rem)_minmax(0,1fr)] gap-3 max-md:grid-cols-1 max-md:gap-0">
            <span className="break-words">{evidenceWords(one)}</span>
            <span className={one.absent || one.data ? 'text-rust' : 'text-faded'}>
              {one.absent ? (
                'has no such record set'
              ) : one.data ? (
                <span className="mono [overflow-wrap:anywhere]">{one.data.join(', ')}</span>
              ) : (
                `the same${one.ttl !== null && one.ttl !== text.ttl ? `, with a TTL of ${duration(one.ttl)}` : ''}`
              )}
            </span>
          </div>
        ))}
      </Part>
      {text.varying !== null && <Part title="varies">{text.varying}</Part>}
      {text.fronted !== null && (
        <Part title="answered by the host">
          {text.fronted}.{may && move && <Stored row={row} move={move} />}
        </Part>
      )}
      {ends.length > 0 && (
        <Part title="ends at">
          {ends.map((end) => (
            <div key={end.target}>
              <span className="mono">{end.target.replace(/\.$/, '')}</span>{' '}
              <span className={end.addresses.length === 0 ? 'text-rust' : 'text-faded'}>
                {end.addresses.length === 0 ? 'has no address' : end.addresses.join(', ')}
              </span>
            </div>
          ))}
        </Part>
      )}
      <Part title="is for">
        {may && move ? <PurposeChoice row={row} move={move} /> : row.meaning.purpose} <span className="text-faded">{row.meaning.reason}</span>
      </Part>
    </div>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[4.2rem_minmax(0,1fr)] gap-3 py-0.5">
      <span className="text-faded">{title}</span>
      <div className="min-w-0">{children}</div>
    </div>
  );
}

function PurposeChoice({ row, move }: { row: SetRow; move: string }) {
  const set = useMoveAction<PurposeInput>(move, 'PUT', () => '/purposes');
  const { fail } = useToast();
  return (
    <select
      aria-label={`What ${row.text.owner} ${row.text.type} is for`}
      value={row.corrected ? row.meaning.purpose : ''}
      onChange={(event) =>
        set.mutate({ owner: row.text.owner, type: row.text.type, purpose: (event.target.value || null) as Purpose | null }, { onError: fail })
      }
      className="rounded-[3px] border border-rule bg-sheet px-1"
    >
      <option value="">{row.corrected ? 'as worked out' : row.meaning.purpose}</option>
      {PURPOSES.map((purpose) => (
        <option key={purpose}>{purpose}</option>
      ))}
    </select>
  );
}

/** The value as the host's panel shows it. */
function Stored({ row, move }: { row: SetRow; move: string }) {
  const set = useMoveAction<StoredInput>(move, 'PUT', () => '/stored');
  const [value, setValue] = useState(row.text.stored?.join('\n') ?? '');
  const id = useId();
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    set.mutate({ owner: row.text.owner, type: row.text.type, data: value });
  };
  return (
    <form onSubmit={submit} className="mt-1 flex max-w-2xl items-start gap-2">
      <label htmlFor={id} className="pt-0.5 whitespace-nowrap">
        The panel of its host shows
      </label>
      <span className="grow">
        <input
          id={id}
          value={value}
          spellCheck={false}
          aria-invalid={set.isError}
          onChange={(event) => setValue(event.target.value)}
          className={`${inputLook} mono py-0.5`}
        />
        {set.isError && <span className="block text-rust">{set.error.message}</span>}
      </span>
      <Button type="submit" disabled={set.isPending}>
        Save
      </Button>
    </form>
  );
}
