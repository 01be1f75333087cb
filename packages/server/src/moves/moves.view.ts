import { Inject, Injectable } from '@nestjs/common';
import {
  AnsweringView,
  AnswersView,
  Host,
  HorizonsView,
  LedgerPage,
  LegView,
  MoveSummary,
  MoveView,
  RemarkView,
  ServedView,
  WatchView,
  ledgerQuerySchema,
  moveQuerySchema,
} from '@wanderon/contract';
import {
  Leg,
  LegRemark,
  Line,
  ParentSight,
  RRsetText,
  Ruling,
  SAYS_LITTLE,
  Step,
  Waiver,
  ZoneSight,
  answeredRows,
  askingHosts,
  decisionWords,
  factsOf,
  fixKey,
  frontQuestions,
  frontingOfRows,
  gateOf,
  hostChanges,
  isByHand,
  isOpen,
  isTakeover,
  keyOfRow,
  needsOf,
  oldShare,
  openStops,
  ownerOf,
  passes,
  publishesNew,
  readBack,
  redoable,
  rowAt,
  sameNameSet,
  setKey,
  slipSeen,
  stepsOf,
  storedKey,
  typeOf,
  undoable,
  unseenNames,
  waysBack,
  whyNotYet,
} from '@wanderon/core';
import { z } from 'zod';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { Network } from '../network/network';
import { WebsiteLookStore } from '../watch/websiteLook.store';
import { knowledgeOf } from '../hosts/host.store';
import { PeopleService } from '../people/people.service';
import { NotNow, notFound } from '../refusals';
import { saidOfSurvey } from '../survey/saidOfSurvey';
import { LegLoader, LoadedLeg, LoadedMove } from './legLoader';
import { LoadedMoves } from './loadedMoves';
import { MoveStore } from './move.store';
import { ObservationStore } from './observation.store';
import { derivedView, deskColumns, finite, summaryOf } from './summary';

/** Horizons that are shown: nobody reads more, and the last ones decide. */
const HORIZONS = 300;
/** Runs of lookouts that the curve is drawn from. */
const RUNS = 20_000;

/** The newest first; or as they stand on the Desk. */
const ORDERS = {
  begun: [
    { column: 'moves.created_at', order: 'desc' },
    { column: 'moves.id', order: 'desc' },
  ],
  due: [{ column: 'moves.desk_group' }, { column: 'moves.desk_due' }, { column: 'moves.id' }],
};
/** Group, moment and id of the last move of a page. */
const KEY = /^(\d)_(-?[\d.]+(?:e[+-]?\d+)?)_([0-9a-f-]{36})$/;

interface MovePageRow {
  readonly id: string;
  readonly created_at: number;
  readonly desk_group: number;
  readonly desk_due: number;
  readonly summary: MoveSummary | null;
}

/** What the pages show of moves: worked out from what is stored with the functions that the engine uses. */
@Injectable()
export class MoveViews {
  constructor(
    private readonly store: MoveStore,
    private readonly loader: LegLoader,
    private readonly people: PeopleService,
    private readonly loaded: LoadedMoves,
    private readonly observations: ObservationStore,
    private readonly websiteLooks: WebsiteLookStore,
    private readonly network: Network,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(DATABASE) private readonly database: Database,
  ) {}

