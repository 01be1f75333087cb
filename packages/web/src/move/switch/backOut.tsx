import { STARTING_TTL } from '@wanderon/core';
import { LegView } from '@wanderon/contract';
import { useState } from 'react';
import { useMoveAction } from '../../api';
import { duration } from '../../time';
import { Button } from '../../ui/button';
import { Failed } from '../../ui/states';

/** The way back: what it does and how long it takes is said before it is taken. */
export function BackOut({ move, leg, keyed }: { move: string; leg: LegView; keyed: boolean }) {
  const [asking, setAsking] = useState(false);
  const back = useMoveAction<void>(move, 'POST', () => '/back');
  const longest = Math.min(STARTING_TTL, leg.lowerTo);
  return (
    <div className="mt-4 border-t border-rule pt-2">
      <p className="text-faded">
        The way back: set back, the new values may be remembered for {duration(longest)} after the last authority has the old ones again
        {keyed ? '.' : ', and somebody has to type them in the panel.'}
      </p>
      {asking ? (
        <div className="mt-1 flex gap-2">
          <Button kind="main" disabled={back.isPending} onClick={() => back.mutate()}>
            {keyed ? 'Set the old values back now' : 'I am setting the old values back'}
          </Button>
          <Button onClick={() => setAsking(false)}>Go on as planned</Button>
        </div>
      ) : (
        <Button kind="quiet" className="px-0" onClick={() => setAsking(true)}>
          Back out
        </Button>
      )}
      {back.isError && <Failed error={back.error} />}
    </div>
  );
}
