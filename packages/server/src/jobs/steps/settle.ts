import { Name, TYPE_CODES, namesIn, sameNameSet, settledWhen } from '@wanderon/core';
import { NetError, limited } from '@wanderon/net';
import { observed } from '../../network/network';
import { timesOf, watchedQuestions } from '../../timetable/times';
import { sentence } from '../outward';
import { markSeen } from '../seen';
import { StepContext, StepWork } from '../stepContext';
import { readBack } from './served';
import { parentSets } from './switch';

/** Waits until every authority and lookout says new and every horizon has passed. */
export const settle: StepWork = async (context) => {
  const { clock, config, leg, network, runs, store, zone } = context;
  const now = clock.now();
  let authoritiesNew: boolean;
  try {
    const [parent, back] = [await parentSets(context), await readBack(context)];
    authoritiesNew =
      parent.every((one) => sameNameSet(one.nameservers, leg.new_nameservers)) && back.servers.every((one) => one.problem === null && one.differs.length === 0);
    await store.setServed(leg.id, back);
    await store.addFacts(leg.id, { parentSets: parent, authoritiesNew });
  } catch (error) {
    if (error instanceof NetError) return { state: 'wait', until: now + config.WANDERON_LOOK_EVERY, problem: sentence(error.message) };
    throw error;
  }
  // Until the old zone is seen turned everywhere, H is that of one which never is (docs/calculations.md): waiting costs nothing.
  const turning = leg.facts.turned === true && !leg.facts.te;
  if (turning && (await turnedSeen(context))) return { state: 'wait', until: now };
  const times = timesOf(leg, context.steps, context.rulings, now, config)!;
  const questions = new Map(watchedQuestions(zone, leg, context.rulings).map((question) => [`${question.owner}/${question.type}`, question]));
  const looks = (await runs.latest(leg.id)).filter((run) => questions.has(`${run.owner}/${run.type}`));
  const verdict = settledWhen({
    now,
    lastHorizon: times.last.at,
    authoritiesNew,
    unasked: network.lookouts.length * questions.size - looks.length,
    lookouts: looks.map((run) => ({ lookout: run.subject, verdict: run.verdict, silent: run.silent, lookedAt: run.last_seen })),
  });
  if (verdict.settled) {
    await context.note(
      'settled',
      `Settled: every authority${looks.length > 0 ? ' and lookout' : ''} says new, and every horizon has passed.${looks.length === 0 ? ' No lookout was configured.' : ''}${verdict.setAside.length > 0 ? ` Set aside: ${verdict.setAside.join(', ')}.` : ''}`,
    );
    return { state: 'done' };
  }
  const lookNow = now >= times.last.at && looks.some((run) => run.last_seen < times.last.at);
  const often = turning || times.last.at <= now;
  if (lookNow) await store.addFacts(leg.id, { nextLookAt: now });
  const next = often ? now + config.WANDERON_LOOK_EVERY : Math.min(times.last.at, now + 10 * config.WANDERON_LOOK_EVERY);
  return { state: 'wait', until: lookNow ? now : next };
};

/** Sees the new apex NS set at every old authority, or that it no longer answers with authority. Silence is no observation. */
async function turnedSeen(context: StepContext): Promise<boolean> {
  const { clock, leg, network, store, zone } = context;
  const servers = await limited(leg.facts.oldAuthorities ?? [], 4, async (server) => {
    const asked = await observed(network.client.ask({ address: server.address }, zone, TYPE_CODES.NS));
    if (!asked.ok) return { ...server, isNew: false };
    if (!asked.value.authoritative) return { ...server, isNew: true };
    const names = asked.value.answers.filter((record) => record.type === TYPE_CODES.NS).flatMap((record) => namesIn(record.type, record.data));
    return {
      ...server,
      isNew: sameNameSet(
        names.map((name: Name) => name.toString()),
        leg.new_nameservers,
      ),
    };
  });
  const seen = markSeen(leg.facts, 'turned', clock.now(), servers);
  await store.addFacts(leg.id, { ...seen.facts, ...(seen.all ? { te: seen.all } : {}) });
  return seen.all !== undefined;
}
