import { MoveView } from '@wanderon/contract';
import { useMoveAction } from '../../api';
import { progressOfMove, useProgress } from '../../live';
import { Button } from '../../ui/button';
import { ProgressBar } from '../../ui/progressBar';
import { useToast } from '../../ui/toast';

/** A survey under way: what it is asking now, how much there was, and a way to stop it. */
export function Running({ move, again, may }: { move: MoveView; again: boolean; may: boolean }) {
  const progress = useProgress(progressOfMove(move.id));
  const stop = useMoveAction<void>(move.id, 'POST', () => '/stop-survey');
  const { fail } = useToast();
  return (
    <div role="status" className="mb-3 border-l-4 border-accent bg-shade px-3 py-2">
      <div className="flex items-start justify-between gap-4">
        <div className="min-w-0">
          <p className="font-semibold">{again ? 'The survey is being taken again; below stands the one before.' : 'The survey is being taken.'}</p>
          <p className="truncate" title={progress?.doing}>
            {progress?.doing ?? 'Asking the registry’s servers, then each nameserver'} …
          </p>
          <p className="text-faded">
            {progress && progress.asked > 0
              ? `${progress.asked} asked${progress.left ? `, ${progress.left} known to be left` : ''}`
              : 'Where no nameserver gives the zone whole, its names are asked for one by one, which takes a minute or two.'}
          </p>
        </div>
        {may && (
          <Button disabled={stop.isPending} onClick={() => stop.mutate(undefined, { onError: fail })}>
            Stop
          </Button>
        )}
      </div>
      {progress && progress.asked > 0 && progress.left !== undefined && <ProgressBar done={progress.asked} left={progress.left} />}
    </div>
  );
}
