import { LegPlan } from '../move/plan';
import { Said } from '../move/said';
import { LookoutSight, Seen } from '../move/seen';
import { Instant } from '../timetable/instant';
import { LegTimes } from '../timetable/times';
import { publishesNew } from '../timetable/newSet';
import { isGap } from '../timetable/runs';
import { nameKey } from './verdict';
import { Wanted } from '../timetable/wanted';

export interface SettledInput {
  readonly plan: LegPlan;
  readonly seen: Seen;
  readonly said: Said;
  readonly times: LegTimes;
  readonly wanted: Wanted;
  readonly now: Instant;
  /** Questions to lookouts, by key, that were never put to one of them. */
  readonly unasked: number;
}

export interface Settled {
  readonly settled: boolean;
  /** What is still missing, in words; empty when settled. */
  readonly missing: readonly string[];
  /** Lookouts that do not answer, or not to us. */
  readonly setAside: readonly string[];
  /** Lookouts that say something else than new. */
  readonly waiting: readonly string[];
}

/** Lookouts that refuse us or answer with errors only are of no use, and are set aside like silent ones. */
export function isUseless(look: LookoutSight): boolean {
  return look.silent || look.rcode === 'REFUSED' || look.rcode === 'SERVFAIL' || look.rcode === 'NOTIMP' || look.rcode === 'FORMERR';
}

/** By what a lookout is called where a person sets it aside. */
export function lookoutSubject(name: string): string {
  return `lookout ${name}`;
}

/**
 * Settled (docs/calculations.md): every authority now delegated to, heard lately, and every answering lookout says new, and
 * the last bound has passed. Lookouts that do not answer are named; those that said something else than new, or were not asked since
 * the last bound, are waited for.
 */
export function settledWhen({ plan, seen, said, times, wanted, now, unasked }: SettledInput): Settled {
  const missing: string[] = [];
  const some = (names: readonly string[]): string => [...new Set(names)].join(', ');
  const behind = (plan.kind === 'repoint' ? [] : seen.parent)
    .filter((one) => !said.aside.has(one.address))
    .filter((one) => one.sightings.length > 0 && !publishesNew(plan, one.sightings.at(-1)!.value));
  if (plan.kind === 'repoint') {
    if (!times.switchSeen) missing.push('not every nameserver was seen to give the new values');
    // That caches are led to these servers and no others is seen at the parent alone.
    const leads = seen.parent.filter((one) => !said.aside.has(one.address) && one.sightings.length > 0);
    const lost = leads.filter((one) => isGap(one.sightings.at(-1)!, now));
    if (lost.length > 0) missing.push(`the registry was not heard lately (${some(lost.map((one) => one.server))})`);
    const known = new Set(plan.oldServers.map((one) => nameKey(one.server)));
    const away = leads.filter((one) => one.sightings.at(-1)!.value.nameservers.some((name) => !known.has(nameKey(name))));
    if (away.length > 0) missing.push(`the registry delegates elsewhere (${some(away.map((one) => one.server))})`);
  }
  if (plan.kind === 'delegation' && (!times.switchSeen || behind.length > 0))
    missing.push(`not every server of the registry publishes the new nameservers${behind.length > 0 ? ` (${some(behind.map((one) => one.server))})` : ''}`);
  const addresses = new Set(plan.newServers.map((one) => one.address));
  const delegated = seen.zones.filter((one) => addresses.has(one.address) && !said.aside.has(one.address));
  const differing = delegated.filter((one) => {
    const sight = one.sightings.at(-1)?.value;
    return !sight || sight.refused || wanted.otherwise(sight).length > 0;
  });
  // What an authority said last is no word on now once nobody has heard it for so long.
  const unheard = delegated.filter((one) => one.sightings.length > 0 && isGap(one.sightings.at(-1)!, now));
  if (unheard.length > 0) missing.push(`${some(unheard.map((one) => one.server))} ${unheard.length === 1 ? 'was' : 'were'} not heard lately`);
  const unseen = plan.newServers.filter((one) => !said.aside.has(one.address) && !delegated.some((seenOne) => seenOne.address === one.address));
  if (differing.length + unseen.length > 0 || delegated.length === 0)
    missing.push(`not every nameserver answers as planned (${some([...differing, ...unseen].map((one) => one.server)) || 'none was asked'})`);
  if (unasked > 0) missing.push(`${unasked} ${unasked === 1 ? 'question was' : 'questions were'} not put to the resolvers yet`);
  const byLookout = new Map<string, LookoutSight[]>();
  for (const look of seen.lookouts) byLookout.set(look.lookout, [...(byLookout.get(look.lookout) ?? []), look]);
  const setAside = [...byLookout].filter(([name, looks]) => looks.every(isUseless) || said.aside.has(lookoutSubject(name))).map(([name]) => name);
  const answering = seen.lookouts.filter((look) => !setAside.includes(look.lookout) && !look.silent);
  const waiting = [...new Set(answering.filter((look) => look.verdict !== 'new').map((look) => look.lookout))];
  const answeringNames = new Set(answering.map((look) => look.lookout));
  if (waiting.length > 0)
    missing.push(
      `${waiting.length} of ${answeringNames.size} resolvers ${waiting.length === 1 ? 'does' : 'do'} not give the new answers yet: ${waiting.join(', ')}`,
    );
  if (now <= times.last.at)
    missing.push(Number.isFinite(times.last.at) ? 'old answers may still be remembered' : 'nobody knows yet how long some old answer is remembered');
  else {
    const stale = [...new Set(answering.filter((look) => look.last < times.last.at).map((look) => look.lookout))];
    if (stale.length > 0)
      missing.push(`${stale.length} ${stale.length === 1 ? 'resolver was' : 'resolvers were'} not asked yet since the last old answer ran out`);
    // A look made later tells what was given to whoever was led there last.
    const ledUntil = Number.isFinite(times.extended.at) ? times.extended.at : times.delegation.at;
    const asked = seen.looked['old'];
    if (plan.kind === 'delegation' && asked !== undefined && asked < ledUntil)
      missing.push('the old nameservers were not asked yet since the last resolver was led there');
  }
  if (seen.watchers > 0 && byLookout.size > 0 && setAside.length === byLookout.size && !said.left.has('lookouts')) missing.push('no resolver answers');
  return { settled: missing.length === 0, missing, setAside, waiting };
}