  /** A page of summaries in one of the orders; `after` is the key of the last one of the page before. */
  async list(query: z.output<typeof moveQuerySchema>): Promise<{ moves: MoveSummary[]; next: string | null }> {
    const columns = ORDERS[query.order];
    const rows = this.database('moves').join('domains', 'domains.id', 'moves.domain_id').orderBy(columns);
    if (query.state === 'open') void rows.where('moves.state', 'open');
    if (query.state === 'ended') void rows.whereNot('moves.state', 'open');
    if (query.text !== '') void rows.whereILike('domains.name', `%${query.text.replace(/[\\%_]/g, '\\$&')}%`);
    const key = KEY.exec(query.after ?? '');
    if (key && query.order === 'begun') void rows.whereRaw('(moves.created_at, moves.id) < (?::float8, ?::uuid)', [Number(key[2]), key[3]!]);
    if (key && query.order === 'due')
      void rows.whereRaw('(moves.desk_group, moves.desk_due, moves.id) > (?::smallint, ?::float8, ?::uuid)', [Number(key[1]), Number(key[2]), key[3]!]);
    const found = await rows
      .limit(query.limit + 1)
      .select<MovePageRow[]>('moves.id', 'moves.created_at', 'moves.desk_group', 'moves.desk_due', 'moves.summary');
    const page = found.slice(0, query.limit);
    const moves = await Promise.all(page.map(async (row) => row.summary ?? this.made(row.id)));
    const last = page.at(-1);
    const after = last && (query.order === 'begun' ? `0_${last.created_at}_${last.id}` : `${last.desk_group}_${last.desk_due}_${last.id}`);
    return { moves, next: found.length > query.limit ? (after ?? null) : null };
  }

  /** One that was brought over from before summaries were kept. */
  private async made(id: string): Promise<MoveSummary> {
    const summary = summaryOf(await this.loader.load(id), this.clock.now());
    await this.database('moves')
      .where({ id })
      .whereNull('summary')
      .update({ summary: JSON.stringify(summary), ...deskColumns(summary) });
    return summary;
  }

  /** As `person` sees it: what undo takes back is theirs. */
  async get(id: string, person: string): Promise<MoveView> {
    const loaded = await this.loaded.get(id);
    const people = await this.people.names(loaded.legs.flatMap((one) => one.decisions.flatMap((decision) => decision.person ?? [])));
    const sent = await this.sent(loaded);
    const legs = loaded.legs.map((one) => legView(one, people, sent.get(one.row.id) ?? [], person));
    return { ...summaryOf(loaded, this.clock.now()), version: loaded.move.version, legs };
  }

  /** A page of rows in their order, with what is said of them; throws a NotNow where the row that it comes after is gone. */
  async ledger(legId: string, { after, limit }: z.output<typeof ledgerQuerySchema>): Promise<LedgerPage> {
    const { leg, rows: all, said, stands } = await this.leg(legId);
    const people = await this.people.names(all.flatMap((row) => row.decidedBy ?? []));
    const start = after === undefined ? 0 : all.findIndex((row) => row.id === after) + 1;
    if (after !== undefined && start === 0) throw new NotNow('The rows were proposed anew. Read the ledger from its beginning.');
    const rows = all.slice(start, start + limit);
    const here = new Set(rows.map(keyOfRow));
    const first = start === 0;
    const ruled = first && new Set(all.map(keyOfRow));
    // What is said of no row stands on the first page.
    const isHere = (key: string): boolean => here.has(key) || (ruled && !ruled.has(key));
    const { chosen } = leg.plan;
    const fronting = frontingOfRows(leg.plan);
    return {
      rulings: rows.map((row) => ({
        id: row.id,
        owner: row.owner,
        type: row.type,
        ruling: row.ruling,
        found: row.found ?? null,
        planned: row.planned ?? null,
        reason: row.reason,
        decidedBy: row.decidedBy ? (people.get(row.decidedBy) ?? null) : null,
        fronting: fronting(row),
      })),
      remarks: leg.remarks.filter(({ owner, type }) => isHere(setKey(owner, type))).map((remark) => remarkView(remark, leg.plan.rulings)),
      // What is live before another account takes over says nothing of what is typed there.
      served:
        chosen && !(isTakeover(leg.plan) && leg.times.ts === undefined) && leg.seen.looked[leg.plan.kind === 'repoint' ? 'old' : 'new'] !== undefined
          ? servedView(leg, isHere)
          : null,
      shown: first ? (said.shown?.map((set) => ({ ...set, data: [...set.data] })) ?? null) : null,
      purposes: first ? saidOfSurvey(stands).purposes : [],
      total: all.length,
      next: start + limit < all.length ? rows.at(-1)!.id : null,
    };
  }

  /** Servers whose last answers are known. */
  async answering(legId: string): Promise<AnsweringView> {
    const { leg } = await this.leg(legId);
    return {
      servers: serversSeen(leg).map(({ server, address, of, at, sight }) => ({ server, address, of, at, sets: Object.keys(sight.sets).length })),
    };
  }

