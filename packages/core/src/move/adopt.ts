import { Leg } from './leg';
import { SetKey, ownerOf, setKey, typeOf } from './plan';
import { readBack } from './rules/served';
import { slipSeen } from './slipsSeen';

/** A set as it stands at a host; without data it is not there. TTL in seconds. */
export interface StandingSet {
  readonly owner: string;
  readonly type: string;
  readonly data: readonly string[];
  readonly ttl: number;
}

/**
 * What is otherwise than planned and can be taken into the plan: at the old host since the survey, at the new one since the
 * push; `split`: of these, texts that are only split otherwise. Each set once; where servers of the new host differ among themselves, as the first of them answers.
 */
export function adoptable(leg: Leg, where: 'old' | 'new' | 'split'): StandingSet[] {
  const all =
    where === 'old'
      ? (leg.seen.drift?.changes ?? []).map(({ owner, type, after }) => ({ owner, type, data: after?.data ?? [], ttl: after?.ttl ?? 0 }))
      : readBack(leg).flatMap(({ address, differs }) =>
          differs
            .filter(({ key, answer }) => where === 'new' || slipSeen(leg, address, key, answer)?.code === 'text split')
            .map(({ key, answer }) => ({ owner: ownerOf(key), type: typeOf(key), data: answer.data, ttl: answer.ttl })),
        );
  const first = new Map<SetKey, StandingSet>();
  for (const one of all) {
    const key = setKey(one.owner, one.type);
    if (!first.has(key)) first.set(key, one);
  }
  return [...first.values()];
}

/** Data of the sets at the new host that the plan did not put there: those the push stopped at, and those that are answered otherwise. */
export function notOurs(leg: Leg): ReadonlyMap<SetKey, readonly string[]> {
  const act = leg.plan.kind === 'repoint' ? 'change' : 'push';
  const sets = new Map((leg.state.work.get(act)?.foreign ?? []).map((one): [SetKey, readonly string[]] => [one.key, one.data]));
  for (const { owner, type, data } of adoptable(leg, 'new')) {
    const key = setKey(owner, type);
    if (!sets.has(key) && data.length > 0) sets.set(key, data);
  }
  return sets;
}
