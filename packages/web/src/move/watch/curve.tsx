import { WatchView } from '@wanderon/contract';
import { expectedOldShare } from '@wanderon/core';
import { clockTime } from '../../time';
import { ticksBetween } from '../../ui/axis';
import { useWidth } from '../../ui/line';

const HEIGHT = 130;
const LEFT = 40;

/** The observed share of old answers, stepwise, over the share expected of caches that are asked all the time. */
export function Curve({ curve, from, until, now }: { curve: WatchView['curve']; from: number; until: number; now: number }) {
  const [box, width] = useWidth();
  const x = (at: number): number => LEFT + ((at - from) / (until - from)) * (width - LEFT - 12);
  const y = (share: number): number => 8 + (1 - share) * (HEIGHT - 32);
  const before = curve.filter((point) => point.at <= from).at(-1);
  const points = [{ at: from, old: before?.old ?? 1 }, ...curve.filter((point) => point.at > from && point.at <= until)];
  const end = Math.min(now, until);
  const observed =
    points.map((point, index) => `${index === 0 ? 'M' : 'H'}${x(point.at)}${index === 0 ? ` ${y(point.old)}` : ` V${y(point.old)}`}`).join(' ') +
    (end > from ? ` H${x(end)}` : '');
  const expected = Array.from({ length: 41 }, (_, i) => from + ((until - from) * i) / 40)
    .map((at, index) => `${index === 0 ? 'M' : 'L'}${x(at).toFixed(1)} ${y(expectedOldShare(at - from, until - from)).toFixed(1)}`)
    .join(' ');
  return (
    <div ref={box} role="img" aria-label={`Share of old answers: ${Math.round((points.at(-1)?.old ?? 0) * 100)} %`}>
      {width > 0 && (
        <svg width={width} height={HEIGHT} className="block">
          {[0, 0.5, 1].map((share) => (
            <g key={share}>
              <line x1={LEFT} x2={width} y1={y(share)} y2={y(share)} stroke="var(--rule)" />
              <text x={LEFT - 6} y={y(share) + 4} textAnchor="end" fontSize="11" fill="var(--faded)">{`${share * 100} %`}</text>
            </g>
          ))}
          {ticksBetween(from, until, Math.floor(width / 80)).map((at) => (
            <text key={at} x={x(at)} y={HEIGHT - 4} textAnchor="middle" fontSize="11" fill="var(--faded)">
              {clockTime(at)}
            </text>
          ))}
          <path d={expected} fill="none" stroke="var(--faded)" strokeDasharray="3 4" />
          <path d={observed} fill="none" stroke="var(--ink)" strokeWidth="2" />
          {now >= from && now <= until && <line x1={x(now)} x2={x(now)} y1={4} y2={HEIGHT - 20} stroke="var(--accent)" strokeWidth="2" />}
        </svg>
      )}
      <p className="text-sm text-faded">Solid: what the resolvers gave. Dashed: the most that can be expected, with all caches full at the switch.</p>
    </div>
  );
}
