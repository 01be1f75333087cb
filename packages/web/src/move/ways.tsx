import { WayView } from '@wanderon/contract';
import { useMoveAction } from '../api';
import { Button } from '../ui/button';
import { useToast } from '../ui/toast';

/** What a person can do where something does not go on; what it means for the move stands beside it. */
export function Ways({ step, ways, move }: { step: string; ways: readonly WayView[]; move: string }) {
  const take = useMoveAction<{ step: string; act: string; subject: string }>(move, 'POST', () => '/ways');
  const { fail, say } = useToast();
  if (ways.length === 0) return null;
  return (
    <ul className="mt-1">
      {ways.map((way) => (
        <li key={way.act + way.subject} className="flex flex-wrap items-baseline gap-x-3 py-0.5">
          <Button
            disabled={take.isPending}
            onClick={() => take.mutate({ step, act: way.act, subject: way.subject }, { onError: fail, onSuccess: () => say(`${way.label}: noted.`) })}
          >
            {way.label}
          </Button>
          {way.means !== '' && <span className="text-sm text-faded">{way.means}</span>}
        </li>
      ))}
    </ul>
  );
}
