import { isFirstUse } from '../firstUse';
import { isLate } from '../lateHost';
import { LegPlan } from '../plan';
import { listWords, plain } from '../../survey/words';
import { StepRule, Way, acted, stands } from './rule';

/** The apex NS set of the old zone becomes the new one, for resolvers that go by the zone's own answers. */
export const turn: StepRule = {
  id: 'turn',
  chapter: 'switch',
  title: 'Make the old zone name the new nameservers',
  label: undefined,
  after: ['switch', 'served', 'lowered', 'ds-gone'],
  // Turning leads resolvers that go by the zone's own answers to the new servers: before the switch, it needs what the switch needs.
  // Where the host takes the zone late, nobody is led there before it is there; where the old one drops it, it is turned before the switch.
  skips: (plan) => (isLate(plan) ? ['lowered', 'ds-gone'] : dropsZone(plan) ? ['switch'] : ['served', 'lowered', 'ds-gone']),
  by: 'decided',
  counts: 'done',
  applies: (plan) => plan.kind === 'delegation' && !isFirstUse(plan),
  standing: (leg) => {
    if (leg.plan.oldHost?.keyed || leg.said.left.has('turn') || leg.state.work.get('turn')?.outcome === 'done')
      return acted(leg, 'turn', { decision: leg.said.approved, leave: LEAVE });
    const { te } = leg.times;
    if (te.all) return stands('done', { doneAt: te.all.firstNew });
    // Once everything is over nobody has to do it any more.
    if (leg.settled.settled) return stands('left', { doneAt: leg.times.last.at });
    const host = leg.plan.oldHost?.name ?? 'the old DNS host';
    const names = listWords(leg.plan.newNameservers.map(plain));
    return stands('ready', {
      text: `In the panel of ${host}, set the NS records of the domain itself to ${names}. Wanderon sees it by itself.`,
      ways: [LEAVE],
    });
  },
};

const LEAVE: Way = {
  act: 'leave',
  subject: 'turn',
  label: 'Go on without it',
  means: 'Resolvers that renew the nameservers from the old servers’ answers stay there until those are switched off; nobody can say until when.',
};

/** The old host drops the zone, or parks it, once the domain is delegated elsewhere. One that takes it late cannot be led to beforehand. */
export function dropsZone(plan: Pick<LegPlan, 'kind' | 'oldHost' | 'newHost' | 'isBack'>): boolean {
  return plan.kind === 'delegation' && !plan.isBack && plan.oldHost?.habits?.afterLeaving === 'drops' && !isLate(plan);
}
