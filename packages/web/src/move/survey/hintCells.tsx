import { AnswerHint, HINT_ANSWERS, HintView, NameHint } from '@wanderon/contract';
import { FormEvent, ReactNode, useState } from 'react';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';
import { useToast } from '../../ui/toast';
import { HintRow } from './surveyRows';

/** A sign of something that was not seen, where it arose, and what a person knows of it. `move` is undefined where nothing can be said. */
export function HintCells({ row, label, columns, move, may }: { row: HintRow; label: ReactNode; columns: string; move: string | undefined; may: boolean }) {
  const answer = useMoveAction<AnswerHint>(move ?? '', 'POST', () => '/hints');
  const [naming, setNaming] = useState(false);
  const { fail } = useToast();
  const { hint } = row;
  const say = (said: HintView['answer']): void => answer.mutate({ owner: hint.owner, text: hint.text, answer: said }, { onError: fail });
  return (
    <div className={columns}>
      {label}
      <span role="gridcell" className={hint.answer ? 'text-faded' : 'font-semibold text-accent'}>
        hint
      </span>
      <span role="gridcell" className={`col-span-3 min-w-0 max-md:col-span-1 ${hint.answer ? 'text-faded' : ''}`}>
        <span className={hint.answer ? 'line-through' : ''}>{hint.text}</span>
        {naming && move && <NameForm hint={hint} move={move} onDone={() => setNaming(false)} />}
      </span>
      <span role="gridcell" className="col-span-2 flex flex-wrap gap-x-1 text-sm max-md:col-span-3">
        {hint.answer && <span className="text-faded">{hint.answer}</span>}
        {may && move && hint.answer && (
          <Button kind="quiet" className="py-0" onClick={() => say(null)}>
            Open it again
          </Button>
        )}
        {may && move && !hint.answer && (
          <>
            <Button kind="quiet" className="py-0" aria-expanded={naming} onClick={() => setNaming(!naming)}>
              Name it
            </Button>
            {HINT_ANSWERS.map((said) => (
              <Button key={said} kind="quiet" className="py-0" onClick={() => say(said)}>
                {said === 'not ours' ? 'Not ours' : 'Retired'}
              </Button>
            ))}
          </>
        )}
      </span>
    </div>
  );
}

/** The name that a hint is a sign of: it is asked for at once. */
function NameForm({ hint, move, onDone }: { hint: HintView; move: string; onDone: () => void }) {
  const name = useMoveAction<NameHint>(move, 'POST', () => '/hints/name');
  const [text, setText] = useState('');
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    name.mutate({ owner: hint.owner, text: hint.text, name: text }, { onSuccess: onDone });
  };
  return (
    <form onSubmit={submit} className="mt-1 flex items-start gap-2">
      <span className="grow">
        <input
          autoFocus
          aria-label={`The name behind the sign at ${hint.owner}`}
          placeholder="the name, below the domain or whole"
          spellCheck={false}
          value={text}
          aria-invalid={name.isError}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === 'Escape' && onDone()}
          className={`${inputLook} mono py-0.5`}
        />
        {name.isError && <span className="block text-rust">{name.error.message}</span>}
      </span>
      <Button type="submit" disabled={name.isPending || text.trim() === ''}>
        Ask for it
      </Button>
    </form>
  );
}
