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
  placeFromGiven,
  placeOfGiven,
  rrsetFromText,
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
import { LegLoader, LoadedLeg, LoadedMove } from './legLoader';
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
    const { survey, found, front, dns, web } = await this.of(loaded, leg, kept);
    const { plan, seen, state } = leg.leg;
    const hasDns = kept.newDnsHost !== null || front.givesServers !== 'none';
    const webIsSaid = front.newWeb !== undefined || hasDns;
    const compared = compareWays({
      ...{ plan, seen, found, grade: survey.grade, assumed: state.assumed, now: state.now, every: state.every },
      newWeb: webIsSaid ? (front.newWeb ?? null) : undefined,
      withGiven: (rulings) => front.withGiven(rulings, { webMoves: webIsSaid && front.newWeb !== undefined, byTicks: true }),
    });
    const isSameDns = dns
      ? isSamePlace({ nameservers: leg.row.old_nameservers, addresses: plan.oldServers.map((one) => one.address) }, dns)
      : front.givesServers === 'same';
    const { fit, missing } = fittingWays({
      ...{ hasDns, isSameDns, hasWeb: front.newWeb !== undefined },
      ...{ isFirstUse: isFirstUse(plan), isNames: plan.scope.kind === 'names' },
    });
    const last = leg.row.position > 0;
    const names = front.newWeb ? withPlanned(front.names, plan.zone, this.proposals(leg, found, front)) : front.names;
    return {
      standing: standingWords({
        ...{ zone: plan.zone, found, website: compared.website, nameservers: leg.row.old_nameservers, grade: survey.grade },
        dnsHost: plan.oldHost?.name,
      }),
      given: kept,
      items: front.items.map((item) => ({
        ...{ kind: item.kind, owner: item.owner, type: item.type, data: item.data, doubts: [...item.doubts] },
        ...(item.taken !== undefined && { taken: item.taken }),
        ...{ use: item.use, words: item.words, question: item.question ?? null, isTaken: item.isTaken },
      })),
      dns: placeView(dns, front.givesServers === 'new' ? placeFromGiven('dns', front.places).name : undefined),
      web: placeView(web, front.places.web && placeFromGiven('web', front.places).name),
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
    const front = frontOf({
      ...{ given: given.items, said: given.names, zone: Name.parse(`${move.domain}.`), scope: row.scope, found },
      ...{ nameservers: row.old_nameservers, pages: await this.surveys.pages(row.survey_id), fronted: row.fronted },
      oldWeb: old ? [knowledgeOf(old)] : [],
      knownWeb: (places) => {
        const host = webOf(places);
        return host && host.ofMove === null ? knowledgeOf(host) : undefined;
      },
    });
    const { places } = front;
    const dns = byId(given.newDnsHost, 'dns') ?? (front.givesServers === 'new' ? placeOfGiven(hosts, 'dns', places) : undefined);
    return { survey, found, front, dns, web: webOf(places), places: hosts.filter((host) => host.ofMove !== null) };
  }

  /** The hosts of a way: those that were described, and for the others a place of this move made of what was given. */
  async hostsFor(
    { move, leg }: { move: LoadedMove['move']; leg: LoadedLeg },
    { front, dns, web, places }: LegFront,
    way: WayId,
    transaction: Database,
  ): Promise<{ dns: Host | undefined; web: Host | undefined }> {
    const make = async (role: 'dns' | 'web', given: GivenPlaces): Promise<Host> => {
      const { name, nameservers, addresses, aliasTarget } = placeFromGiven(role, given);
      const place = { role, name, nameservers: [...nameservers], addresses: [...addresses], aliasTarget };
      // Chosen anew with the same values it is the same place.
      const known = places.find((one) => isDeepStrictEqual(pick(one), place));
      if (known) return known;
      // Told once it can be read.
      await transaction.raw('select pg_notify(?, ?)', this.live.asNotice({ topic: 'hosts' }));
      return this.hosts.addPlace(move.id, place, transaction);
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
