import { MoveView } from '@wanderon/contract';
import { OpenLeg } from '../movePlace';
import { useHosts, useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed } from '../../ui/states';

/** The decision to push, with what will happen said before it does. */
export function PushDialog({ move, leg, onClose }: { move: MoveView; leg: OpenLeg; onClose: () => void }) {
  const hosts = useHosts(move.id);
  const push = useMoveAction<void>(move.id, 'POST', () => '/push');
  const host = hosts.data?.find((one) => one.id === leg.newDnsHost);
  const planned = leg.rulings.filter((ruling) => ruling.planned);
  const looks = leg.remarks.filter((remark) => remark.weight === 'look' && remark.waived === null);
  return (
    <Dialog open onClose={onClose} title={`Push ${planned.length} record sets to ${host?.name ?? 'the new DNS host'}`}>
      <p>
        The zone of {move.shown} at {host?.name} is brought to the plan by dynamic update with our key, and read back from {leg.newNameservers.length} servers.
        What else stands in that zone goes or is overwritten only once you have seen it and said so; what the host needs for itself is left. Nobody is led there
        before the switch.
      </p>
      <p className="mt-2">TTLs are at most 5 minutes until the move is finished everywhere.</p>
      {looks.length > 0 && (
        <div className="mt-3">
          <p className="font-semibold">{looks.length === 1 ? 'One remark asks for a second look:' : `${looks.length} remarks ask for a second look:`}</p>
          <ul className="max-h-40 overflow-y-auto">
            {looks.slice(0, 30).map((remark) => (
              <li key={remark.owner + remark.type + remark.code} className="border-t border-rule py-0.5">
                <span className="mono">
                  {remark.owner} {remark.type}
                </span>
                : {remark.text}
              </li>
            ))}
          </ul>
        </div>
      )}
      {push.isError && <Failed error={push.error} />}
      <div className="mt-4 flex gap-2">
        <Button kind="main" autoFocus disabled={push.isPending} onClick={() => push.mutate(undefined, { onSuccess: onClose })}>
          Push the zone
        </Button>
        <Button onClick={onClose}>Not yet</Button>
      </div>
    </Dialog>
  );
}
