import { isDeepStrictEqual } from 'node:util';
import { Injectable } from '@nestjs/common';
import { FrontView, AllGiven, Host, MOST_NAMES } from '@wanderon/contract';
import {
  GivenFront,
  GivenPlaces,
  Name,
  RRset,
  WayId,
  compareWays,
  fittingWays,
  frontOf,
  isFirstUse,
  isInStages,
  isSamePlace,
  mailHosts,
  parkedPage,
  placeFromGiven,
  placeOfGiven,
  rrsetFromText,
  sameNameSet,
  standingWords,
  withPlanned,
  proposeRepoint,
  proposeRulings,
  Ruling,
} from '@wanderon/core';
import { Database } from '../db/database';
import { HostStore, PlaceGiven, knowledgeOf } from '../hosts/host.store';
import { LiveService } from '../live/live.service';
import { NotNow } from '../refusals';
import { saidOfSurvey } from '../survey/saidOfSurvey';
import { SurveyStore, Surveyed } from '../survey/survey.store';
import { inSteps } from './inSteps';
import { LegLoader, LoadedLeg, LoadedMove } from './legLoader';
import { LegRow, isChosen } from './move.rows';
import { MoveStore } from './move.store';
import { derivedView, finite } from './summary';

const NOTHING: AllGiven = { items: [], newDnsHost: null, newWebHost: null, names: {} };

/** A leg's survey, and what follows from what was given for the leg. */
export interface LegFront {
  readonly survey: Surveyed;
  readonly found: readonly RRset[];
  readonly front: GivenFront;
  /** Hosts that were chosen, or that what was given belongs to; undefined where nobody described them. */
  readonly dns: Host | undefined;
  readonly web: Host | undefined;
  /** Places that only this move knows. */
  readonly places: readonly Host[];
}

/** The front door of a leg: what was given for it, and what follows. */
@Injectable()
export class FrontService {
  constructor(
    private readonly store: MoveStore,
    private readonly loader: LegLoader,
    private readonly hosts: HostStore,
    private readonly surveys: SurveyStore,
    private readonly live: LiveService,
  ) {}

  /** `given`: null where what was kept with the leg is shown again. Throws a NotNow before the survey is there. */
  async view(legId: string, given: AllGiven | null): Promise<FrontView> {
    const loaded = await this.loader.load(await this.store.moveOf(legId));
    const leg = loaded.legs.find((one) => one.row.id === legId)!;
    const kept = given ?? keptWith(loaded, leg);
    const known = await this.of(loaded, leg, kept);
    const { survey, found, front, dns, web } = known;
    const { plan, seen, state } = leg.leg;
    const hasDns = kept.newDnsHost !== null || front.givesServers !== 'none';
    const webIsSaid = front.newWeb !== undefined || hasDns;
    const compared = await inSteps(
      compareWays({
        ...{ plan, seen, found, grade: survey.grade, assumed: state.assumed, now: state.now, every: state.every },
        newWeb: webIsSaid ? (front.newWeb ?? null) : undefined,
        withGiven: (rulings) => front.withGiven(rulings, { webMoves: webIsSaid && front.newWeb !== undefined, byTicks: true }),
      }),
    );
    const isSameDns = dns
      ? isSamePlace({ nameservers: leg.row.old_nameservers, addresses: plan.oldServers.map((one) => one.address) }, dns)
      : front.givesServers === 'same';
    const { fit, missing } = fittingWays({
      ...{ hasDns, isSameDns, hasWeb: front.newWeb !== undefined },
      ...{ isFirstUse: isFirstUse(plan), isNames: plan.scope.kind === 'names' },
    });
    const last = leg.row.position > 0;
    const names = await inSteps(this.namesShown(leg, found, front));
    return {
      standing: standingWords({
        ...{ zone: plan.zone, found, website: compared.website, nameservers: leg.row.old_nameservers, grade: survey.grade },
        dnsHost: plan.oldHost?.name,
      }),
      hasMail: mailHosts(plan.zone, found).length > 0,
      parked: parkedPage(plan.zone, await this.surveys.pages(leg.row.survey_id!)) ?? null,
      given: kept,
      items: front.items.map((item) => ({
        ...{ kind: item.kind, owner: item.owner, type: item.type, data: item.data, doubts: [...item.doubts] },
        ...(item.taken !== undefined && { taken: item.taken }),
        ...{ use: item.use, words: item.words, question: item.question ?? null, isTaken: item.isTaken },
      })),
      dns: placeView(dns, front.givesServers === 'new' ? placeFromGiven('dns', front.places).name : undefined),
      web: placeView(web, front.places.web && placeFromGiven('web', front.places).name),
      isAddition: isChosen(leg.row) && goesToTheSame(leg, known),
      ways: compared.ways
        .filter(({ way }) => !last || !isInStages(way))
        .map((one) => ({
          ...one,
          against: [...one.against],
          untilSound: finite(one.untilSound),
          untilSettled: derivedView(one.untilSettled),
          settling: finite(one.settling),
          back: finite(one.back),
          delegationBack: finite(one.delegationBack),
        })),
      fit: fit.filter((way) => !last || !isInStages(way)),
      missing: { ...missing },
      recommended: compared.recommended,
      reason: compared.reason,
      names: names.slice(0, MOST_NAMES).map((name) => ({ ...name, now: [...name.now], then: [...name.then] })),
      moreNames: Math.max(0, names.length - MOST_NAMES),
    };
  }

