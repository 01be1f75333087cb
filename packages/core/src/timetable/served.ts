import { SetKey } from '../move/plan';
import { Said } from '../move/said';
import { AnswerSight, ServerSeen, ZoneSight } from '../move/seen';
import { Instant } from './instant';
import { Run, Sight, isGap, runsOf } from './runs';
import { Wanted } from './wanted';

/** An answer to one question; null where the server refused every question. */
export type Answered = AnswerSight | null;

interface OneSet {
  readonly sights: readonly Sight<Answered>[];
  runs: Run<Answered>[] | undefined;
}

/** What each server answered and when, set by set; each worked out once, however often it is asked for. */
export class Served {
  private readonly made = new Map<ServerSeen<ZoneSight>, Map<SetKey, OneSet>>();
  private readonly unwanted = new Map<ServerSeen<ZoneSight>, readonly SetKey[]>();

  /** `allowance`: seconds after which unseen instances of an anycast host have followed. */
  constructor(private readonly how: { readonly wanted: Wanted; readonly said: Said; readonly now: Instant; readonly allowance: number }) {}

  /** The sights of one set. Looks that did not answer it are passed over. */
  sights(server: ServerSeen<ZoneSight>, key: SetKey): readonly Sight<Answered>[] {
    return this.oneSet(server, key).sights;
  }

  runs(server: ServerSeen<ZoneSight>, key: SetKey): Run<Answered>[] {
    const one = this.oneSet(server, key);
    return (one.runs ??= runsUntilAside(server.address, one.sights, { ...this.how, same: sameAnswer }));
  }

  /** Sets that the server was ever seen to answer otherwise than planned. */
  otherwise(server: ServerSeen<ZoneSight>): readonly SetKey[] {
    let keys = this.unwanted.get(server);
    if (!keys) this.unwanted.set(server, (keys = this.findOtherwise(server)));
    return keys;
  }

  private findOtherwise(server: ServerSeen<ZoneSight>): SetKey[] {
    const { wanted } = this.how;
    return [...new Set(server.sightings.flatMap(({ value }) => wanted.otherwise(value)))];
  }

  private oneSet(server: ServerSeen<ZoneSight>, key: SetKey): OneSet {
    let sets = this.made.get(server);
    if (!sets) this.made.set(server, (sets = new Map()));
    let one = sets.get(key);
    if (!one) sets.set(key, (one = { sights: sightsOf(server, key), runs: undefined }));
    return one;
  }
}

/** A server that a person has set aside is taken to be gone from then on: its runs end there. */
export function runsUntilAside<V>(
  address: string,
  sights: readonly Sight<V>[],
  how: { readonly said: Said; readonly now: Instant; readonly allowance: number; readonly same: (a: V, b: V) => boolean },
): Run<V>[] {
  const runs = runsOf(sights, how);
  const end = how.said.aside.get(address)?.at;
  return end === undefined ? runs : runs.map((run) => ({ ...run, until: Math.min(run.until, Math.max(end, run.from)) }));
}

function sightsOf(server: ServerSeen<ZoneSight>, key: SetKey): Sight<Answered>[] {
  const all: Sight<Answered>[] = [];
  for (const { value, first, last, every } of server.sightings) {
    const answer = value.sets[key];
    if (!answer && !value.refused) continue;
    const before = all.at(-1);
    if (before && sameAnswer(before.value, answer ?? null) && !isGap(before, first)) all[all.length - 1] = { ...before, last, every };
    else all.push({ value: answer ?? null, first, last, every });
  }
  return all;
}

function sameAnswer(a: Answered, b: Answered): boolean {
  if (a === b) return true;
  if (a === null || b === null) return false;
  return a.ttl === b.ttl && a.data.length === b.data.length && a.data.every((text, index) => text === b.data[index]);
}
