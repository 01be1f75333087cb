import { namesTyped } from '@wanderon/core';
import { useId, useState } from 'react';
import { useMoveAction } from '../api';
import { Button } from '../ui/button';
import { inputLook } from '../ui/field';
import { Failed } from '../ui/states';
import { ChapterProps, stepIn } from './movePlace';

/** Where a host gives each domain nameservers of its own, those of this one are said here, and can be set right until the change. */
export function GivenNames({ move, leg, may }: Pick<ChapterProps, 'move' | 'leg' | 'may'>) {
  const step = stepIn(leg, 'named');
  const [changing, setChanging] = useState(false);
  if (!step || leg.seen.ts !== null || step.state === 'waiting') return null;
  const open = step.state === 'ready';
  if (!open && !changing)
    return may ? (
      <p className="py-1 text-sm text-faded">
        As the host gave them to this domain.{' '}
        <button type="button" className="cursor-pointer text-accent underline" onClick={() => setChanging(true)}>
          Give others
        </button>
      </p>
    ) : null;
  return (
    <div className="my-2 border-l-4 border-accent bg-shade px-3 py-2">
      <p className="font-semibold">{step.title}</p>
      {step.text !== null && <p>{step.text}</p>}
      {may && <NamesForm move={move} names={leg.newNameservers} onDone={() => setChanging(false)} />}
    </div>
  );
}

function NamesForm({ move, names, onDone }: Pick<ChapterProps, 'move'> & { names: readonly string[]; onDone: () => void }) {
  const id = useId();
  const [text, setText] = useState(names.map((name) => name.replace(/\.$/, '')).join('\n'));
  const give = useMoveAction<{ names: readonly string[] }>(move.id, 'PUT', () => '/nameservers');
  const read = namesTyped(text);
  return (
    <form
      className="mt-1.5 flex max-w-xl flex-col gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        give.mutate({ names: read }, { onSuccess: onDone });
      }}
    >
      <label htmlFor={id} className="sr-only">
        Nameservers, one a line
      </label>
      <textarea
        id={id}
        rows={Math.min(6, Math.max(3, read.length + 1))}
        spellCheck={false}
        placeholder="As its panel shows them, one a line"
        value={text}
        onChange={(event) => setText(event.target.value)}
        className={`${inputLook} mono`}
      />
      <div className="flex items-baseline gap-3">
        <Button type="submit" disabled={read.length === 0 || give.isPending}>
          {read.length === 0 ? 'These it gave' : `These ${read.length} it gave`}
        </Button>
        {names.length > 0 && <Button onClick={onDone}>Leave it</Button>}
      </div>
      {give.isError && <Failed error={give.error} />}
    </form>
  );
}
