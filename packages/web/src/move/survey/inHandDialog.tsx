import { Name, rrsetToText, takenNames, takenSets } from '@wanderon/core';
import { InHandInput, MoveSurvey, MoveView } from '@wanderon/contract';
import { useMemo, useState } from 'react';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { problemAt } from '../../ui/problemAt';
import { Failed } from '../../ui/states';
import { Pasted } from '../../reading/pasted';
import { usePastedText } from '../../reading/pastedText';

/** Seconds for a record that came without a TTL. */
const TTL = 3600;

/** What somebody has in hand of the zone: read here, shown as it was understood, and then asked for. */
export function InHandDialog({ move, served, onClose }: { move: MoveView; served: MoveSurvey['sets'] | undefined; onClose: () => void }) {
  const give = useMoveAction<InHandInput>(move.id, 'POST', () => '/in-hand');
  const zone = useMemo(() => Name.parse(`${move.domain}.`), [move.domain]);
  const pasted = usePastedText(
    useMemo(() => ({ zone: zone.toString(), as: 'old', own: [] }), [zone]),
    served,
  );
  const [server, setServer] = useState('');
  const { reading, taken } = pasted;
  const asksServer = server.trim() !== '';
  const names = new Set(taken.filter(({ kind }) => kind === 'record' || kind === 'name').map(({ owner }) => owner.toLowerCase())).size;
  const submit = (): void =>
    give.mutate(
      {
        serial: reading.serial ?? null,
        names: takenNames(taken, zone).map(String),
        sets: takenSets(taken, zone, TTL).map(rrsetToText),
        servers: asksServer ? [server] : [],
      },
      { onSuccess: onClose },
    );
  return (
    <Dialog open onClose={onClose} title={`What you have in hand of ${move.shown}`} wide="whole">
      <p className="mb-2">
        Paste an export, the table of a panel, a list of names, or a mail from this domain with its headers. Every name in it is asked for, and what is served
        decides. Where no nameserver answers any more, the plan is made from it.
      </p>
      <Pasted pasted={pasted} label="What you have in hand" />
      {reading.finds.some(({ form }) => form === 'zone file') && (reading.unread.length > 0 || reading.leftOut > 0) && (
        <p>What was not read may be in the zone all the same: this file does not show that the inventory is whole.</p>
      )}
      <div className="mt-3 max-w-[34rem]">
        <Field
          label="Or a server that has the zone"
          hint="By name or address, also one that the domain is not delegated to. It is asked for the whole zone."
          value={server}
          spellCheck={false}
          autoCapitalize="none"
          problem={problemAt(give.error, 'servers.0')}
          onChange={(event) => {
            setServer(event.target.value);
            give.reset();
          }}
          mono
        />
      </div>
      {give.isError && problemAt(give.error, 'servers.0') === undefined && <Failed error={give.error} />}
      <div className="mt-4 flex gap-2">
        <Button kind="main" disabled={give.isPending || pasted.isReading || (names === 0 && !asksServer)} onClick={submit}>
          {asking(names, asksServer)} and take the survey again
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
    </Dialog>
  );
}

/** What the button does: asking(2, true) → 'Ask for these 2 names, and this server,' */
function asking(names: number, asksServer: boolean): string {
  if (names === 0 && !asksServer) return 'Ask for what is taken';
  const forNames = names === 1 ? 'this name' : `these ${names} names`;
  if (!asksServer) return `Ask for ${forNames}`;
  return names === 0 ? 'Ask this server' : `Ask for ${forNames}, and this server,`;
}
