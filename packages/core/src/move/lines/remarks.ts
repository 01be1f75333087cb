import { setWords } from '../../survey/words';
import { openStops } from '../legRemarks';
import { LineRule, line } from './line';

export const remarks: LineRule = (leg) => {
  const stops = openStops(leg.remarks);
  const holds = stops.length === 0;
  const letBe = leg.remarks.filter((remark) => remark.weight === 'stop').length - stops.length;
  const passed = letBe > 0 ? ` ${letBe} ${letBe === 1 ? 'was' : 'were'} skipped.` : '';
  return line(
    leg,
    'remarks',
    holds,
    `${holds ? 'No remark on the plan stops the move.' : `${stops.length} ${stops.length === 1 ? 'remark stops' : 'remarks stop'} the move.`}${passed}`,
    {
      evidence: holds
        ? null
        : stops
            .slice(0, 3)
            .map((stop) => `${setWords(stop)}: ${stop.text}`)
            .join(' '),
    },
  );
};
