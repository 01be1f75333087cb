import { LegView, MoveView } from '@wanderon/contract';
import { useNavigate } from 'react-router';
import { useMoveAction } from '../api';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { Failed } from '../ui/states';

/** Ends a move that is not finished; what stays as it is, is said first. */
export function AbandonDialog({ move, leg, onClose }: { move: MoveView; leg: LegView; onClose: () => void }) {
  const abandon = useMoveAction<void>(move.id, 'DELETE', () => '');
  const go = useNavigate();
  const sent = (id: string): boolean => leg.sent.includes(id);
  const stays = [
    sent('push') && 'What was pushed stays at the new DNS host.',
    sent('lower') && !sent('raise') && `TTLs stay lowered, where they were, to ${leg.lowerTo} s.`,
    sent('change') && 'The records stay as they were changed.',
    leg.kind === 'delegation' && leg.seen.ts !== null && 'The nameservers stay as they are at the registrar; set them back there if that is what is wanted.',
    sent('turn') && 'The NS set of the old zone goes on naming the new nameservers, where the change was taken.',
    sent('raise') && 'TTLs stay raised where that was taken.',
  ].filter((one): one is string => one !== false);
  return (
    <Dialog open onClose={onClose} title={`Abandon the move of ${move.shown}`}>
      <p>Wanderon stops looking and does nothing more for this move. Its survey, its trail and what was seen are kept.</p>
      {stays.length === 0 ? (
        <p className="mt-2">Nothing was sent to any host so far.</p>
      ) : (
        <ul className="mt-2 list-disc pl-5">
          {stays.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
      {abandon.isError && <Failed error={abandon.error} />}
      <div className="mt-4 flex gap-2">
        <Button kind="main" disabled={abandon.isPending} onClick={() => abandon.mutate(undefined, { onSuccess: () => void go('/') })}>
          Abandon it
        </Button>
        <Button onClick={onClose}>Go on with it</Button>
      </div>
    </Dialog>
  );
}