  /** What a server answered last; throws where nothing is known of one at this address. */
  async answers(legId: string, address: string): Promise<AnswersView> {
    const { leg } = await this.leg(legId);
    const found = serversSeen(leg).find((one) => one.address === address);
    if (!found) throw notFound('server');
    const { server, at, sight } = found;
    const sets = Object.entries(sight.sets).map(([key, { ttl, data }]) => ({ owner: ownerOf(key), type: typeOf(key), ttl, data: [...data] }));
    return { server, address, at, sets };
  }

  async horizons(legId: string): Promise<HorizonsView> {
    const { leg } = await this.leg(legId);
    const sets = leg.plan.chosen ? [...leg.times.sets].sort((a, b) => b.horizon.at - a.horizon.at) : [];
    return {
      horizons: sets.slice(0, HORIZONS).map(({ key, horizon }) => ({ owner: ownerOf(key), type: typeOf(key), horizon: derivedView(horizon) })),
      total: sets.length,
    };
  }

  async watch(legId: string): Promise<WatchView> {
    const { leg, row } = await this.leg(legId);
    const chosen = leg.plan.chosen;
    const questions = new Map((chosen ? leg.questions : []).map((question) => [question.key, question]));
    const looks = leg.seen.lookouts.filter((look) => questions.has(look.key));
    const website = await this.websiteLooks.latest(row.id);
    const settled = chosen && leg.settled;
    const steady = new Set([...questions.values()].filter((question) => question.steady).map((question) => question.key));
    const runs = chosen && leg.times.t0 ? await this.observations.lookoutRuns(row.id, RUNS) : [];
    const shown = runs.filter((run) => questions.has(run.item) && !steady.has(run.item));
    return {
      lookouts: this.network.lookouts.map(({ name, address, note }) => ({ name, address, note })),
      looks: looks.map((look) => {
        const question = questions.get(look.key)!;
        return {
          lookout: look.lookout,
          owner: question.owner,
          type: question.type,
          verdict: look.verdict,
          answer: [...look.answer],
          rcode: look.rcode,
          firstSeen: look.first,
          lastSeen: look.last,
          remainingTtl: look.remainingTtl,
          silent: look.silent,
          steady: question.steady,
        };
      }),
      parent: leg.seen.parent.map((one) => {
        const last = one.sightings.at(-1);
        const names = last ? shownNames(last.value) : [];
        const state =
          !last || one.silence
            ? 'none'
            : publishesNew(leg.plan, last.value)
              ? 'new'
              : last.value.onlyAddresses || sameNameSet(names, leg.plan.oldNameservers)
                ? 'old'
                : 'other';
        return { server: one.server, address: one.address, nameservers: names, state, problem: one.silence?.problem ?? null, seenAt: last?.last ?? null };
      }),
      settled: settled ? settled.settled : false,
      notYet: chosen ? whyNotYet(leg, website?.changes ?? []) : [],
      missing: settled ? [...settled.missing] : [],
      setAside: settled ? [...settled.setAside] : [],
      website: website
        ? { surveyedAt: website.surveyed_at, firstSeen: website.first_seen, lastSeen: website.last_seen, asked: website.looks.length, changes: website.changes }
        : null,
      curve: oldShare(
        shown.map((run) => {
          const { verdict, silent } = run.value as { verdict: 'old'; silent: boolean };
          return { lookout: run.subject, key: run.item, verdict, silent, first: run.first_seen };
        }),
      ),
    };
  }

  /** The steps of each leg for which something was sent to a server, whatever came of it. */
  private async sent({ legs }: LoadedMove): Promise<Map<string, string[]>> {
    const ids = legs.map(({ row }) => row.id);
    const rows = await this.database<{ leg_id: string; step: string }>('actions').whereIn('leg_id', ids).distinct('leg_id', 'step');
    return new Map(ids.map((id) => [id, rows.filter((row) => row.leg_id === id).map((row) => row.step)]));
  }

