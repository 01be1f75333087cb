import { LegView } from '@wanderon/contract';
import { OWN_TASK } from '@wanderon/core';
import { FormEvent, useState } from 'react';
import { useMoveAction } from '../api';
import { Button } from '../ui/button';
import { Field, inputLook } from '../ui/field';
import { Failed } from '../ui/states';
import { useToast } from '../ui/toast';
import { ChapterProps, stepIn } from './movePlace';
import { Ways } from './ways';

type NewTask = Pick<LegView['ownTasks'][number], 'title' | 'when' | 'note'>;
const NO_TASK: NewTask = { title: '', when: 'before', note: '' };

/** What colleagues are to know of a move, and what is to be done in it beside what its hosts ask for. */
export function Notes({ move, leg, may }: ChapterProps) {
  return (
    <section className="grid max-w-5xl grid-cols-2 gap-10 max-lg:grid-cols-1">
      <Note move={move} may={may} />
      <Tasks move={move} leg={leg} may={may} />
    </section>
  );
}

function Note({ move, may }: Pick<ChapterProps, 'move' | 'may'>) {
  const [text, setText] = useState(move.note);
  /** Notes that whoever types here has read, or has put there. */
  const [read, setRead] = useState([move.note]);
  const save = useMoveAction<{ text: string; seen: string }>(move.id, 'PUT', () => '/note');
  const { say } = useToast();
  const isOthers = !read.includes(move.note);
  const put = (): void =>
    save.mutate(
      { text, seen: move.note },
      {
        onSuccess: () => {
          setRead([...read, move.note, text.trim()]);
          say('The note is saved.');
        },
      },
    );
  return (
    <div>
      <h2 className="mb-2 border-b border-ink text-[1.25rem] leading-tight">Notes</h2>
      {may ? (
        <>
          <textarea
            aria-label="Notes on this move"
            rows={12}
            value={text}
            placeholder="What colleagues are to know: who was asked, what was agreed, where the login is kept."
            onChange={(event) => setText(event.target.value)}
            className={inputLook}
          />
          {isOthers && (
            <div role="status" className="my-2 border-l-4 border-rust bg-shade px-3 py-1.5">
              <p className="font-semibold">Somebody has changed the note meanwhile. It reads now:</p>
              <p className="whitespace-pre-line">{move.note || 'nothing'}</p>
            </div>
          )}
          <Button className="mt-2" disabled={save.isPending || text.trim() === move.note} onClick={put}>
            {isOthers ? 'Put mine in its place' : 'Save the note'}
          </Button>
          {save.isError && <Failed error={save.error} />}
        </>
      ) : (
        <p className="whitespace-pre-line">{move.note || 'None.'}</p>
      )}
    </div>
  );
}

function Tasks({ move, leg, may }: Pick<ChapterProps, 'move' | 'leg' | 'may'>) {
  const drop = useMoveAction<string>(move.id, 'DELETE', (id) => `/tasks/${id}`);
  const { fail } = useToast();
  return (
    <div>
      <h2 className="mb-2 border-b border-ink text-[1.25rem] leading-tight">Tasks of this move</h2>
      {leg.ownTasks.length === 0 && <p className="py-1 text-faded">None yet. What the new hosts ask for stands with them.</p>}
      <ul>
        {leg.ownTasks.map(({ id, title, when, note }) => {
          const step = stepIn(leg, OWN_TASK + id);
          const isDone = step?.state === 'done' || step?.state === 'left';
          return (
            <li key={id} className="border-b border-rule py-1.5">
              <p className="flex items-baseline gap-3">
                <b className={`font-semibold ${isDone ? 'text-faded line-through' : ''}`}>{title}</b>
                <span className="text-sm text-faded">
                  {when === 'before' ? 'before the cutover' : 'after it'}
                  {step?.state === 'waiting' && ', not yet'}
                </span>
                {may && (
                  <Button kind="quiet" className="ml-auto px-0 text-sm" onClick={() => drop.mutate(id, { onError: fail })}>
                    Take away
                  </Button>
                )}
              </p>
              {note !== '' && <p>{note}</p>}
              {may && step && <Ways step={step.id} ways={step.ways} move={move.id} />}
            </li>
          );
        })}
      </ul>
      {may && <AddTask move={move.id} />}
    </div>
  );
}

function AddTask({ move }: { move: string }) {
  const [task, setTask] = useState(NO_TASK);
  const add = useMoveAction<NewTask>(move, 'POST', () => '/tasks');
  const { fail } = useToast();
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    add.mutate(task, { onError: fail, onSuccess: () => setTask(NO_TASK) });
  };
  return (
    <form onSubmit={submit} className="mt-4" aria-label="Add a task">
      <Field label="What is to be done" value={task.title} onChange={(event) => setTask({ ...task, title: event.target.value })} />
      <div className="grid grid-cols-[12rem_1fr] gap-3 max-md:grid-cols-1">
        <label className="block">
          <span className="mb-0.5 block font-semibold">When</span>
          <select value={task.when} onChange={(event) => setTask({ ...task, when: event.target.value as NewTask['when'] })} className={inputLook}>
            <option value="before">before the cutover</option>
            <option value="after">after the cutover</option>
          </select>
        </label>
        <Field label="Note" value={task.note} onChange={(event) => setTask({ ...task, note: event.target.value })} />
      </div>
      <Button type="submit" disabled={add.isPending || task.title.trim() === ''}>
        Add it
      </Button>
    </form>
  );
}
