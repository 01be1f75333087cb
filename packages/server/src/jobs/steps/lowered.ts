import { RRset, TYPE_CODES, driftBetween, typeMnemonic } from '@wanderon/core';
import { NetError, limited } from '@wanderon/net';
import { observed } from '../../network/network';
import { asSurveyed } from '../../survey/driftOf';
import { TakenSurvey } from '../../survey/takeSurvey';
import { markSeen } from '../seen';
import { StepContext, StepWork } from '../stepContext';
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
  await store.addFacts(leg.id, { tl: seen.all, drift: await driftSince(context) });
  return { state: 'done' };
};

/** Surveys the old zone once more, and tells what is otherwise than it was planned from, TTLs aside, in words. */
async function driftSince(context: StepContext): Promise<string[]> {
  const { leg, move, zone, surveys, store } = context;
  const before = asSurveyed(await surveys.get(leg.survey_id!));
  const known = before.sets.map((set) => ({ name: set.owner, type: set.type }));
  let taken: TakenSurvey;
  try {
    taken = await context.surveyor.take({ move: move.id }, zone, { before: known, pages: leg.facts.pages ?? [] });
  } catch (error) {
    if (error instanceof NetError) return [`the zone could not be surveyed again: ${error.message}`];
    throw error;
  }
  await store.database.transaction(async (transaction) => {
    const id = await surveys.add(move.domain_id, move.id, taken.survey, transaction);
    await store.addFacts(leg.id, { lastSurvey: id }, transaction);
  });
  const { changes } = driftBetween(zone, before, asSurveyed(taken.survey));
  const own = (set: RRset): boolean => set.owner.equals(zone) && set.type === TYPE_CODES.NS;
  return changes
    .filter((change) => change.kind !== 'TTL changed' && !own((change.before ?? change.after)!))
    .map(({ kind, before: old, after }) => {
      const { owner, type } = (old ?? after)!;
      return `${owner.toString()} ${typeMnemonic(type)} ${kind === 'changed' ? 'changed' : kind === 'gone' ? 'is gone' : 'was added'}`;
    });
}
