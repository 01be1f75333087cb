import { LegView, MoveView } from '@wanderon/contract';
import { useState } from 'react';
import { useMoveAction } from '../../api';
import { duration, shortTime } from '../../time';
import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';
import { Failed } from '../../ui/states';
import { useToast } from '../../ui/toast';
import { stepIn } from '../movePlace';

interface Wish {
  readonly lowerAt: number | null;
  readonly plannedSwitch: number | null;
  readonly lowerTo: number;
}

/** What was agreed for the timetable, to be changed or taken back until the switch; or the form in which it is agreed. */
export function Agreed({ move, leg, first }: { move: MoveView; leg: LegView; first: boolean }) {
  const [changing, setChanging] = useState(false);
  const withdraw = useMoveAction<void>(move.id, 'POST', () => '/withdraw');
  const { fail, say } = useToast();
  if (!leg.approved || changing) return <AgreeForm move={move} leg={leg} first={first} onDone={() => setChanging(false)} cancel={leg.approved} />;
  const act = leg.kind === 'repoint' ? 'Change' : 'Switch';
  const planned = leg.plannedSwitch === null ? `${act} when it is safe` : `${act} planned for ${shortTime(leg.plannedSwitch)}`;
  const lower = stepIn(leg, 'lower');
  const lowering = lower?.state === 'due' && leg.lowerAt !== null ? `TTLs go down ${shortTime(leg.lowerAt)}. ` : '';
  return (
    <div className="mb-5 flex flex-wrap items-baseline gap-3 border-y border-ink bg-sheet px-4 py-2">
      <span>
        <b className="font-semibold">Agreed.</b> {lowering}
        {planned}.
      </span>
      <Button onClick={() => setChanging(true)}>Change the times</Button>
      <Button
        disabled={withdraw.isPending}
        onClick={() => withdraw.mutate(undefined, { onError: fail, onSuccess: () => say('The timetable is taken back. What was sent stands.') })}
      >
        Take it back
      </Button>
    </div>
  );
}

function AgreeForm({ move, leg, first, onDone, cancel }: { move: MoveView; leg: LegView; first: boolean; onDone: () => void; cancel: boolean }) {
  const approve = useMoveAction<Wish>(move.id, 'POST', () => '/approve');
  const [lowerAt, setLowerAt] = useState(fieldOf(leg.approved ? leg.lowerAt : null));
  const [switchAt, setSwitchAt] = useState(fieldOf(leg.plannedSwitch));
  const [lowerTo, setLowerTo] = useState(leg.lowerTo);
  const lower = stepIn(leg, 'lower');
  const act = leg.kind === 'repoint' ? 'Change' : 'Switch';
  const byUs = lower !== undefined && lower.state !== 'left' && !leg.oldByHand;
  const offered = [60, 300, 600, 1800];
  const nothing = actsOf(leg, first, byUs).length === 0;
  return (
    <form
      className="mb-5 border-y border-ink bg-sheet px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        approve.mutate({ lowerAt: instantOf(lowerAt), plannedSwitch: instantOf(switchAt), lowerTo }, { onSuccess: onDone });
      }}
    >
      <p className="mb-2">{whatWanderonDoes(leg, first, byUs)}</p>
      <div className="flex flex-wrap items-end gap-4">
        {byUs && (
          <label>
            <span className="block text-sm text-faded">Lower at</span>
            <input type="datetime-local" value={lowerAt} onChange={(event) => setLowerAt(event.target.value)} className={inputLook} />
          </label>
        )}
        <label>
          <span className="block text-sm text-faded">{act} planned for</span>
          <input type="datetime-local" value={switchAt} onChange={(event) => setSwitchAt(event.target.value)} className={inputLook} />
        </label>
        {lower && (
          <label>
            <span className="block text-sm text-faded">Lower to</span>
            <select value={lowerTo} onChange={(event) => setLowerTo(Number(event.target.value))} className={inputLook}>
              {[...new Set([...offered, lowerTo])].map((one) => (
                <option key={one} value={one}>
                  {duration(one)}
                </option>
              ))}
            </select>
          </label>
        )}
        <Button kind="main" type="submit" disabled={approve.isPending}>
          {cancel || nothing ? 'Save the times' : byUs && lowerAt === '' ? 'Approve, lower now' : 'Approve'}
        </Button>
        {cancel && <Button onClick={onDone}>Keep them</Button>}
      </div>
      {byUs && <p className="mt-1 text-sm text-faded">Both may stay empty: lower now, {act.toLowerCase()} when it is safe.</p>}
      {approve.isError && <Failed error={approve.error} />}
    </form>
  );
}

/** What Wanderon does by itself, in its order. */
function actsOf(leg: LegView, first: boolean, lowers: boolean): string[] {
  const inPlace = leg.kind === 'repoint';
  const turns = !inPlace && !first && !leg.oldByHand;
  return [
    ...(lowers ? [`lowers the TTLs of what changes${inPlace ? '' : ' at the old host'}`] : []),
    ...(turns ? ['makes the old zone name the new nameservers once the switch is seen'] : []),
    ...(leg.byHand ? [] : [`raises the TTLs${inPlace ? '' : ' at the new host'} once everything is finished`]),
  ];
}

/** What is done without another word once this is agreed; what a person does stands with the steps. */
function whatWanderonDoes(leg: LegView, first: boolean, lowers: boolean): string {
  const inPlace = leg.kind === 'repoint';
  const acts = actsOf(leg, first, lowers);
  const low =
    stepIn(leg, 'lower') !== undefined
      ? ''
      : first
        ? 'Nothing was delegated before, so nothing has to run out at other servers. '
        : 'Nothing that stands there changes, so there is no TTL to lower. ';
  if (acts.length === 0) return low + `Everything is typed by hand here: this notes the time for which the ${inPlace ? 'change' : 'switch'} is planned.`;
  const waits = inPlace ? ' The change itself waits for your word.' : '';
  return `${low}Once you approve, Wanderon does this by itself: it ${acts.length > 1 ? `${acts.slice(0, -1).join(', ')} and ${acts.at(-1)!}` : acts[0]!}.${waits}`;
}

/** Local time as the field has it; empty for none. */
function fieldOf(at: number | null): string {
  if (at === null) return '';
  const local = new Date(at * 1000 - new Date(at * 1000).getTimezoneOffset() * 60_000);
  return local.toISOString().slice(0, 16);
}

function instantOf(text: string): number | null {
  return text === '' ? null : new Date(text).getTime() / 1000;
}
