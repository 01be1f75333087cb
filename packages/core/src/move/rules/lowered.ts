import { setWords } from '../../survey/words';
import { duration } from '../../survey/duration';
import { lowersTtls } from '../../timetable/lowering';
import { Leg } from '../leg';
import { ownerOf, typeOf } from '../plan';
import { acceptWay } from './acceptTtls';
import { StepRule, Way, asideWay, stands } from './rule';

/** Every address of every old authority seen to serve the lowered TTLs; from then on the old ones run out. */
export const lowered: StepRule = {
  id: 'lowered',
  chapter: 'timetable',
  title: 'See the TTLs lowered',
  label: 'lowered',
  after: ['lower'],
  by: 'seen',
  counts: 'in turn',
  applies: lowersTtls,
  standing: (leg) => {
    const { tl, ts } = leg.times;
    // What a gap after the switch has moved says nothing of when it was.
    if (tl.all && leg.said.acceptedTtl !== undefined)
      return stands('left', { doneAt: leg.said.accepted!.at, text: `A person accepts old answers of up to ${duration(leg.said.acceptedTtl)}.` });
    if (tl.all) return stands('done', { doneAt: ts !== undefined && tl.all.firstNew > ts ? null : tl.all.firstNew, since: tl.all.lastOld });
    if (ts !== undefined) return stands('left', { doneAt: ts, text: 'The switch came before the TTLs were seen lowered.' });
    return stands('doing', { text: loweredWords(leg), ways: waysOf(leg) });
  },
};

function loweredWords(leg: Leg): string | null {
  const { unlowered, tl } = leg.times;
  const names = [...new Set(unlowered.map((one) => one.server))].map((server) => server.replace(/\.$/, ''));
  const kinds = [...new Set(unlowered.map((one) => one.key))];
  const silent = leg.seen.zones.filter(
    (one) => one.silence && leg.plan.oldServers.some((old) => old.address === one.address) && tl.lacking.some((lack) => lack.address === one.address),
  );
  const words = [
    names.length > 0
      ? `${names.join(', ')} still ${names.length === 1 ? 'serves' : 'serve'} the old TTL of ${kinds
          .slice(0, 3)
          .map((key) => setWords({ owner: ownerOf(key), type: typeOf(key) }))
          .join(', ')}${kinds.length > 3 ? ` and ${kinds.length - 3} more` : ''}.`
      : '',
    ...silent.map((one) => `${one.server.replace(/\.$/, '')} (${one.address}) does not answer: ${one.silence!.problem}.`),
  ];
  return words.filter(Boolean).join(' ') || null;
}

function waysOf(leg: Leg): Way[] {
  const { unlowered, tl } = leg.times;
  const sent = leg.said.left.has('lower') || leg.state.work.get('lower')?.outcome === 'done';
  const most = Math.max(0, ...unlowered.map((one) => one.ttl));
  const silent = leg.seen.zones.filter((one) => one.silence && tl.lacking.some((lack) => lack.address === one.address));
  const again: Way = {
    act: 'retry',
    subject: 'lower',
    label: 'Lower them again',
    means: 'Somebody has raised them since; Wanderon lowers what changes once more.',
  };
  const done = leg.state.work.get('lower')?.outcome === 'done' && leg.plan.oldHost?.keyed === true;
  return [...(done && most > 0 ? [again] : []), ...(sent && most > 0 ? [acceptWay(most)] : []), ...silent.map((one) => asideWay(one.address, one.server))];
}
