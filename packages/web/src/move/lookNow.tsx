import { LegView } from '@wanderon/contract';
import { LookKind } from '@wanderon/core';
import { useState } from 'react';
import { useMoveAction } from '../api';
import { clockTime } from '../time';
import { Button } from '../ui/button';
import { useToast } from '../ui/toast';

/** When something was looked at last, and a button that has it looked at now; what came is on the page a moment later. */
export function LookNow({ kind, leg, move, may }: { kind: LookKind; leg: Pick<LegView, 'looked'>; move: string; may: boolean }) {
  const at = leg.looked[kind];
  /** The look before the one that was asked for. */
  const [before, setBefore] = useState<number | null>();
  const look = useMoveAction<{ kind: LookKind }>(move, 'POST', () => '/look');
  const { fail } = useToast();
  const isLooking = before !== undefined && (at ?? null) === before;
  return (
    <span className="inline-flex items-baseline gap-2 text-sm text-faded">
      {at === undefined ? 'Not looked at yet.' : `Last looked ${clockTime(at, true)}.`}
      {may && (
        <Button
          kind="quiet"
          className="px-0 text-sm"
          disabled={isLooking}
          onClick={() => {
            setBefore(at ?? null);
            look.mutate(
              { kind },
              {
                onError: (error) => {
                  setBefore(undefined);
                  fail(error);
                },
              },
            );
          }}
        >
          {isLooking ? 'Looking …' : 'Look now'}
        </Button>
      )}
    </span>
  );
}
