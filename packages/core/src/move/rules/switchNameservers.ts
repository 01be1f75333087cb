import { publishesNew } from '../../timetable/newSet';
import { nameKey, sameNameSet } from '../../watch/verdict';
import { Leg } from '../leg';
import { StepRule, asideWay, stands } from './rule';

/** The NS set is changed at the registrar, and every server of the parent publishes it. */
export const switchNameservers: StepRule = {
  id: 'switch',
  chapter: 'switch',
  title: 'Change the nameservers',
  label: 'switch seen',
  after: ['served', 'lowered', 'ds-gone'],
  by: 'person',
  counts: 'seen',
  applies: (plan) => plan.kind === 'delegation',
  standing: (leg) => {
    const { t0, ts, parentLacking } = leg.times;
    if (t0) return stands('done', { doneAt: t0.firstNew, since: t0.lastOld });
    if (ts === undefined) return stands('ready', { text: parentWords(leg) });
    const silent = leg.seen.parent.filter((one) => one.silence && parentLacking.some((lack) => lack.address === one.address));
    return stands('doing', { since: ts, text: parentWords(leg), ways: silent.map((one) => asideWay(one.address, one.server)) });
  },
};

/** What servers of the parent publish that is neither, or no longer, as wanted; null where nothing needs saying. */
export function parentWords(leg: Leg): string | null {
  const { plan, seen } = leg;
  const { ts } = leg.times;
  const words: string[] = [];
  for (const server of seen.parent) {
    const name = server.server.replace(/\.$/, '');
    const last = server.sightings.at(-1)?.value;
    if (!last) {
      words.push(`${name} (${server.address}) never answered, and is not waited for: ${server.silence?.problem ?? 'no answer'}.`);
      continue;
    }
    if (server.silence) words.push(`${name} (${server.address}) does not answer now: ${server.silence.problem}.`);
    if (publishesNew(plan, last)) continue;
    const wasNew = server.sightings.some(({ value }) => publishesNew(plan, value));
    if (wasNew)
      words.push(`${name} published the new set and has gone back to ${last.nameservers.join(', ') || 'none'}. Times count from when it is new again.`);
    else if (!sameNameSet(last.nameservers, plan.oldNameservers) && last.nameservers.length > 0)
      words.push(`${name} publishes a set that is neither old nor new: ${last.nameservers.join(', ')}. ${setRight(last.nameservers, plan.newNameservers)}`);
    else if (last.nameservers.length === 0) words.push(`${name} knows no nameservers for the domain.`);
  }
  if (words.length === 0 && ts !== undefined && !leg.times.t0) {
    const heard = seen.parent.filter((one) => one.sightings.length > 0);
    const fresh = heard.filter((one) => publishesNew(plan, one.sightings.at(-1)!.value));
    return `${fresh.length} of ${heard.length} servers of the parent publish the new set.`;
  }
  return words.join(' ') || null;
}

function setRight(there: readonly string[], wanted: readonly string[]): string {
  const [have, want] = [new Set(there.map(nameKey)), new Set(wanted.map(nameKey))];
  const extra = there.filter((name) => !want.has(nameKey(name)));
  const missing = wanted.filter((name) => !have.has(nameKey(name)));
  return [extra.length > 0 ? `Take out ${extra.join(', ')}.` : '', missing.length > 0 ? `Add ${missing.join(', ')}.` : ''].filter(Boolean).join(' ');
}
