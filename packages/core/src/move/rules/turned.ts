import { TYPE_CODES } from '../../dns/typeNames';
import { listWords, plain } from '../../survey/words';
import { isFirstUse } from '../firstUse';
import { Leg } from '../leg';
import { keyOf } from '../plan';
import { StepRule, Way, asideWay, stands } from './rule';

/** Every old authority seen to name the new nameservers; from then on resolvers that renew a delegation from its answers leave it. */
export const turned: StepRule = {
  id: 'turned',
  chapter: 'switch',
  title: 'See the old zone name the new nameservers',
  label: 'old zone names the new nameservers',
  after: ['turn'],
  by: 'seen',
  counts: 'done',
  applies: (plan) => plan.kind === 'delegation' && !isFirstUse(plan),
  standing: (leg) => {
    const { te } = leg.times;
    if (te.all) return stands('done', { doneAt: te.all.firstNew, since: te.all.lastOld });
    // Once everything is over nobody looks there any more: it was not seen, and is not waited for.
    if (leg.settled.settled) return stands('left', { doneAt: leg.times.last.at });
    const left = leg.said.left.get('turn');
    const text =
      unturned(leg)
        .map((one) => one.words)
        .join(' ') || null;
    if (left) return stands('left', { doneAt: left.at, decision: left, text });
    return stands('doing', { text, ways: waysOf(leg) });
  },
};

interface Unturned {
  readonly server: string;
  readonly address: string;
  readonly silent: boolean;
  readonly words: string;
}

/** Old authorities that were not seen to turn, each with what it does instead and what that means. */
export function unturned(leg: Leg): Unturned[] {
  const apex = keyOf(leg.plan.zone, TYPE_CODES.NS);
  const { lacking } = leg.times.te;
  return leg.seen.zones.flatMap((one): Unturned[] => {
    if (!lacking.some((lack) => lack.address === one.address)) return [];
    const server = plain(one.server);
    const sight = one.sightings.at(-1)?.value;
    const names = sight?.sets[apex]?.data.map(plain) ?? [];
    const words = one.silence
      ? `${server} (${one.address}) does not answer: ${one.silence.problem}.`
      : names.length === 0
        ? `${server} names no nameservers for the domain.`
        : sight?.refers
          ? `${server} no longer holds the zone and sends resolvers on to ${listWords(names)}.`
          : `${server} still names ${listWords(names)}.`;
    return [{ server: one.server, address: one.address, silent: one.silence !== undefined, words }];
  });
}

/** Silent servers are set aside; for those that answer and do not turn a person goes on without. */
function waysOf(leg: Leg): Way[] {
  const all = unturned(leg);
  const staying = all.filter((one) => !one.silent);
  const names = listWords([...new Set(staying.map((one) => plain(one.server)))]);
  const many = new Set(staying.map((one) => one.server)).size > 1;
  return [
    ...all.filter((one) => one.silent).map((one) => asideWay(one.address, one.server)),
    ...(staying.length > 0
      ? [
          {
            act: 'leave',
            subject: 'turn',
            label: `Go on although ${names} ${many ? 'do' : 'does'} not change`,
            means:
              'Most resolvers leave by the times below. Those that renew the nameservers from these answers stay there until the server is switched off; nobody can say until when.',
          } as const,
        ]
      : []),
  ];
}
