import { earlySets } from '../../hosts/needs';
import { isFirstUse } from '../firstUse';
import { Leg } from '../leg';
import { LegPlan } from '../plan';
import { StepRule, acted, stands } from './rule';

/** The web host looks for some records before the cutover: they go into the zone that is live until then, beside what is there. */
export const early: StepRule = {
  id: 'early',
  chapter: 'rebuild',
  title: 'Put what is looked for beforehand into the live zone',
  label: undefined,
  after: ['choose'],
  by: 'decided',
  counts: 'done',
  applies: looksEarly,
  standing: (leg) => {
    const leave = { act: 'leave', subject: 'early', label: 'I put it there by hand', means: 'It is looked for all the same.' } as const;
    if (leg.said.left.has('early')) return acted(leg, 'early', { decision: undefined });
    const { oldHost } = leg.plan;
    const text = `${leg.plan.newWeb!.name} looks for ${earlyWords(leg)} before the cutover.`;
    if (!oldHost?.keyed)
      return stands('ready', { text: `${text} ${oldHost?.name ?? 'The DNS host'} takes no updates from us: it is typed there.`, ways: [leave] });
    const decide = {
      act: 'send early',
      subject: '',
      label: 'Send it to the live zone',
      means: `It is added at ${oldHost.name}; nothing else is touched.`,
    } as const;
    const standing = acted(leg, 'early', { decision: leg.said.early, plan: leg.puts, leave });
    return standing.state === 'ready' ? { ...standing, text, ways: [decide, leave] } : standing;
  },
};

/** Something is looked for beforehand, and there is a live zone to look in. */
export function looksEarly(plan: LegPlan): boolean {
  return plan.chosen && !isFirstUse(plan) && earlySets(plan).length > 0;
}

/** The sets by name and type. */
export function earlyWords(leg: Leg): string {
  return earlySets(leg.plan)
    .map((row) => `${row.owner.replace(/\.$/, '')} ${row.type}`)
    .join(', ');
}
