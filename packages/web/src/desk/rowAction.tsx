import { MoveSummary } from '@wanderon/contract';
import { CLEAR, TASK } from '@wanderon/core';
import { Link } from 'react-router';
import { useMoveAction } from '../api';
import { Button } from '../ui/button';
import { useToast } from '../ui/toast';

interface Action {
  readonly words: string;
  readonly path: string;
  readonly body: unknown;
  readonly done: string;
}

/** What can be done at once, without looking any further; everything else begins with opening its chapter. */
function actionFor(next: NonNullable<MoveSummary['next']>, due: boolean): Action | undefined {
  if (next.failed) return { words: 'Try again', path: '/ways', body: { step: next.step, act: 'retry', subject: next.step }, done: 'Being tried again.' };
  if (!next.atOnce) return undefined;
  const actions: Record<string, Action> = {
    lower: { words: 'Approve, lower now', path: '/approve', body: { lowerAt: null, plannedSwitch: null }, done: 'The timetable is approved.' },
    close: { words: 'Close the move', path: '/close', body: {}, done: 'The move is closed.' },
    'next-leg': { words: 'Begin the second stage', path: '/next', body: {}, done: 'The second stage is begun.' },
    ...(due
      ? {
          switch: { words: 'Saved at the registrar', path: '/submitted', body: {}, done: 'Wanderon looks at the parent.' },
          change: { words: 'It changes now', path: '/submitted', body: {}, done: 'Wanderon asks the nameservers.' },
        }
      : {}),
  };
  return actions[next.step];
}

export function RowAction({ move, next, due }: { move: MoveSummary; next: NonNullable<MoveSummary['next']>; due: boolean }) {
  const action = actionFor(next, due);
  const act = useMoveAction<Action>(
    move.id,
    'POST',
    ({ path }) => path,
    ({ body }) => body,
    move.leg,
  );
  const { fail, say } = useToast();
  const asked = next.step.startsWith(TASK) || next.step.startsWith(CLEAR) || next.step.startsWith('early');
  const open = `/moves/${move.id}/${asked ? 'asked' : next.chapter}`;
  return (
    <span className="flex items-center gap-2">
      {action && (
        <Button disabled={act.isPending} onClick={() => act.mutate(action, { onError: fail, onSuccess: () => say(action.done) })}>
          {action.words}
        </Button>
      )}
      <Link to={open} className="px-1 text-accent hover:underline" aria-label={`Open ${move.shown}: ${next.chapter}`}>
        Open
      </Link>
    </span>
  );
}
