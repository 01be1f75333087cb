import { isGivenByDomain, lacksNames } from '../named';
import { StepRule, stands } from './rule';

/** Which nameservers a host gave this domain, where it gives each its own. */
export const named: StepRule = {
  id: 'named',
  chapter: 'rebuild',
  title: 'Say which nameservers it was given',
  label: undefined,
  after: ['choose'],
  by: 'person',
  counts: 'done',
  applies: isGivenByDomain,
  standing: ({ plan, said }) =>
    lacksNames(plan)
      ? stands('ready', { text: `${plan.newHost!.name} gives each domain nameservers of its own: add the domain there, and give those that it shows.` })
      : stands('done', { doneAt: said.named?.at ?? null, decision: said.named }),
};
