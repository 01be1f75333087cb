import { limited } from '@wanderon/net';
import { observed } from '../../network/network';
import { markSeen } from '../seen';
import { StepWork } from '../stepContext';
import { surveyAgain } from '../surveyAgain';
import { loweredTtl, setsToLower } from './lower';

/** Sees that every address of every old authority serves the lowered TTLs; from then on the old TTLs run out. */
export const lowered: StepWork = async (context) => {
  const { leg, clock, network, store, rulings, zone } = context;
  const sets = setsToLower(zone, rulings);
  const silent = new Set<string>();
  const servers = await limited(leg.facts.oldAuthorities ?? [], 4, async (server) => {
    const all = await limited(sets, 16, async (set) => {
      const asked = await observed(network.client.ask({ address: server.address }, set.owner, set.type));
      if (!asked.ok) {
        silent.add(server.server);
        return false;
      }
      const there = asked.value.answers.filter((record) => record.type === set.type && record.owner.equals(set.owner));
      return there.length > 0 && there.every((record) => record.ttl <= Math.min(set.T, loweredTtl(leg)));
    });
    return { ...server, isNew: all.every(Boolean) };
  });
  const seen = markSeen(leg.facts, 'lowered', clock.now(), servers);
  await store.addFacts(leg.id, seen.facts);
  if (!seen.all) {
    const waiting = servers.filter((server) => !server.isNew).map((server) => server.server);
    const behind = waiting.filter((server) => !silent.has(server));
    const words = [
      behind.length > 0 ? `${behind.join(', ')} still ${behind.length === 1 ? 'serves' : 'serve'} the old TTLs.` : '',
      silent.size > 0 ? `${[...silent].join(', ')} ${silent.size === 1 ? 'does' : 'do'} not answer.` : '',
    ];
    return { state: 'wait', until: clock.now() + context.config.WANDERON_LOOK_EVERY, problem: words.filter(Boolean).join(' ') };
  }
  await store.addFacts(leg.id, { tl: seen.all, drift: await surveyAgain(context) });
  return { state: 'done' };
};