  /** What follows from what was given, held against the survey that the leg rests on. */
  async of({ move }: Pick<LoadedMove, 'move'>, leg: LoadedLeg, given: AllGiven, database?: Database): Promise<LegFront> {
    const { row } = leg;
    if (!row.survey_id) throw new NotNow('What was given is read once the survey is finished.');
    const survey = await this.surveyed(leg, row.survey_id);
    const found = survey.sets.map((set) => rrsetFromText({ ...set, data: set.stored ?? set.data }));
    const hosts = await this.hosts.list(database, move.id);
    const byId = (id: string | null, role: Host['role']): Host | undefined => hosts.find((host) => host.id === id && host.role === role);
    const old = hosts.find((host) => host.id === row.old_web_host);
    const webOf = (places: GivenPlaces): Host | undefined => byId(given.newWebHost, 'web') ?? placeOfGiven(hosts.filter(isWhole), 'web', places);
    const here = hosts.find((host) => host.id === row.old_dns_host);
    const dnsOf = (places: GivenPlaces): Host | undefined =>
      byId(given.newDnsHost, 'dns') ?? (isNewSet(places, row) ? placeOfGiven(hosts, 'dns', places) : undefined);
    const front = frontOf({
      ...{ given: given.items, said: given.names, zone: Name.parse(`${move.domain}.`), scope: row.scope, found },
      ...{ nameservers: row.old_nameservers, pages: await this.surveys.pages(row.survey_id), fronted: row.fronted },
      oldWeb: old ? [knowledgeOf(old)] : [],
      knownWeb: (places) => {
        const host = webOf(places);
        return host && host.ofMove === null ? knowledgeOf(host) : undefined;
      },
      apexAlias: (places) => {
        const host = dnsOf(places) ?? (places.nameservers.length === 0 ? here : undefined);
        return host !== undefined && knowledgeOf(host).apexAlias === true;
      },
    });
    const { places } = front;
    return { survey, found, front, dns: dnsOf(places), web: webOf(places), places: hosts.filter((host) => host.ofMove !== null) };
  }

  /** The hosts of a way: those that were described, and for the others a place of this move made of what was given. */
  async hostsFor(
    { move, leg }: { move: LoadedMove['move']; leg: LoadedLeg },
    { front, dns, web, places }: LegFront,
    way: WayId,
    transaction: Database,
  ): Promise<{ dns: Host | undefined; web: Host | undefined }> {
    const make = async (role: 'dns' | 'web', given: GivenPlaces): Promise<Host> => {
      const known = madeBefore(places, role, given);
      if (known) return known;
      // Told once it can be read.
      await transaction.raw('select pg_notify(?, ?)', this.live.asNotice({ topic: 'hosts' }));
      return this.hosts.addPlace(move.id, placeOf(role, given), transaction);
    };
    const newWeb = web ?? (front.places.web ? await make('web', front.places) : undefined);
    if (way === 'repoint') return { dns: undefined, web: newWeb };
    if (way === 'another account' && !dns) {
      const here = leg.row.old_dns_host ? await this.hosts.get(leg.row.old_dns_host) : undefined;
      const nameservers = leg.row.old_nameservers;
      return { dns: here ?? (await make('dns', { ...front.places, nameservers })), web: newWeb };
    }
    return { dns: dns ?? (front.givesServers === 'new' ? await make('dns', front.places) : undefined), web: newWeb };
  }

