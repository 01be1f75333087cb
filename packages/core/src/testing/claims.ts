import { legTimes } from '../timetable/legTimes';
import { LegTimes, TimesInput } from '../timetable/times';
import { Wanted } from '../timetable/wanted';
import { Settled, SettledInput, settledWhen } from '../watch/settled';
import { Reach } from './reachability';
import { END, VALUES, World, observe } from './world';

/** The functions whose claims are held against the truth; a mutated copy can stand in for them. */
export interface Claims {
  readonly legTimes: (input: TimesInput) => LegTimes;
  readonly settledWhen: (input: SettledInput) => Settled;
}

export const claimsOf = (): Claims => ({ legTimes, settledWhen });

interface Judged {
  readonly gate: boolean;
  readonly settled: boolean;
  readonly bounded: boolean;
}

function judge(world: World, now: number, claims: Claims, wanted: Wanted): Judged {
  const { plan, said } = world;
  const seen = observe(world, now);
  const times = claims.legTimes({ plan, seen, said, assumed: { floor: 0, parentAllowance: 0, hostAllowance: 0 }, now, turns: true, wanted });
  const settled = claims.settledWhen({ plan, seen, said, times, wanted, now, unasked: 0 }).settled;
  const signed = seen.parent.some((one) => one.sightings.at(-1)?.value.ds.length !== 0) || (times.signedUntil !== undefined && times.signedUntil.at > now);
  const known = plan.keysTtl === undefined || times.signedUntil !== undefined;
  return {
    gate: times.certain && times.tl.all !== undefined && times.earliestSwitch.at <= now && !signed && known,
    settled,
    bounded: Number.isFinite(times.extended.at),
  };
}

/**
 * False where a server changed since the last look at it, and the next look is not due: nobody can know that yet. Nor what a server
 * that nobody has heard for long says for the first time, where it is one of those that need not be heard.
 */
function knowable(world: World, now: number): boolean {
  const slotsOf = (server: string): readonly unknown[] =>
    server.startsWith('p') ? world.truth.parents[Number(server.slice(1))]! : world.truth.zones.get(server)!;
  return [...world.looked].every(([server, { looks, every }]) => {
    const heard = looks.filter((look) => look.answered && look.at <= now).map((look) => look.at);
    const last = heard.at(-1)!;
    const slots = slotsOf(server);
    if (now - last <= 3 * every) return slots.slice(last, now).every((slot) => slot === slots[last]);
    const known = new Set(heard.map((at) => slots[at]));
    return server.startsWith('p') || world.cast.fresh.includes(server) || slots.slice(last, now).every((slot) => known.has(slot));
  });
}

/** Every server is seen just now: what the gate does before it opens. */
function lookedNow(world: World, now: number): boolean {
  return [...world.looked.values()].every(({ looks }) => looks.some((look) => look.at === now && look.answered));
}

/**
 * Moments at which a claim is most likely to be made: when everything was just seen, and every second one while the parent is new. Of the
 * others every fourth is enough to catch what is not looked for, since what is claimed too early is claimed for a while.
 */
function isWorthJudging(world: World, now: number): boolean {
  const isNew = (): boolean => world.truth.parents.every((slots) => slots[now]!.ns.join() === world.cast.fresh.join());
  return now % 4 === 0 || lookedNow(world, now) || (now % 2 === 0 && isNew());
}

/** Claims that the world does not bear out. */
export function earlyClaims(world: World, claims: Claims): { early: string[]; settled: number; opened: number } {
  const early: string[] = [];
  const wanted = new Wanted(world.plan);
  let settled = 0;
  let opened = 0;
  const fresh = new Set(world.cast.fresh);
  const reach = { ordinary: new Reach(world.truth, 'ordinary'), extending: new Reach(world.truth, 'extending') };
  let calm = 0;
  const { goal = VALUES.new, from = 1 } = world;
  for (let now = from; now <= END; now++) {
    // Settled for a while, it is looked at now and then only.
    if (calm > 6 && now % 5 !== 0) continue;
    if (!isWorthJudging(world, now) || !knowable(world, now)) continue;
    const judged = judge(world, now, claims, wanted);
    calm = judged.settled ? calm + 1 : 0;
    if (judged.settled) {
      settled = 1;
      const { leads, values } = reach[judged.bounded ? 'extending' : 'ordinary'].until(now);
      for (const [server, until] of leads)
        if (!fresh.has(server) && until > now) early.push(`settled at ${now}, and a cache is led to ${server} until ${until}`);
      for (const [what, until] of values)
        if (what !== goal && until > now) early.push(`settled at ${now}, and a cache holds ${what || 'a denial'} until ${until}`);
    }
    // What goes back promises nothing of its gate.
    if (judged.gate && !world.plan.isBack && lookedNow(world, now)) {
      opened = 1;
      const { values, ownNs } = reach.extending.until(now);
      const accepted = Math.max(world.lowerTo, 0);
      for (const [what, until] of values)
        if (what !== VALUES.new && what !== VALUES.denied && until - now > accepted)
          early.push(`the gate is open at ${now}, and a cache holds ${what} until ${until}`);
      // Where the servers or their names stay, what an NS set leads to is judged by what is answered there.
      for (const [what, until] of world.plan.kind === 'delegation' && !world.sights ? ownNs : [])
        if (what !== world.cast.fresh.join() && until - now > accepted)
          early.push(`the gate is open at ${now}, and a cache holds the NS set ${what} until ${until}`);
      for (const slots of world.truth.parents)
        for (let slot = 0; slot < now; slot++) {
          const { dsTtl } = slots[slot]!;
          if (dsTtl !== undefined && slot + 1 + dsTtl + (world.plan.keysTtl ?? 0) > now)
            early.push(`the gate is open at ${now}, and a DS of ${slot} may be held`);
        }
    }
    if (early.length > 0) break;
  }
  return { early, settled, opened };
}

/** In a quiet world: when it is called settled against when it was, for caches that extend. Undefined where it never is within the world. */
export function lateSettled(world: World, claims: Claims): { problem: string | undefined } | undefined {
  const fresh = new Set(world.cast.fresh);
  const { leads, values } = new Reach(world.truth, 'extending').until(END);
  const outside = [...leads].filter(([server]) => !fresh.has(server)).map(([, until]) => until);
  const unwanted = [...values].filter(([what]) => what !== (world.goal ?? VALUES.new)).map(([, until]) => until);
  const sound = Math.max(...outside, ...unwanted);
  const slowest = Math.max(...[...world.looked.values()].map((one) => one.every));
  if (sound + 2 * slowest >= END) return undefined;
  const wanted = new Wanted(world.plan);
  for (let now = Math.max(world.from ?? 1, Math.floor(sound) - 6); now <= END; now++)
    if (judge(world, now, claims, wanted).settled)
      return { problem: now > sound + slowest + 1 ? `settled at ${now}, and ${sound} was sound; looks every ${slowest}` : undefined };
  return { problem: `never settled, and ${sound} was sound` };
}
