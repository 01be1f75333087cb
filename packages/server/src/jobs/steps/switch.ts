import { Name, sameNameSet } from '@wanderon/core';
import { NetError } from '@wanderon/net';
import { Facts } from '../../moves/leg';
import { gateOf } from '../../timetable/gate';
import { sentence } from '../outward';
import { markSeen } from '../seen';
import { StepContext, StepWork } from '../stepContext';

/** Looks at every server of the parent until all of them publish the new set; a person changes it at the registrar. */
export const switchNameservers: StepWork = async (context) => {
  const { clock, config, leg, store } = context;
  let sets: NonNullable<Facts['parentSets']>;
  try {
    sets = await parentSets(context);
  } catch (error) {
    if (error instanceof NetError) return { state: 'wait', until: clock.now() + config.WANDERON_LOOK_EVERY, problem: sentence(error.message) };
    throw error;
  }
  const now = clock.now();
  const servers = sets.map((one) => ({ ...one, isNew: one.problem === undefined && sameNameSet(one.nameservers, leg.new_nameservers) }));
  const seen = markSeen(leg.facts, 'parent', now, servers);
  const facts: Facts = { ...seen.facts, parentSets: sets, ds: sets.some((one) => one.signed) };
  const anyNew = servers.some((server) => server.isNew);
  if (anyNew && leg.facts.ts === undefined) {
    // Nobody told us: the change was submitted at some moment since the parent was last seen old.
    facts.ts = Math.min(
      now,
      ...Object.entries(seen.facts.seen!)
        .filter(([key]) => key.startsWith('parent '))
        .map(([, one]) => one.lastOld),
    );
    const gate = gateOf({ ...leg, facts: { ...leg.facts, ...facts } }, context.steps, context.rulings, [], now, config);
    await context.note(
      'switch',
      gate.open
        ? 'The parent was seen to publish the new nameservers.'
        : `The parent was seen to publish the new nameservers before the gate was open: ${gate.lines
            .filter((line) => !line.holds)
            .map((line) => line.text)
            .join(' ')}`,
    );
  }
  if (seen.all) {
    const t0 = { lastOld: seen.all.lastOld, firstNew: seen.all.firstNew + config.WANDERON_ANYCAST_ALLOWANCE };
    await store.addFacts(leg.id, { ...facts, t0 });
    await context.note('switch', 'Every server of the parent publishes the new nameservers.');
    return { state: 'done' };
  }
  await store.addFacts(leg.id, facts);
  const strange = servers.find((server) => !server.isNew && server.problem === undefined && !sameNameSet(server.nameservers, leg.old_nameservers));
  const wait = { state: 'wait', until: now + config.WANDERON_LOOK_EVERY / (anyNew || leg.facts.ts !== undefined ? 2 : 1) } as const;
  if (strange)
    return {
      ...wait,
      problem: `${strange.server} publishes a set that is neither old nor new: ${strange.nameservers.join(', ')}. ${explain(strange.nameservers, leg.new_nameservers)}`,
    };
  return wait;
};

export async function parentSets(context: StepContext): Promise<NonNullable<Facts['parentSets']>> {
  const { referrals } = await context.network.walker().delegation(context.zone);
  return referrals.map(({ server, address, nameservers, ds, problem }) => ({
    server,
    address,
    nameservers: [...nameservers],
    signed: ds.length > 0,
    ...(problem === undefined ? {} : { problem }),
  }));
}

function explain(there: readonly string[], wanted: readonly string[]): string {
  const keys = (names: readonly string[]): Set<string> => new Set(names.map((name) => Name.parse(name).key));
  const [have, want] = [keys(there), keys(wanted)];
  const extra = there.filter((name) => !want.has(Name.parse(name).key));
  const missing = wanted.filter((name) => !have.has(Name.parse(name).key));
  return [extra.length > 0 ? `Take out ${extra.join(', ')}.` : '', missing.length > 0 ? `Add ${missing.join(', ')}.` : ''].filter(Boolean).join(' ');
}