  private async leg(legId: string): Promise<LoadedLeg> {
    const { legs } = await this.loaded.get(await this.store.moveOf(legId));
    return legs.find((one) => one.row.id === legId)!;
  }
}

function legView(loaded: LoadedLeg, people: ReadonlyMap<string, string>, sent: readonly string[], person: string): LegView {
  const { leg, row, decisions, rows, hosts } = loaded;
  const chosen = leg.plan.chosen;
  const times = chosen ? leg.times : undefined;
  const gate = gateOf(leg);
  const [undo, redo] = [undoable(decisions, person), redoable(decisions, person)];
  const original = redo && decisions.find((one) => one.id === redo.undoes);
  const count = (kind: string): number => rows.filter((one) => one.ruling === kind).length;
  return {
    id: row.id,
    kind: row.kind,
    next: row.next,
    followed: leg.plan.followed ?? false,
    account: isTakeover(leg.plan),
    isBack: row.back_of !== null,
    chosen,
    oldDnsHost: row.old_dns_host,
    oldWebHost: row.old_web_host,
    newDnsHost: row.new_dns_host,
    newWebHost: row.new_web_host,
    oldNameservers: row.old_nameservers,
    newNameservers: row.new_nameservers,
    steps: stepsOf(leg).map((step) => stepView(step, people)),
    times: times
      ? {
          earliestSwitch: derivedView(times.earliestSwitch),
          certain: times.certain,
          delegation: derivedView(times.delegation),
          extended: derivedView(times.extended),
          signedUntil: times.signedUntil ? derivedView(times.signedUntil) : null,
          last: derivedView(times.last),
          switchSeen: times.switchSeen,
          sets: times.sets.length,
        }
      : null,
    gate: { open: gate.open, opensAt: finite(gate.opensAt), goodUntil: gate.goodUntil, lines: gate.lines.map(lineView) },
    counts: {
      carry: count('carry'),
      repoint: count('repoint'),
      drop: count('drop'),
      new: count('new'),
      remarks: leg.remarks.filter(isOpen).length,
      stops: openStops(leg.remarks).length,
    },
    seen: { tl: times?.tl.all ?? null, ts: times?.ts ?? null, t0: times?.t0 ?? null, te: times?.te.all ?? null },
    plannedSwitch: leg.said.plannedSwitch,
    lowerTo: leg.said.lowerTo,
    approved: leg.said.approved !== undefined,
    pushed: leg.said.pushed !== undefined,
    byHand: chosen && isByHand(leg),
    back: waysBack(leg).map(({ how, ruledOut, takes, gone }) => ({ how, ruledOut, takes: finite(takes), gone: derivedView(gone) })),
    registrar: leg.seen.registration?.registrar ?? null,
    asked: askedView(leg, hosts.get(row.new_web_host ?? '')),
    typed: [...leg.said.typed],
    unseen: chosen ? [...unseenNames(leg.plan)] : [],
    surveyAgain: chosen && leg.said.surveyAsked > (leg.state.work.get('survey')?.upTo ?? 0),
    sent: [...sent],
    survey: row.last_survey ?? row.survey_id,
    said: decisions.at(-1)?.id ?? 0,
    undoable: undo ? decisionWords(undo) : null,
    redoable: original ? decisionWords(original) : null,
  };
}

/** What the new hosts ask for, and what is otherwise at the web host by now. */
function askedView({ plan }: Leg, host: Host | undefined): LegView['asked'] {
  const hosts = plan.isBack || !plan.chosen ? [] : askingHosts(plan);
  if (hosts.length === 0) return null;
  const needs = needsOf(plan).map(({ requirement, owner, data = null, state }) => {
    const { id, type, either, needed, early, ends } = requirement;
    return { id, owner, type, data, state, given: requirement.data === '', either, needed, early, ends };
  });
  const { newWeb } = plan;
  return { hosts, web: newWeb?.name ?? null, needs, changes: host && newWeb ? hostChanges(newWeb, knowledgeOf(host)) : [] };
}

