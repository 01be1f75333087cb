import { MoveSummary } from '@wanderon/contract';
import { Link } from 'react-router';
import { shortTime } from '../time';
import { labelledTicks, ticksBetween } from './axis';
import { Drain, MarkShape, useWidth } from './line';

const HEIGHT = 26;
const NAME = 210;
const BEFORE = 8 * 3600;
const AFTER = 28 * 3600;

/** Every move in motion as a strip of its own timeline, all on one axis with one now. */
export function Strips({ moves, now }: { moves: readonly MoveSummary[]; now: number }) {
  const [box, width] = useWidth();
  const [from, until] = [now - BEFORE, now + AFTER];
  const room = Math.max(width - NAME, 100);
  const x = (at: number): number => ((at - from) / (until - from)) * room;
  const inside = (at: number): boolean => at >= from && at <= until;
  return (
    <div ref={box} className="relative">
      {width > 0 && (
        <>
          <div className="relative h-5" style={{ marginLeft: NAME }}>
            {labelledTicks({ from, until, room, x }, now, 80, 44).map(({ at, label, middle }) => (
              <span key={at} className="absolute -translate-x-1/2 text-[0.78rem] whitespace-nowrap text-faded" style={{ left: middle }}>
                {label}
              </span>
            ))}
            <span className="absolute -translate-x-1/2 text-[0.78rem] font-bold text-accent" style={{ left: x(now) }}>
              now
            </span>
          </div>
          <ul className="border-t border-rule">
            {moves.map((move) => (
              <li key={move.id} className="flex items-stretch border-b border-rule hover:bg-sheet">
                <Link
                  to={`/moves/${move.id}/${move.next?.chapter ?? 'watch'}`}
                  className="shrink-0 truncate py-0.5 pr-3 leading-[1.6] hover:text-accent"
                  style={{ width: NAME }}
                  title={move.shown}
                >
                  {move.shown}
                </Link>
                <svg width={room} height={HEIGHT} className="block" role="img" aria-label={`${move.shown}: ${move.next?.text ?? 'done'}`}>
                  {ticksBetween(from, until, Math.floor(room / 80)).map((at) => (
                    <line key={at} x1={x(at)} x2={x(at)} y1="0" y2={HEIGHT} stroke="var(--rule)" strokeDasharray="1 3" />
                  ))}
                  <Drain drain={move.drain} x={x} base={HEIGHT - 5} height={17} now={now} />
                  <line
                    x1={Math.max(0, x(move.createdAt))}
                    x2={Math.max(0, Math.min(room, x(Math.max(...move.marks.map((mark) => mark.at)))))}
                    y1={HEIGHT - 5}
                    y2={HEIGHT - 5}
                    stroke="var(--ink)"
                  />
                  {move.marks
                    .filter((mark) => inside(mark.at))
                    .map((mark) => (
                      <g key={`${mark.label}${mark.at}`}>
                        <title>{`${mark.label}: ${shortTime(mark.at)}`}</title>
                        <MarkShape kind={mark.kind} x={x(mark.at)} y={HEIGHT - 6} past={mark.at <= now} />
                      </g>
                    ))}
                  <line x1={x(now)} x2={x(now)} y1="0" y2={HEIGHT} stroke="var(--accent)" strokeWidth="2" />
                </svg>
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
