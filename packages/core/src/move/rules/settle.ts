import { Leg } from '../leg';
import { StepRule, Way, asideWay, stands } from './rule';

/** Every authority and lookout says new, and the last bound has passed. */
export const settle: StepRule = {
  id: 'settle',
  chapter: 'watch',
  title: 'Watch until settled',
  label: 'settled',
  after: ['turn'],
  by: 'seen',
  counts: 'in turn',
  applies: () => true,
  standing: (leg) => {
    const { settled, missing } = leg.settled;
    if (settled) return stands('done', { doneAt: leg.times.last.at });
    const dueAt = Number.isFinite(leg.times.last.at) ? leg.times.last.at : null;
    return stands('doing', { dueAt, text: missing.length > 0 ? `${capital(missing.join('; '))}.` : null, ways: waysOf(leg) });
  },
};

function waysOf(leg: Leg): Way[] {
  const { te } = leg.times;
  const silentOld = leg.seen.zones.filter((one) => one.silence && te.lacking.some((lack) => lack.address === one.address));
  const noLookout = leg.settled.missing.includes('no lookout answers');
  return [
    ...(leg.turns ? silentOld.map((one) => asideWay(one.address, one.server)) : []),
    ...(noLookout
      ? [{ act: 'leave', subject: 'lookouts', label: 'Go on without lookouts', means: 'Only what authorities answer then counts, and the bounds.' } as const]
      : []),
  ];
}

function capital(text: string): string {
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
}
