import { Me } from '@wanderon/contract';
import { useQueryClient } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { call, useClockState, useOpenMoves } from '../api';
import { clockTime, duration, fullTime, shortTime, useNow } from '../time';
import { Button } from '../ui/button';
import { useToast } from '../ui/toast';

const SPEEDS = [0, 1, 60, 600, 3600];
const JUMPS = [600, 3600, 6 * 3600];

/** The time by which the job runs; in the lab it can be paused, hurried and jumped forward. */
export function ClockPanel({ me }: { me: Me }) {
  const clock = useClockState();
  const now = useNow();
  const queries = useQueryClient();
  const { fail } = useToast();
  if (!clock.data) return null;
  const { lab, rate } = clock.data;
  const change = async (wish: { rate?: number; jump?: number }): Promise<void> => {
    try {
      await call('POST', '/api/clock', wish);
      await queries.invalidateQueries({ queryKey: ['clock'] });
    } catch (error) {
      fail(error);
    }
  };
  const face = (
    <span className="tabular-nums">
      {shortTime(now).slice(0, -5)}
      <b className="font-semibold">{clockTime(now, true)}</b>
    </span>
  );
  if (!lab) return <span title={fullTime(now)}>{face}</span>;
  const speed = rate === 0 ? 'paused' : rate === 1 ? '' : `× ${rate}`;
  return (
    <Popover.Root>
      <Popover.Trigger className="flex cursor-pointer items-baseline gap-2 hover:text-accent" title={fullTime(now)}>
        <span className="smallcaps max-md:sr-only">lab clock</span>
        {face}
        {speed && <span className="text-accent">{speed}</span>}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={8} className="z-50 w-80 border border-ink bg-sheet p-4">
          <p className="smallcaps mb-1">Speed</p>
          <div className="mb-3 flex gap-1" role="group" aria-label="Speed">
            {SPEEDS.map((one) => (
              <Button
                key={one}
                disabled={me.role === 'viewer'}
                aria-pressed={rate === one}
                kind={rate === one ? 'main' : 'plain'}
                onClick={() => void change({ rate: one })}
              >
                {one === 0 ? 'Pause' : `× ${one}`}
              </Button>
            ))}
          </div>
          <p className="smallcaps mb-1">Jump forward</p>
          <div className="mb-2 flex gap-1">
            {JUMPS.map((one) => (
              <Button key={one} disabled={me.role === 'viewer'} onClick={() => void change({ jump: one })}>
                {duration(one)}
              </Button>
            ))}
          </div>
          <JumpToNext now={now} disabled={me.role === 'viewer'} onJump={(jump) => void change({ jump })} />
          {me.lab && (
            <p className="mt-3 border-t border-rule pt-2 text-sm">
              <a className="text-accent hover:underline" href={`${me.lab}/registrar`} target="_blank" rel="noreferrer">
                The client’s registrar
              </a>{' '}
              ·{' '}
              <a className="text-accent hover:underline" href={`${me.lab}/quillmere`} target="_blank" rel="noreferrer">
                Quillmere’s panel
              </a>
            </p>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** To the next moment that is marked on the line of any move; they are read once the clock is opened. */
function JumpToNext({ now, disabled, onJump }: { now: number; disabled: boolean; onJump: (seconds: number) => void }) {
  const moves = useOpenMoves();
  const next = (moves.data?.pages ?? [])
    .flatMap((page) => page.moves)
    .flatMap((move) => move.marks)
    .filter((mark) => mark.at > now + 1 && mark.kind !== 'step')
    .sort((a, b) => a.at - b.at)[0];
  if (!next) return null;
  return (
    <Button disabled={disabled} onClick={() => onJump(Math.ceil(next.at - now) + 1)} className="w-full justify-between whitespace-normal text-left">
      <span>To the next: {next.label}</span> <span className="text-faded">{duration(next.at - now)}</span>
    </Button>
  );
}
