import { NAMES_MOVED, publishesNew, sightsOfLeg, untoldNames } from '../../timetable/newSet';
import { plain } from '../../survey/words';
import { readNameserverSet } from '../../slips/nameserverSet';
import { sameNameSet } from '../../watch/verdict';
import { isLate } from '../lateHost';
import { Leg } from '../leg';
import { StepRule, Way, asideWay, stands } from './rule';

/** Seconds after which most registries publish what was saved; later it is worth looking whether it was. */
const LONG = 3600;

/** The NS set is changed at the registrar, and every server of the parent publishes it. */
export const switchNameservers: StepRule = {
  id: 'switch',
  chapter: 'switch',
  title: 'Change the nameservers',
  label: 'switch seen',
  after: ['served', 'lowered', 'ds-gone'],
  // Where the host takes the zone later, that is what the gate is about.
  skips: (plan) => (isLate(plan) ? ['served'] : []),
  by: 'person',
  counts: 'seen',
  applies: (plan) => plan.kind === 'delegation',
  standing: (leg) => {
    const { t0, ts, lacking } = leg.times;
    if (t0) return stands('done', { doneAt: t0.firstNew, since: t0.lastOld });
    if (ts === undefined) return stands('ready', { text: parentWords(leg) });
    const silent = leg.seen.parent.filter((one) => one.silence && lacking.some((lack) => lack.address === one.address));
    const untold = untoldNames(leg).filter(() => !leg.said.aside.has(NAMES_MOVED));
    const state = wrongAtParent(leg) ? 'stopped' : 'doing';
    return stands(state, {
      since: ts,
      text: parentWords(leg),
      ways: [...[...silent, ...shadowing(leg)].map((one) => asideWay(one.address, one.server)), ...(untold.length > 0 ? [movedWay(untold)] : [])],
    });
  },
};

/** Servers of the parent that answer from the old zone, which they hold as well, and not yet with the new set. */
function shadowing({ plan, seen, times }: Leg): typeof seen.parent {
  return seen.parent.filter((one) => {
    const last = one.sightings.at(-1)?.value;
    return !one.silence && last?.holdsZone && !publishesNew(plan, last) && times.lacking.some((lack) => lack.address === one.address);
  });
}

/** Nobody can see it: a person says so, and what an old address may be remembered for is unknown. */
function movedWay(names: readonly string[]): Way {
  return {
    act: 'aside',
    subject: NAMES_MOVED,
    label: `Take ${plainly(names)} for moved`,
    means: 'They count as moved from now on, and their old addresses as remembered for a week, as long as any TTL is taken to last.',
  };
}

/**
 * Somebody has to look at the registrar: a server of the parent publishes a set that is neither old nor new, or has gone back from
 * the new one, and none was seen to turn new since. Where one was, what is right is spreading.
 */
export function wrongAtParent({ plan, seen }: Leg): boolean {
  const fresh = seen.parent.flatMap((server) => {
    const sightings = sightsOfLeg(plan, server.sightings);
    const begin = sightings.findLastIndex(({ value }) => !publishesNew(plan, value)) + 1;
    return begin < sightings.length ? [sightings[begin]!.first] : [];
  });
  return seen.parent.some((server) => {
    const sightings = sightsOfLeg(plan, server.sightings);
    const last = sightings.at(-1);
    if (!last || publishesNew(plan, last.value)) return false;
    const wasNew = sightings.some(({ value }) => publishesNew(plan, value));
    return (wasNew || (!last.value.onlyAddresses && !sameNameSet(last.value.nameservers, plan.oldNameservers))) && !fresh.some((since) => since > last.first);
  });
}

const plainly = (names: readonly string[]): string => names.map(plain).join(', ');

/** What servers of the parent publish that is neither, or no longer, as wanted; null where nothing needs saying. */
export function parentWords(leg: Leg): string | null {
  const { plan, seen } = leg;
  const { ts } = leg.times;
  const words: string[] = [];
  for (const server of seen.parent) {
    const name = plain(server.server);
    const last = server.sightings.at(-1)?.value;
    if (!last) {
      words.push(`${name} (${server.address}) never answered, and is not waited for: ${server.silence?.problem ?? 'no answer'}.`);
      continue;
    }
    if (server.silence) words.push(`${name} (${server.address}) does not answer now: ${server.silence.problem}.`);
    if (publishesNew(plan, last)) continue;
    if (ts !== undefined && last.holdsZone) {
      words.push(
        `${name} holds the old zone itself and answers from it: whoever asks it is led to ${plainly(last.nameservers) || 'nobody'} until that zone is taken out there, or names the new nameservers.`,
      );
      continue;
    }
    if (last.onlyAddresses) {
      const there = last.glue.map((one) => `${plain(one.name)} at ${one.address}`).join(', ');
      const wasNew = sightsOfLeg(plan, server.sightings).some(({ value }) => publishesNew(plan, value));
      words.push(`${name} ${wasNew ? 'has gone back to saying' : 'still says'} ${there || 'that the nameservers have no address'}.`);
      continue;
    }
    const wasNew = sightsOfLeg(plan, server.sightings).some(({ value }) => publishesNew(plan, value));
    if (wasNew) words.push(`${name} published the new set and has gone back to ${plainly(last.nameservers) || 'none'}. Times count from when it is new again.`);
    else if (!sameNameSet(last.nameservers, plan.oldNameservers) && last.nameservers.length > 0)
      words.push(`${name} publishes a set that is neither old nor new: ${plainly(last.nameservers)}. ${slipsAt(leg, last.nameservers)}`);
    else if (last.nameservers.length === 0) words.push(`${name} knows no nameservers for the domain.`);
  }
  const untold = ts === undefined ? [] : untoldNames(leg);
  if (untold.length > 0) words.push(`No server says yet where ${plainly(untold)} is.`);
  if (words.length === 0 && ts !== undefined && !leg.times.t0) {
    const heard = seen.parent.filter((one) => one.sightings.length > 0);
    const fresh = heard.filter((one) => publishesNew(plan, one.sightings.at(-1)!.value));
    const told = `${fresh.length} of ${heard.length} servers of the parent publish the new set.`;
    const waits = fresh.length === 0 && leg.now - ts > LONG;
    return waits ? `${told} It is long since it was submitted: look at the registrar whether it was saved, or waits for a confirmation by mail.` : told;
  }
  return words.join(' ') || null;
}

/** What is wrong with a set, with the slip that explains it. */
function slipsAt({ plan }: Leg, there: readonly string[]): string {
  const context = { zone: plan.zone.toString(), wanted: plan.newNameservers, old: plan.oldNameservers, others: plan.otherSets };
  return readNameserverSet(context, there)
    .slips.map((slip) => slip.text)
    .join(' ');
}
