import { LegView } from '@wanderon/contract';
import { BackWay } from '@wanderon/core';
import { useState } from 'react';
import { useMoveAction } from '../../api';
import { duration } from '../../time';
import { Button } from '../../ui/button';
import { DerivedTime } from '../../ui/derivation';
import { Failed } from '../../ui/states';

/** The ways back: what each does and how long it takes is said before one is taken. */
export function BackOut({ move, leg }: { move: string; leg: LegView }) {
  const [asking, setAsking] = useState<BackWay | null>(null);
  const back = useMoveAction<{ how: BackWay }>(move, 'POST', () => '/back');
  if (leg.back.length === 0) return null;
  return (
    <section aria-label="The way back" className="mt-5">
      <h3 className="smallcaps border-b border-ink">The way back</h3>
      <ul>
        {leg.back.map(({ how, ruledOut, takes, gone }) => (
          <li key={how} className="border-b border-rule py-1.5">
            <div className="flex items-baseline justify-between gap-3">
              <span>{whatOf(how, leg)}</span>
              <span className="whitespace-nowrap">
                {ruledOut === null && (takes === null ? 'no bound' : <DerivedTime derived={gone}>{takes === 0 ? 'at once' : duration(takes)}</DerivedTime>)}
              </span>
            </div>
            <p className="text-sm text-faded">{ruledOut ?? meansOf(how, leg)}</p>
            {ruledOut === null &&
              (asking === how ? (
                <div className="mt-1 flex gap-2">
                  <Button kind="main" disabled={back.isPending} onClick={() => back.mutate({ how })}>
                    {how === 'nameservers' ? 'Go back to the old nameservers' : leg.byHand ? 'I am setting the old values back' : 'Set the old values back now'}
                  </Button>
                  <Button onClick={() => setAsking(null)}>Go on as planned</Button>
                </div>
              ) : (
                <Button kind="quiet" className="px-0!" onClick={() => setAsking(how)}>
                  {how === 'records' ? 'Back out' : 'Back out by the nameservers'}
                </Button>
              ))}
          </li>
        ))}
      </ul>
      {back.isError && <Failed error={back.error} />}
    </section>
  );
}

function whatOf(how: BackWay, leg: LegView): string {
  if (how === 'nameservers') return 'The domain goes back to its old nameservers';
  return leg.kind === 'repoint' ? 'The records get their old values again' : 'The records get their old values where the zone is now';
}

function meansOf(how: BackWay, leg: LegView): string {
  const typed = leg.byHand ? ' Somebody has to type them in the panel.' : '';
  if (how === 'records') return `Counted from when the last nameserver gives the old values again.${typed}`;
  return 'The old zone is made ready first, then it is changed at the registrar, then the new zone names the old nameservers. Counted from the change at the registrar.';
}
