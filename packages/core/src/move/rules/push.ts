import { isTakeover, rebuildsZone } from '../account';
import { isLate } from '../lateHost';
import { Leg } from '../leg';
import { StepRule, StepStanding, Way, acted, stands } from './rule';

/** The planned zone goes to the new DNS host; what changes in the plan later goes there too. */
export const push: StepRule = {
  id: 'push',
  chapter: 'rebuild',
  title: 'Push the new zone',
  titleIn: (plan) => (isTakeover(plan) ? 'Make the zone ready in the other account' : undefined),
  label: 'pushed',
  after: ['choose', 'named'],
  by: 'decided',
  counts: 'done',
  applies: rebuildsZone,
  standing: (leg) => {
    if (isTakeover(leg.plan)) return typedInAccount(leg);
    const { newHost } = leg.plan;
    const byHand = newHost !== undefined && !newHost.keyed;
    const leave: Way = {
      act: 'leave',
      subject: 'push',
      label: byHand ? 'I am typing it by hand' : 'I have done it by hand',
      means: byHand ? 'The new zone is read back from now on, row by row.' : 'The new zone is read back all the same.',
    };
    if (byHand && !leg.said.left.has('push') && !leg.said.pushed)
      return stands('ready', { text: `${newHost.name} takes no updates from us: the zone is typed there, by the handover sheet.`, ways: [leave] });
    // Sent before, it would be refused; decided before, it goes there as soon as it can.
    if (isLate(leg.plan) && leg.said.pushed && !leg.said.left.has('push') && leg.times.ts === undefined)
      return stands('due', { text: `${newHost!.name} takes the zone once the domain is delegated to it: it is pushed then.`, decision: leg.said.pushed });
    const foreign = (leg.state.work.get('push')?.foreign.length ?? 0) > 0;
    const ways: Way[] = foreign
      ? [
          { act: 'take', subject: '', label: 'Let the plan take their place', means: 'What stands there is deleted or overwritten.' },
          {
            act: 'keep',
            subject: '',
            label: 'Leave what the plan does not name',
            means: 'It stays in the new zone; sets that the plan names are overwritten all the same.',
          },
        ]
      : [];
    return acted(leg, 'push', { decision: leg.said.pushed, plan: leg.pushes, leave, ways });
  },
};

/** What the servers answer is the live account's: what is typed into the other one is somebody's word until it is taken over. */
function typedInAccount(leg: Leg): StepStanding {
  const left = leg.said.left.get('push');
  if (left) return stands('left', { doneAt: left.at, decision: left });
  const { name, habits } = leg.plan.newHost!;
  const one = habits?.accounts === 'one';
  return stands('ready', {
    text: one
      ? `${name} holds a domain in one account at a time: the zone can be typed only once the other account has let go. Have the sheet or the zone file ready.`
      : `The zone is typed into the other account by the handover sheet. No answer shows it before that account is live.`,
    ways: [
      {
        act: 'leave',
        subject: 'push',
        label: one ? 'The sheet is ready' : 'It is typed there',
        means: 'Each row is read back once the other account is live.',
      },
    ],
  });
}
