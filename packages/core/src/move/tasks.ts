import { HostTask } from '../hosts/task';
import { Need, needsOf } from '../hosts/needs';
import { rebuildsZone } from './account';
import { Leg } from './leg';
import { LegPlan, SetKey } from './plan';
import { againWay, leaveWay, personStep } from './rules/personStep';
import { StepRule, stands } from './rules/rule';

export const TASK = 'task:';
export const CLEAR = 'clear:';

/** The step after which what was planned is live. */
export const cutoverStep = ({ kind }: Pick<LegPlan, 'kind'>): string => (kind === 'repoint' ? 'changed' : 'switch');

/** What has to be done at each host to which a leg leads, in its order; nothing where it goes back, or where the zone is there already. */
function tasksOf(plan: LegPlan): readonly { readonly host: string; readonly tasks: readonly HostTask[] }[] {
  if (plan.isBack) return [];
  const dns = rebuildsZone(plan) && plan.newHost ? [{ host: plan.newHost.name, tasks: plan.newHost.tasks ?? [] }] : [];
  return [...dns, ...(plan.newWeb ? [{ host: plan.newWeb.name, tasks: plan.newWeb.tasks ?? [] }] : [])];
}

/** The new hosts that ask for something: records, or what has to be done there. */
export function askingHosts(plan: LegPlan): string[] {
  const web = plan.newWeb && needsOf(plan).length > 0 ? [plan.newWeb.name] : [];
  return [...new Set([...tasksOf(plan).flatMap(({ host, tasks }) => (tasks.length > 0 ? [host] : [])), ...web])];
}

/** Steps that a person does at the new hosts: their tasks in their order, and what may go once the web host has verified the domain. */
export function taskRules(plan: LegPlan): StepRule[] {
  if (!plan.chosen) return [];
  const changed = cutoverStep(plan);
  const made = tasksOf(plan).flatMap(({ host, tasks }) =>
    tasks.map((task, index): StepRule => {
      const before = tasks.slice(0, index).findLast((one) => one.when === task.when);
      const after = [before && TASK + before.id, task.when === 'after' ? changed : 'choose', task.waits && task.when === 'before' && 'early-seen'];
      return personStep(
        { id: TASK + task.id, title: task.title, chapter: task.when === 'before' ? 'rebuild' : 'watch', after: after.filter((one) => typeof one === 'string') },
        `At ${host}. ${BY[task.by]}${task.note}`.trim(),
      );
    }),
  );
  const temporary = needsOf(plan).filter((need) => need.requirement.ends === 'verified' && need.state === 'planned');
  return [...made, ...temporary.map((need) => clearStep(need, plan))];
}

/** Somebody takes it out; until no server has it any more, it is said who still does. */
function clearStep({ requirement, owner, key, data }: Need, plan: LegPlan): StepRule {
  const id = `${CLEAR}${requirement.id}`;
  const words = `${plan.newWeb!.name} asked for ${data!} until it has verified the domain: it can go from the zone now.`;
  const step = personStep({ id, title: `Take out ${owner.replace(/\.$/, '')} ${requirement.type}`, chapter: 'watch', after: ['settle'] }, words);
  return {
    ...step,
    standing: (leg) => {
      const done = leg.said.done.get(id);
      const still = done ? haveStill(leg, key, data!) : [];
      if (still.length === 0) return step.standing(leg);
      return stands('doing', {
        since: done!.at,
        text: `${still.join(', ')} still ${still.length === 1 ? 'has' : 'have'} it.`,
        decision: done,
        ways: [againWay(id), leaveWay(id)],
      });
    },
  };
}

function haveStill({ plan, seen, said }: Leg, key: SetKey, data: string): string[] {
  const asked = plan.newServers.filter((one) => !said.aside.has(one.address));
  return asked.flatMap(({ server, address }) => {
    const sight = seen.zones.find((one) => one.address === address)?.sightings.at(-1)?.value;
    return sight?.sets[key]?.data.includes(data) ? [server.replace(/\.$/, '')] : [];
  });
}

const BY: Readonly<Record<HostTask['by'], string>> = { us: '', client: 'The client does it. ', host: 'The host does it. ' };

/** What the new hosts ask for before the cutover and that is not there yet, in words; nothing where they ask for nothing. */
export function openAsked(leg: Leg, isOpen: (step: string) => boolean): { readonly asked: boolean; readonly open: readonly string[] } {
  const { plan } = leg;
  const needs = needsOf(plan).filter((need) => need.requirement.needed);
  const tasks = tasksOf(plan).flatMap((one) => one.tasks.filter((task) => task.when === 'before'));
  const either = new Set<string>();
  const records = needs.flatMap(({ requirement, owner, state }) => {
    if (state !== 'open' || either.has(requirement.either)) return [];
    if (requirement.either !== '') either.add(requirement.either);
    return [`the record ${owner.replace(/\.$/, '')} ${requirement.type}`];
  });
  return { asked: needs.length + tasks.length > 0, open: [...records, ...tasks.flatMap((task) => (isOpen(TASK + task.id) ? [task.title] : []))] };
}
