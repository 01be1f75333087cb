import { Mark, MoveSummary } from '@wanderon/contract';
import { useEffect, useRef, useState } from 'react';
import { fullTime, shortTime } from '../time';
import { labelledTicks, placeLabels } from './axis';

export function useWidth(): [React.RefObject<HTMLDivElement | null>, number] {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    if (!box.current) return;
    const observer = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    observer.observe(box.current);
    return () => observer.disconnect();
  }, []);
  return [box, width];
}

/** Marks closer than this many pixels share a label. */
const CLOSE = 9;
/** Pixels of a row of labels, of what stands above the axis, and of the ticks below it: with three rows 72 in all. */
const ROW = 13;
const ABOVE = 15;
const BELOW = 18;
const FOLDED = 'wanderon.line';

/** The line: a move's own time axis with what was done, what is planned, the times, the draining of old answers, and now. */
export function Line({ move, now }: { move: Pick<MoveSummary, 'marks' | 'drain'>; now: number }) {
  const [box, width] = useWidth();
  const [folded, setFolded] = useState(() => localStorage.getItem(FOLDED) === 'yes');
  const fold = (): void => {
    localStorage.setItem(FOLDED, folded ? 'no' : 'yes');
    setFolded(!folded);
  };
  const times = [...move.marks.map((mark) => mark.at), now];
  const first = Math.min(...times);
  const last = Math.max(...times);
  const span = Math.max(last - first, 1800);
  const from = first - span * 0.02;
  const until = last + span * 0.06;
  const x = (at: number): number => ((at - from) / (until - from)) * width;
  const groups: { marks: Mark[]; x: number }[] = [];
  for (const mark of move.marks) {
    const near = groups.at(-1);
    if (near && x(mark.at) - near.x < CLOSE && near.marks[0]!.kind === mark.kind) near.marks.push(mark);
    else groups.push({ marks: [mark], x: x(mark.at) });
  }
  const labels = placeLabels(
    groups.map((group) => ({ item: group, x: group.x, width: labelOf(group.marks).length * 6.6 + 12, weight: weightOf(group.marks, now) })),
    3,
    width,
  );
  const rows = folded ? 0 : Math.max(0, ...labels.map((label) => (label.row ?? -1) + 1));
  const base = rows * ROW + ABOVE;
  return (
    <div className="relative">
      <button
        type="button"
        onClick={fold}
        aria-expanded={!folded}
        aria-label={folded ? 'Show the names on the time axis' : 'Fold the time axis'}
        title={folded ? 'Show the names' : 'Fold it to a strip'}
        className="absolute right-[-1.25rem] bottom-0 z-10 h-6 w-6 cursor-pointer text-faded hover:text-accent"
      >
        {folded ? '▴' : '▾'}
      </button>
      <div ref={box} className="w-full" role="img" aria-label={`Time axis: ${move.marks.map((mark) => `${mark.label} ${shortTime(mark.at)}`).join(', ')}`}>
        {width > 0 && (
          <svg width={width} height={base + BELOW} className="block overflow-visible text-ink">
            <Drain drain={move.drain} x={x} base={base} height={Math.min(22, base - 2)} now={now} />
            <line x1="0" x2={width} y1={base} y2={base} stroke="var(--ink)" />
            {labelledTicks({ from, until, room: width, x }, now, 90, 34).map(({ at, label, middle }) => (
              <g key={at}>
                <line x1={x(at)} x2={x(at)} y1={base} y2={base + 5} stroke="var(--faded)" />
                <text x={middle} y={base + 17} textAnchor="middle" fontSize="11" fill="var(--faded)">
                  {label}
                </text>
              </g>
            ))}
            <line x1={x(now)} x2={x(now)} y1={2} y2={base + 5} stroke="var(--accent)" strokeWidth="2" />
            <text
              x={x(now)}
              y={base + 17}
              textAnchor="middle"
              fontSize="11.5"
              fontWeight="700"
              fill="var(--accent)"
              style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 6 }}
            >
              now
            </text>
            {labels.map(({ item, x: left, row }) => (
              <g key={`${item.x}${item.marks[0]!.label}`}>
                <title>{item.marks.map((mark) => `${mark.label}: ${fullTime(mark.at)}`).join('\n')}</title>
                {!folded && row !== null && <line x1={item.x} x2={item.x} y1={10 + row * ROW} y2={base} stroke="var(--rule)" />}
                <MarkShape kind={item.marks[0]!.kind} x={item.x} y={base} past={item.marks[0]!.at <= now} />
                {!folded && row !== null && (
                  <text
                    x={left + 3}
                    y={10 + row * ROW}
                    fontSize="12"
                    fill="var(--ink)"
                    style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 4 }}
                  >
                    {labelOf(item.marks)}
                  </text>
                )}
              </g>
            ))}
          </svg>
        )}
      </div>
    </div>
  );
}

/** What is to come outweighs what was, a horizon anything else, and what was just now what was before. */
function weightOf(marks: readonly Mark[], now: number): number {
  return Math.max(...marks.map(({ at, kind }) => (at <= now ? at - now : kind === 'horizon' ? 2 : 1)));
}

function labelOf(marks: readonly Mark[]): string {
  const words = [...new Set(marks.map((mark) => mark.label))];
  return words.length > 3 ? `${words[0]} … ${words.at(-1)}` : words.join(', ');
}

/** A step is a full dot, a planned one an open dot, a horizon an upright bar. */
export function MarkShape({ kind, x, y, past }: { kind: Mark['kind']; x: number; y: number; past: boolean }) {
  if (kind === 'horizon') return <rect x={x - 2} y={y - 11} width="4" height="16" fill={past ? 'var(--ink)' : 'var(--sheet)'} stroke="var(--ink)" />;
  return <circle cx={x} cy={y} r="4" fill={kind === 'step' ? 'var(--ink)' : 'var(--sheet)'} stroke="var(--ink)" strokeWidth="1.4" />;
}

/** Old answers draining away: a hatched wedge from all of them to none at the last old answer has run out. */
export function Drain({ drain, x, base, height, now }: { drain: MoveSummary['drain']; x: (at: number) => number; base: number; height: number; now: number }) {
  if (!drain) return null;
  const [left, right] = [x(drain.from), x(drain.until)];
  const id = `hatch-${Math.round(drain.from)}-${Math.round(drain.until)}`;
  return (
    <g>
      <title>{now < drain.until ? `Old answers may live until ${shortTime(drain.until)}` : 'No old answer can live any more'}</title>
      <defs>
        <pattern id={id} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="5" stroke="var(--faded)" strokeWidth="1.6" />
        </pattern>
      </defs>
      <path d={`M${left} ${base} L${left} ${base - height} L${right} ${base} Z`} fill={`url(#${id})`} stroke="var(--faded)" strokeWidth="1" />
    </g>
  );
}
