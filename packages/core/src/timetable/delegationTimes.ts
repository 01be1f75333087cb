import { SetKey } from '../move/plan';
import { isFirstUse } from '../move/firstUse';
import { AnswerSight, ParentSight, ServerSeen, ZoneSight } from '../move/seen';
import { sameNameSet } from '../watch/verdict';
import { deniedUntil } from './denied';
import { earliestSwitch } from './earliestSwitch';
import { Derived, SeenBetween, latest } from './instant';
import { Leads } from './leads';
import { Lead, lastLeadOutside, leadsNowhere, ledSpans } from './led';
import { Lowering } from './lowering';
import { NAMES_MOVED, hasTurned, publishesNew, switchedSince, untoldNames } from './newSet';
import { Run, endAt } from './runs';
import { Answered, Served } from './served';
import { ServerAnswers, setHorizons } from './setHorizons';
import { signedTimes } from './signedUntil';
import { Since, since } from './since';
import { LegTimes, TimesInput } from './times';
import { Wanted } from './wanted';

/** Every time of a leg in which the nameserver set changes. */
export function delegationTimes(input: TimesInput): LegTimes {
  return new Delegation(input).times();
}

class Delegation {
  private readonly wanted: Wanted;
  private readonly newAddresses: ReadonlySet<string>;
  /** Names that stay and of which no server tells. */
  private readonly untold: readonly string[];
  private readonly served: Served;
  private readonly leads: Leads;
  private readonly lowering: Lowering;
  /** Servers that are asked like old authorities: of the old set and of any third one, not of the new. */
  private readonly oldZones: readonly ServerSeen<ZoneSight>[];

  constructor(private readonly input: TimesInput) {
    const { plan, seen, said, now, assumed, kept } = input;
    this.wanted = input.wanted ?? new Wanted(plan);
    this.untold = untoldNames(input);
    this.newAddresses = new Set(plan.newServers.map((one) => one.address));
    this.served = new Served({ wanted: this.wanted, said, now, allowance: assumed.hostAllowance });
    this.leads = new Leads(input, this.served);
    this.lowering = new Lowering({ plan, said, kept, served: this.served, now, allowance: assumed.hostAllowance });
    this.oldZones = seen.zones.filter((one) => !this.newAddresses.has(one.address));
  }

  times(): LegTimes {
    const { plan, seen, said, now, assumed } = this.input;
    const waited = this.oldZones.filter((one) => !this.isAside(one.address));
    // A server of a third set counts once somebody is led to it; its TTLs are nobody's to lower.
    const ofOldSet = new Set(plan.oldServers.map((one) => one.address));
    const toLower = waited.filter((one) => ofOldSet.has(one.address));
    const unlowered = this.lowering.unlowered(toLower);
    const tl = this.lowering.since(toLower);
    const parents = seen.parent.filter((one) => !this.isAside(one.address));
    const published = since(parents, (sight) => publishesNew(plan, sight), now);
    const t0 = this.published(published.all);
    const led = this.leads.ledNow();
    const te = since(
      waited.filter((one) => ofOldSet.has(one.address) || led.has(one.address)),
      (sight) => hasTurned(plan, sight),
      now,
    );
    const { oldZones, served, lowering, wanted } = this;
    const { apexNs } = this.leads;
    const { newNameservers } = plan;
    const earliest = earliestSwitch({
      ...{ zones: seen.zones, oldZones, led, served, lowering, wanted, said, apexNs, newNameservers },
      now,
      floor: assumed.floor,
      nobodyBefore: isFirstUse(plan),
    });
    const foreseen = this.foresee({ t0, te, earliest });
    const { ordinary, extending } = ledSpans({ ...foreseen, floor: assumed.floor });
    const isNew = (server: string): boolean => this.newAddresses.has(server);
    const nowhere = leadsNowhere(t0?.firstNew ?? now, 'every parent server seen to publish the new set');
    const delegation = latest([lastLeadOutside(ordinary, isNew) ?? nowhere, ...foreseen.denied])!;
    const extended = latest([delegation, lastLeadOutside(extending, isNew) ?? delegation])!;
    const bounded = Number.isFinite(extended.at);
    const sets = setHorizons(
      { plan, wanted, served, lowering, now, t0: t0?.firstNew, floor: assumed.floor },
      foreseen.zoneAnswers,
      bounded ? extending : ordinary,
    );
    return {
      tl,
      unlowered,
      t0,
      lacking: published.lacking,
      ts: switchedSince(this.input),
      te,
      ...signedTimes({ plan, parents, oldZones, now, floor: assumed.floor, allowance: assumed.parentAllowance }),
      earliestSwitch: earliest.at,
      certain: earliest.certain,
      outlasting: earliest.outlasting,
      delegation,
      extended,
      sets,
      last: latest([bounded ? extended : delegation, ...sets.map((set) => set.horizon)])!,
      switchSeen: t0 !== undefined,
    };
  }

