import { duration } from '../../survey/duration';
import { capital } from '../../survey/words';
import { Term } from '../../timetable/instant';
import { Leg } from '../leg';
import { acceptWay } from '../rules/acceptTtls';
import { LineRule, line } from './line';

/** (a) of the gate: no cache holds an old answer for longer than the plan says. */
export const runOut: LineRule = (leg) => {
  if (leg.plan.isBack) return undefined;
  const { certain, earliestSwitch, outlasting } = leg.times;
  const holds = certain && earliestSwitch.at <= leg.now;
  return line(leg, 'run out', holds, holds ? ranOut(leg) : 'Answers with their old TTL may still be remembered.', {
    seenAt: leg.seen.looked['old'] ?? null,
    holdsAt: certain && !holds ? earliestSwitch.at : null,
    evidence: holds ? null : runningOut(leg),
    ways: holds || outlasting === 0 ? [] : [acceptWay(outlasting)],
  });
};

function ranOut({ said: { acceptedTtl } }: Leg): string {
  return acceptedTtl === undefined
    ? 'Every answer with an old TTL has run out.'
    : `No old answer is remembered for longer than the ${duration(acceptedTtl)} that a person accepts.`;
}

/** Which answer it is that outlasts the others, and by how much; when that ends stands with the line. */
function runningOut({ times }: Leg): string | null {
  const term = (symbol: string): Term | undefined => times.earliestSwitch.terms.find((one) => one.symbol === symbol);
  const [T, L] = [term('T'), term('L')];
  return T && L ? `${capital(T.meaning)} is ${duration(T.value)}, and was to be ${duration(L.value)}.` : null;
}
