import { LegView, LineView, WaiveInput } from '@wanderon/contract';
import { FormEvent, useState } from 'react';
import { useMoveAction } from '../../api';
import { fullTime, relative, shortTime, useNow } from '../../time';
import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';
import { useToast } from '../../ui/toast';
import { Ways } from '../ways';

/** Seconds after which the age of what a line rests on is said; before, it is in reach of the pointer. */
const FRESH = 120;

/** Every statement of the gate, what does not hold first. */
export function GateLines({ gate, may, move }: { gate: LegView['gate']; may: boolean; move: string }) {
  return (
    <ul>
      {[...gate.lines]
        .sort((a, b) => Number(a.passes) - Number(b.passes))
        .map((line) => (
          <GateLine key={line.key} line={line} may={may} move={move} />
        ))}
    </ul>
  );
}

/** One statement of the gate: whether it holds, what says so, how old that is, and what can be done. */
function GateLine({ line, may, move }: { line: LineView; may: boolean; move: string }) {
  const now = useNow();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  const waive = useMoveAction<WaiveInput>(move, 'POST', () => '/waive');
  const { fail } = useToast();
  const passed = !line.holds && line.passes;
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    waive.mutate({ line: line.key, facts: line.facts, reason }, { onError: fail, onSuccess: () => setAsking(false) });
  };
  return (
    <li data-line={line.key} className="border-b border-rule py-1">
      <div className={`flex gap-3 ${line.passes ? '' : 'font-semibold'}`}>
        <span className={`w-16 shrink-0 ${line.passes ? 'text-faded' : 'text-rust'}`}>{line.holds ? 'done' : passed ? 'skipped' : 'not yet'}</span>
        <span className="min-w-0" title={line.seenAt === null ? undefined : `Seen ${fullTime(line.seenAt)}`}>
          {line.text}
          {line.holdsAt !== null && line.holdsAt > now && (
            <span className="font-normal">
              {' '}
              This finishes by itself {relative(line.holdsAt, now)}, at {shortTime(line.holdsAt)}.
            </span>
          )}
          <span className="block text-sm font-normal text-faded">
            {line.evidence !== null && !line.holds && <span className="block break-words">{line.evidence}</span>}
            {line.seenAt !== null && now - line.seenAt > FRESH && <span title={fullTime(line.seenAt)}>Seen {relative(line.seenAt, now)}.</span>}
            {passed && ` Skipped: ${line.waived}`}
            {!line.passes && line.waived !== null && ` Something else was skipped: ${line.waived}`}
          </span>
        </span>
        {may && line.waivable && !line.holds && (
          <Button
            kind="quiet"
            className="ml-auto shrink-0 self-start px-0 font-normal"
            onClick={() => (passed ? waive.mutate({ line: line.key, facts: line.facts, reason: null }, { onError: fail }) : setAsking(!asking))}
          >
            {passed ? 'Check it after all' : 'Skip this check'}
          </Button>
        )}
      </div>
      {asking && !passed && (
        <form onSubmit={submit} className="mt-1 flex gap-2 pl-[4.75rem]">
          <input
            autoFocus
            aria-label="Why it may be skipped"
            placeholder="Why it may be skipped"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            className={`${inputLook} py-0.5`}
          />
          <Button type="submit" disabled={waive.isPending || reason.trim().length < 3}>
            Skip this check
          </Button>
        </form>
      )}
      {may && !line.holds && line.ways.length > 0 && (
        <div className="pl-[4.75rem] font-normal">
          <Ways step={line.key} ways={line.ways} move={move} />
        </div>
      )}
    </li>
  );
}