  /** t0, once every name that stays is told of too; or from when a person said that those are moved of which nobody tells. */
  private published(all: SeenBetween | undefined): SeenBetween | undefined {
    const word = this.input.said.aside.get(NAMES_MOVED)?.at;
    if (!all || (this.untold.length > 0 && word === undefined)) return undefined;
    const firstNew = this.untold.length > 0 ? Math.max(all.firstNew, word!) : all.firstNew;
    return { lastOld: all.lastOld, firstNew: firstNew + this.input.assumed.parentAllowance };
  }

  private isAside(address: string): boolean {
    return this.input.said.aside.has(address);
  }

  /** Leads and answers as they were seen, and as they will be where what is planned has not happened yet. */
  private foresee(known: { t0: SeenBetween | undefined; te: Since; earliest: { at: Derived } }): {
    parent: { says: string; runs: Run<Lead>[] }[];
    zone: Map<string, Run<Lead>[]>;
    zoneAnswers: ServerAnswers[];
    denied: Derived[];
  } {
    const { plan, seen, said, now, assumed, turns } = this.input;
    const { apexNs } = this.leads;
    const submitted = switchedSince(this.input) !== undefined;
    const t0 = known.t0?.firstNew ?? (submitted ? now : Math.max(now, said.plannedSwitch ?? 0, known.earliest.at.at)) + assumed.parentAllowance;
    const te = Math.max(t0, now);
    const lowering = Math.max(now, said.lowerAt ?? now);
    const newServers = [...this.newAddresses];
    const denials: { says: string; runs: Run<ParentSight>[] }[] = [];
    const parent = seen.parent.map((server) => {
      const runs = this.leads.parentRuns(server);
      const cut = known.t0 ? runs : endAt(runs, t0, (sight) => !publishesNew(plan, sight));
      denials.push({ says: server.server, runs: cut });
      const own = cut.flatMap((run) => this.leads.parentLeads(run));
      const ttl = runs.at(-1)?.value.ttl;
      const next = known.t0 || ttl === undefined || cut === runs ? [] : [{ value: { servers: newServers, ttl }, from: t0, until: Infinity }];
      return { says: server.server, runs: [...own, ...next] };
    });
    const zone = new Map<string, Run<Lead>[]>();
    const zoneAnswers = seen.zones.map((server) => {
      const isOld = !this.newAddresses.has(server.address);
      const ns = this.served.runs(server, apexNs);
      const lowered = isOld ? this.lowering.foreseen(ns, apexNs, lowering, () => true) : ns;
      const isTurned = (answer: AnswerSight | null): boolean => answer === null || sameNameSet(answer.data, plan.newNameservers);
      const willTurn = isOld && turns && !known.te.all;
      // A server of the new set that leads elsewhere yet, as one that was turned before it is gone back to, is set right before the switch.
      const willLead = !isOld && !known.t0 && !submitted;
      const cut = willTurn
        ? endAt(lowered, te, (answer) => !isTurned(answer))
        : willLead
          ? endAt(ns, Math.max(now, t0), (answer) => !isTurned(answer))
          : lowered;
      const isOldAddress = (answer: AnswerSight | null): boolean => !!answer?.data.some((address) => !this.newAddresses.has(address));
      const addresses = (key: SetKey): Run<Answered>[] => (willTurn ? endAt(this.served.runs(server, key), te, isOldAddress) : this.served.runs(server, key));
      zone.set(server.address, this.leads.zoneLeads(cut, addresses));
      const runs = (key: SetKey): Run<Answered>[] => {
        const all = this.served.runs(server, key);
        const unwanted = (answer: AnswerSight | null): boolean => answer !== null && this.wanted.is(key, answer) === false;
        // What is not yet right at the new servers is so before anybody is led there: the gate asks for it.
        if (!isOld) return known.t0 || submitted ? all : endAt(all, Math.max(now, t0), unwanted);
        return submitted ? all : this.lowering.foreseen(all, key, lowering, unwanted);
      };
      return { server, runs };
    });
    const denied = deniedUntil(denials, assumed.floor);
    return { parent: [...parent, ...this.leads.untoldLeads()], zone, zoneAnswers, denied: denied ? [denied] : [] };
  }
}
