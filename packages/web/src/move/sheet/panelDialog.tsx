import { MoveView, PanelShown } from '@wanderon/contract';
import { Name, rrsetToText, takenSets } from '@wanderon/core';
import { useMemo } from 'react';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed } from '../../ui/states';
import { useToast } from '../../ui/toast';
import { Pasted } from '../../reading/pasted';
import { usePastedText } from '../../reading/pastedText';

/** Seconds for a record that came without a TTL. */
const TTL = 3600;

/** What the panel of the DNS host shows now, pasted: the sheet goes from there to the plan. */
export function PanelDialog({ move, host, onClose }: { move: MoveView; host: string; onClose: () => void }) {
  const give = useMoveAction<PanelShown>(move.id, 'POST', () => '/panel');
  const zone = useMemo(() => Name.parse(`${move.domain}.`), [move.domain]);
  const pasted = usePastedText(useMemo(() => ({ zone: zone.toString(), as: 'old', own: [] }), [zone]));
  const { say } = useToast();
  const sets = takenSets(pasted.taken, zone, TTL).map(rrsetToText);
  const submit = (): void =>
    give.mutate(
      { sets: sets.map((set) => ({ ...set, data: [...set.data] })) },
      {
        onSuccess: () => {
          say('The sheet goes from what the panel shows.');
          onClose();
        },
      },
    );
  return (
    <Dialog open onClose={onClose} title={`What ${host} shows for ${move.shown}`} wide="whole">
      <p className="mb-2">
        Copy the whole list of records in its panel and paste it here. Rows that stand there already are left out of the sheet; what is not in the plan is
        deleted.
      </p>
      <Pasted pasted={pasted} label="What the panel shows" />
      {give.isError && <Failed error={give.error} />}
      <div className="mt-4 flex gap-2">
        <Button kind="main" disabled={give.isPending || sets.length === 0} onClick={submit}>
          Begin the sheet from {sets.length === 1 ? 'this record set' : `these ${sets.length} record sets`}
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
    </Dialog>
  );
}
