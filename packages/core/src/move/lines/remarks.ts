import { LineRule, line } from './line';

export const remarks: LineRule = (leg) => {
  const stops = leg.remarks.filter((remark) => remark.weight === 'stop');
  const holds = stops.length === 0;
  return line(
    leg,
    'remarks',
    holds,
    holds ? 'No remark on the plan stops the move.' : `${stops.length} ${stops.length === 1 ? 'remark stops' : 'remarks stop'} the move.`,
    {
      evidence: holds
        ? null
        : stops
            .slice(0, 3)
            .map((stop) => `${stop.owner} ${stop.type}: ${stop.text}`)
            .join(' '),
    },
  );
};
