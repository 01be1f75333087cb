import { MoveView, PanelShown } from '@wanderon/contract';
import { Name, PanelSlip, rrsetToText, slipsInPanel, takenSets } from '@wanderon/core';
import { useMemo } from 'react';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed } from '../../ui/states';
import { useToast } from '../../ui/toast';
import { Pasted } from '../../reading/pasted';
import { OpenLeg } from '../movePlace';
import { ownerBelow } from '../owner';
import { usePastedText } from '../../reading/pastedText';

/** Seconds for a record that came without a TTL. */
const TTL = 3600;

/** What the panel of the DNS host shows now, pasted: the sheet goes from there to the plan. */
export function PanelDialog({ move, leg, host, onClose }: { move: MoveView; leg: Pick<OpenLeg, 'kind' | 'rulings'>; host: string; onClose: () => void }) {
  const give = useMoveAction<PanelShown>(move.id, 'POST', () => '/panel');
  const zone = useMemo(() => Name.parse(`${move.domain}.`), [move.domain]);
  const pasted = usePastedText(useMemo(() => ({ zone: zone.toString(), as: 'old', own: [] }), [zone]));
  const { say } = useToast();
  const sets = takenSets(pasted.taken, zone, TTL).map(rrsetToText);
  const slips = slipsInPanel(zone.toString(), leg, sets);
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
      {slips.length > 0 && <Slips slips={slips} domain={move.domain} />}
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

/** Rows of it that are told; the sheet has them all. */
const TOLD = 12;

/** What is wrong in the panel as it stands, while it can still be set right there. */
function Slips({ slips, domain }: { slips: readonly PanelSlip[]; domain: string }) {
  return (
    <section className="mt-3 border-t border-rule pt-2" aria-live="polite">
      <h3 className="font-semibold text-rust">
        {slips.length === 1 ? 'One record is typed wrongly there' : `${slips.length} records are typed wrongly there`}
      </h3>
      <ul>
        {slips.slice(0, TOLD).map(({ owner, type, texts }) => (
          <li key={`${owner} ${type}`} className="border-b border-rule py-0.5 break-words">
            <span className="mono">
              {ownerBelow(owner, domain)} {type}
            </span>
            {texts.map((text) => (
              <span key={text} className="ml-3">
                {text}
              </span>
            ))}
          </li>
        ))}
      </ul>
      {slips.length > TOLD && <p className="text-faded">And {slips.length - TOLD} more.</p>}
    </section>
  );
}
