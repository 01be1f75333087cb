import { Name, givenSerial, givenSets, rrsetToText } from '@wanderon/core';
import { InHandInput, MoveView } from '@wanderon/contract';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed } from '../../ui/states';
import { Pasted, PastedFile, usePasted } from '../pasted';

/** What somebody has in hand of the zone: read here, shown as it was understood, and then asked for. */
export function InHandDialog({ move, onClose }: { move: MoveView; onClose: () => void }) {
  const give = useMoveAction<InHandInput>(move.id, 'POST', () => '/in-hand');
  const pasted = usePasted(move.domain);
  const { reading } = pasted;
  const names = new Set(reading.rows.map((row) => row.name.key)).size;
  const submit = (): void =>
    give.mutate(
      {
        serial: givenSerial(reading, Name.parse(`${move.domain}.`)) ?? null,
        names: reading.rows.filter((row) => !row.record).map((row) => row.name.toString()),
        sets: givenSets(reading).map(rrsetToText),
      },
      { onSuccess: onClose },
    );
  return (
    <Dialog open onClose={onClose} title={`What you have in hand of ${move.shown}`} wide>
      <p className="mb-2">
        Paste an export, the table of a panel, a list of names, or a mail from this domain with its headers. Every name in it is asked for, and what is served
        is held against it.
      </p>
      <Pasted pasted={pasted} domain={move.domain} label="What you have in hand" />
      {pasted.text.trim() !== '' && reading.kind === 'zone file' && !reading.complete && (
        <p>What was not read may be in the zone all the same: this file does not show that the inventory is whole.</p>
      )}
      {give.isError && <Failed error={give.error} />}
      <div className="mt-4 flex gap-2">
        <Button kind="main" disabled={give.isPending || reading.rows.length === 0} onClick={submit}>
          Ask for {names === 1 ? 'this name' : `these ${names} names`} and take the survey again
        </Button>
        <Button onClick={onClose}>Not now</Button>
        <span className="ml-auto self-center">
          <PastedFile pasted={pasted} />
        </span>
      </div>
    </Dialog>
  );
}
