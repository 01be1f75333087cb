import { capital } from '../survey/words';
import { plain } from '../survey/words';
import { Instant } from '../timetable/instant';
import { PageChange } from '../watch/pageChanges';
import { PageFault, pageFault } from '../watch/pageFault';
import { Leg } from './leg';
import { isServed, readBack, readBackWords } from './rules/served';
import { parentWords, wrongAtParent } from './rules/switchNameservers';
import { stepOf } from './steps';
import { TASK } from './tasks';

export const NOT_YET_PLACES = ['registrar', 'authorities', 'caches', 'web host', 'certificate', 'own check', 'browser'] as const;
export const NOT_YET_ACTS = ['do', 'wait', 'nothing'] as const;

/** One reason why somebody does not see the new yet. */
export interface NotYet {
  /** Where it lies. */
  readonly place: (typeof NOT_YET_PLACES)[number];
  /** `do`: somebody has to; `wait`: it comes by itself; `nothing`: all is right, and something is remembered or says otherwise. */
  readonly act: (typeof NOT_YET_ACTS)[number];
  readonly text: string;
  /** Until when at the latest, where that is known. */
  readonly until: Instant | null;
}

/** Seconds within which most web hosts make a certificate once a name leads to them. */
const CERTIFICATE_TIME = 3600;

/**
 * Why the new may not be seen yet, once the change has begun; from where it is wrong down to where only somebody's own machine remembers
 * something. `pages`: what was found broken or otherwise about the pages where the plan leads.
 */
export function whyNotYet(leg: Leg, pages: readonly PageChange[]): NotYet[] {
  if (leg.times.ts === undefined) return [];
  const reasons = [...published(leg), ...answered(leg), ...website(leg, pages)];
  // What is wrong further up explains what is remembered further down.
  const sound = reasons.every((one) => one.act !== 'do' && one.place !== 'registrar' && one.place !== 'authorities');
  return [...reasons, ...(sound ? [...remembered(leg), ...ownCheck(leg), ...(reasons.length === 0 ? browser(leg) : [])] : [])];
}

function published(leg: Leg): NotYet[] {
  if (leg.plan.kind === 'repoint' || leg.times.t0) return [];
  const act = wrongAtParent(leg) ? 'do' : 'wait';
  return [{ place: 'registrar', act, text: parentWords(leg) ?? 'No server of the parent was seen to publish the new nameservers.', until: null }];
}

/** What the servers themselves answer: no waiting for caches sets it right. */
function answered(leg: Leg): NotYet[] {
  const lacking = readBack(leg).filter((one) => !leg.said.aside.has(one.address) && !isServed(one));
  if (lacking.length === 0) return [];
  const sending = [leg.state.work.get('push'), leg.state.work.get('change')].some((work) => work?.outcome === 'trying');
  const text = readBackWords(leg, lacking);
  return [{ place: 'authorities', act: sending || lacking.every((one) => one.problem !== null) ? 'wait' : 'do', text, until: null }];
}

const FAULT_WORDS: Readonly<Record<PageFault, (host: string) => string>> = {
  unknown: (host) => `${host} answers that there is nothing: the domain may not be added there, or nothing published.`,
  silent: () => 'The website does not answer where the plan leads.',
  other: (host) => `The website at ${host} is not as it should be.`,
  certificate: (host) => `${host} has no certificate for the name that browsers take. Most hosts make one once the name leads to them.`,
};

function website(leg: Leg, pages: readonly PageChange[]): NotYet[] {
  const host = leg.plan.newWeb?.name ?? 'the web host';
  const { t0 } = leg.times;
  const kinds = new Map<PageFault, PageChange>();
  for (const page of pages) if (page.weight === 'broken' && !kinds.has(pageFault(page.text))) kinds.set(pageFault(page.text), page);
  return [...kinds].map(([kind, page]): NotYet => {
    const text = `${FAULT_WORDS[kind](capital(host))} ${page.pages[0]!} ${page.text}${page.pages.length > 1 ? `, and ${page.pages.length - 1} more` : ''}.`;
    if (kind !== 'certificate') return { place: 'web host', act: 'do', text, until: null };
    const until = t0 ? t0.firstNew + CERTIFICATE_TIME : null;
    return { place: 'certificate', act: until === null || leg.now < until ? 'wait' : 'do', text, until };
  });
}

function remembered(leg: Leg): NotYet[] {
  const { last, t0 } = leg.times;
  const { waiting } = leg.settled;
  if (!t0) return [];
  if (leg.now <= last.at) {
    const until = Number.isFinite(last.at) ? last.at : null;
    const said = waiting.length > 0 ? ` ${waiting.length} ${waiting.length === 1 ? 'resolver still gives' : 'resolvers still give'} an old one.` : '';
    return [{ place: 'caches', act: 'nothing', text: `Every server that is asked is right; resolvers may remember old answers.${said}`, until }];
  }
  if (waiting.length === 0) return [];
  return [{ place: 'caches', act: 'wait', text: `Every bound has passed; ${waiting.map(plain).join(', ')} gives old answers all the same.`, until: null }];
}

/** The host's own check may lag behind or be mistaken: it is no word on the site. */
function ownCheck(leg: Leg): NotYet[] {
  const open = (leg.plan.newWeb?.tasks ?? []).filter(
    (task) => task.by === 'host' && task.when === 'after' && stepOf(leg, TASK + task.id)?.standing.state === 'ready',
  );
  return open.map(({ title, note }) => ({ place: 'own check', act: 'nothing', text: `${title}. ${note}`.trim(), until: null }));
}

function browser(leg: Leg): NotYet[] {
  if (leg.now <= leg.times.last.at) return [];
  const text = 'Nothing that is asked gives the old any more. Who still sees it may have it from their own machine: try a private window, or another device.';
  return [{ place: 'browser', act: 'nothing', text, until: null }];
}