  /** A survey of a leg, with the values that somebody has said to be stored. */
  private async surveyed({ stands }: Pick<LoadedLeg, 'stands'>, id: string): Promise<Surveyed> {
    const { grade, sets } = await this.surveys.surveyed(id);
    const { stored } = saidOfSurvey(stands);
    return { grade, sets: sets.map((set) => ({ ...set, stored: stored.get(`${set.owner} ${set.type}`) ?? set.stored })) };
  }

  /** The names that show the website, with what they lead to by then, in steps. */
  private *namesShown(leg: LoadedLeg, found: readonly RRset[], front: GivenFront): Generator<undefined, GivenFront['names']> {
    const { names } = front;
    if (!front.newWeb) return names;
    yield;
    const rulings = this.proposals(leg, found, front);
    yield;
    return withPlanned(names, leg.leg.plan.zone, rulings);
  }

  /** Rows as they would be proposed: what the names lead to by then is read from them. */
  private proposals({ row, leg: { plan } }: LoadedLeg, found: readonly RRset[], front: GivenFront): Ruling[] {
    const dns = { name: 'the DNS host', nameservers: [], addresses: [], aliasTarget: undefined, requires: [] };
    const hosts = { oldWeb: plan.oldWeb, newWeb: front.newWeb!, fronted: row.fronted };
    const rulings =
      plan.scope.kind === 'names'
        ? proposeRepoint(plan.zone, found, { ...hosts, scope: plan.scope, dns })
        : proposeRulings(plan.zone, found, { ...hosts, newDns: dns });
    return front.withGiven(rulings, { webMoves: true, byTicks: true });
  }
}

/** Other nameservers were given than those of today. */
function isNewSet({ nameservers }: GivenPlaces, row: LegRow): boolean {
  return nameservers.length > 0 && !sameNameSet(nameservers, row.old_nameservers);
}

function placeOf(role: 'dns' | 'web', given: GivenPlaces): PlaceGiven {
  const { name, nameservers, addresses, aliasTarget } = placeFromGiven(role, given);
  return { role, name, nameservers: [...nameservers], addresses: [...addresses], aliasTarget };
}

/** With the same values it is the same place. */
function madeBefore(places: readonly Host[], role: 'dns' | 'web', given: GivenPlaces): Host | undefined {
  const place = placeOf(role, given);
  return places.find((one) => isDeepStrictEqual(pick(one), place));
}

/** What is given now leads to the hosts of the plan that there is. */
function goesToTheSame({ row }: LoadedLeg, { front, dns, web, places }: LegFront): boolean {
  const newWeb = web ?? (front.places.web && madeBefore(places, 'web', front.places));
  const newDns = dns ?? (front.givesServers === 'new' ? madeBefore(places, 'dns', front.places) : undefined);
  const isWeb = (newWeb?.id ?? null) === (row.new_web_host ?? row.next?.newWebHost ?? null);
  // Records that stay where they are, or go into another account there, are at the DNS host of today.
  const isHere = row.kind === 'repoint' || row.account;
  return isWeb && (isHere ? !row.next || newDns?.id === row.next.newDnsHost : newDns?.id === row.new_dns_host);
}

const pick = ({ role, name, nameservers, addresses, aliasTarget }: Host): PlaceGiven => ({ role, name, nameservers, addresses, aliasTarget });

/** A place of a move is no more than what was given for it: what is given now takes its place. */
const isWhole = (host: Host): boolean => host.ofMove === null;

/** What was kept with a leg; of a second stage what was kept with the first, and the hosts that were meant for it. */
function keptWith({ legs }: LoadedMove, leg: LoadedLeg): AllGiven {
  if (leg.row.given) return leg.row.given;
  const before = legs[legs.indexOf(leg) - 1];
  const next = before?.row.next;
  if (!before || !next) return { ...NOTHING, newDnsHost: described(leg, leg.row.new_dns_host), newWebHost: described(leg, leg.row.new_web_host) };
  return { ...(before.row.given ?? NOTHING), newDnsHost: described(leg, next.newDnsHost), newWebHost: described(leg, next.newWebHost), names: {} };
}

/** The id of a host of the agency; a place of the move follows from what was given. */
function described({ hosts }: LoadedLeg, id: string | null): string | null {
  return id !== null && hosts.get(id)?.ofMove === null ? id : null;
}

function placeView(host: Host | undefined, name: string | undefined): FrontView['dns'] {
  if (host && host.ofMove === null) return { id: host.id, name: host.name, keyed: host.keyName !== null };
  return name === undefined ? null : { id: null, name, keyed: false };
}