function stepView({ rule, standing }: Step, people: ReadonlyMap<string, string>): LegView['steps'][number] {
  const { decision } = standing;
  return {
    id: rule.id,
    title: rule.title,
    chapter: rule.chapter,
    by: rule.by,
    state: standing.state,
    dueAt: finite(standing.dueAt),
    doneAt: finite(standing.doneAt),
    decidedBy: decision?.person ? (people.get(decision.person) ?? null) : null,
    decidedAt: decision?.at ?? null,
    text: standing.text,
    since: standing.since,
    ways: [...standing.ways],
  };
}

function lineView(one: Line): LegView['gate']['lines'][number] {
  const { key, text, holds, evidence, seenAt, waivable, ways } = one;
  const waived = one.waived ? (one.waived.value as Waiver).reason : null;
  return {
    key,
    text,
    holds,
    passes: passes(one),
    facts: factsOf(one),
    evidence,
    seenAt,
    holdsAt: finite(one.holdsAt),
    waivable,
    about: [...one.about],
    waived,
    ways: [...ways],
  };
}

/** An authority for the nameservers' names says where they are. */
function shownNames({ nameservers, glue, onlyAddresses }: ParentSight): string[] {
  return onlyAddresses ? glue.map((one) => `${one.name.replace(/\.$/, '')} ${one.address}`) : [...nameservers];
}

function servedView(leg: Leg, isHere: (key: string) => boolean): ServedView {
  const ruled = leg.once('ruled', () => new Set([...leg.plan.rulings, ...answeredRows(leg.plan)].map(keyOfRow).concat(frontQuestions(leg.plan))));
  const text = (key: string, answer: { ttl: number; data: readonly string[] }): RRsetText => ({
    owner: ownerOf(key),
    type: typeOf(key),
    ttl: answer.ttl,
    data: [...answer.data],
  });
  return {
    servers: leg
      .once('readBack', () => readBack(leg))
      .map((one) => {
        const sight = leg.seen.zones.find((zone) => zone.address === one.address)?.sightings.at(-1)?.value;
        const extras = Object.entries(sight?.sets ?? {}).filter(([key, answer]) => !ruled.has(key) && isHere(key) && answer.data.length > 0);
        return {
          server: one.server,
          address: one.address,
          at: one.at,
          problem: one.problem,
          apexNew: one.apexNew,
          // What is answered in the place of a row is told with that row.
          differs: one.differs
            .map((differing) => ({ ...differing, of: storedKey(leg.plan, differing.key) }))
            .filter(({ of }) => isHere(of))
            .map(({ key, of, answer }) => {
              const slip = slipSeen(leg, one.address, key, answer);
              return { ...text(of, answer), slip: slip?.text ?? null, forgotten: slip !== undefined && SAYS_LITTLE.has(slip.code) };
            }),
          extras: extras.map(([key, answer]) => text(key, answer)),
        };
      }),
  };
}

/** Servers of both hosts with what they answered last, where that was more than a refusal. */
function serversSeen({ plan, seen }: Leg): { server: string; address: string; of: 'old' | 'new'; at: number; sight: ZoneSight }[] {
  const fresh = new Set(plan.newServers.map((one) => one.address));
  return seen.zones
    .flatMap(({ server, address, sightings }) => {
      const last = sightings.at(-1);
      return last && !last.value.refused
        ? [{ server, address, of: fresh.has(address) ? ('new' as const) : ('old' as const), at: last.last, sight: last.value }]
        : [];
    })
    .sort((a, b) => b.of.localeCompare(a.of));
}

function remarkView({ fixes, waived, ...remark }: LegRemark, rulings: readonly Ruling[]): RemarkView {
  return {
    ...remark,
    waived: waived ?? null,
    fixes: fixes.map((fix) => ({
      key: fixKey(fix),
      text: fix.text,
      rows: fix.rows.map(({ owner, type, row }) => ({
        owner,
        type,
        before: dataOf(rowAt(rulings, owner, type)?.planned),
        after: dataOf(row?.planned),
      })),
    })),
  };
}

function dataOf(set: RRsetText | undefined): string[] | null {
  return set ? [...set.data] : null;
}
