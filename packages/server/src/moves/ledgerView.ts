import { LedgerPage, RemarkView, ServedView, ledgerQuerySchema } from '@wanderon/contract';
import {
  CheckBasis,
  CheckedWeb,
  KnownStyle,
  Leg,
  LedgerRow,
  LegRemark,
  Name,
  Placed,
  RuleOffer,
  RRsetText,
  Ruling,
  SAYS_LITTLE,
  answeredRows,
  fixKey,
  frontQuestions,
  frontingOfRows,
  isTakeover,
  keyOfRow,
  lessonsSeen,
  placesOf,
  ownerOf,
  readBack,
  rebuildsZone,
  rowAt,
  ruleOffers,
  ruleWords,
  setKey,
  slipSeen,
  storedKey,
  typeOf,
} from '@wanderon/core';
import { z } from 'zod';
import { styleView } from '../hosts/panelStyle';
import { NotNow } from '../refusals';
import { saidOfSurvey } from '../survey/saidOfSurvey';
import { LoadedLeg } from './legLoader';

/** A page of a leg's rows in the order of their places, without remarks (`remarksOf`); throws a NotNow where the row that it comes after is gone. */
export function ledgerPage(
  { row, leg, rows: found, said, stands, hosts }: LoadedLeg,
  { after, from = 0, limit }: z.output<typeof ledgerQuerySchema>,
  people: ReadonlyMap<string, string>,
): Omit<LedgerPage, 'remarks'> {
  const { chosen } = leg.plan;
  const { purposes } = saidOfSurvey(stands);
  // As they are read: what is seen first stays where it is when the others come.
  const { places, read: all, indexes } = orderOf(leg.plan.zone, found, purposes);
  const start = after === undefined ? Math.min(from, all.length) : all.findIndex((row) => row.id === after) + 1;
  if (after !== undefined && start === 0) throw new NotNow('The rows were proposed anew. Read the plan from its beginning.');
  const rows = all.slice(start, start + limit);
  const first = start === 0;
  const isHere = onPage(all, rows, first);
  const fronting = frontingOfRows(leg.plan);
  const panel = hosts.get((rebuildsZone(leg.plan) ? row.new_dns_host : row.old_dns_host) ?? '');
  return {
    leg: row.id,
    after: all[start - 1]?.id ?? null,
    rulings: rows.map((one) => ({
      id: one.id,
      owner: one.owner,
      type: one.type,
      ruling: one.ruling,
      found: one.found ?? null,
      planned: one.planned ?? null,
      reason: one.reason,
      decidedBy: one.decidedBy ? (people.get(one.decidedBy) ?? null) : null,
      fronting: fronting(one),
      ...places.get(one)!,
      index: indexes.get(one)!,
    })),
    // What is live before another account takes over says nothing of what is typed there.
    served:
      chosen && !(isTakeover(leg.plan) && leg.times.ts === undefined) && leg.seen.looked[leg.plan.kind === 'repoint' ? 'old' : 'new'] !== undefined
        ? servedView(leg, isHere, first ? (panel?.entry ?? null) : undefined)
        : null,
    shown: first ? (said.shown?.map((set) => ({ ...set, data: [...set.data] })) ?? null) : null,
    purposes: first ? purposes : [],
    checking: first && chosen ? checkingView(leg.checking) : null,
    rules: first ? ruleOffers(leg.plan.zone, found, stands, purposes).map((offer) => ruleView(offer, people)) : [],
    total: all.length,
    next: start + limit < all.length ? rows.at(-1)!.id : null,
  };
}

/** Whether what is about a set stands on the page that has `rows` of `all`; on the first one stands what has no row. */
function onPage(all: readonly KeyedRow[], rows: readonly KeyedRow[], isFirst: boolean): (key: string) => boolean {
  const here = new Set(rows.map(keyOfRow));
  const ruled = isFirst ? new Set(all.map(keyOfRow)) : undefined;
  return (key) => here.has(key) || (ruled !== undefined && !ruled.has(key));
}

type KeyedRow = Pick<LedgerRow, 'owner' | 'type'>;

/** What is said of the rows of a page, and on the first one of what has no row; of all rows, where no page is given. */
export function remarksOf({ leg }: Pick<LoadedLeg, 'leg'>, page?: Pick<LedgerPage, 'rulings' | 'after'>): RemarkView[] {
  const { rulings } = leg.plan;
  const isHere = page ? onPage(rulings, page.rulings, page.after === null) : () => true;
  return leg.remarks.filter(({ owner, type }) => isHere(setKey(owner, type))).map((remark) => remarkView(remark, rulings));
}

interface Order {
  readonly places: ReadonlyMap<LedgerRow, Placed>;
  /** As they are read in the ledger. */
  readonly read: readonly LedgerRow[];
  /** Where each stands in the plan. */
  readonly indexes: ReadonlyMap<LedgerRow, number>;
}

/** By the rows themselves, which are others as soon as anything is decided. */
const ORDERS = new WeakMap<readonly LedgerRow[], Order>();

function orderOf(zone: Name, rows: readonly LedgerRow[], purposes: LedgerPage['purposes']): Order {
  let order = ORDERS.get(rows);
  if (!order) {
    const places = placesOf(zone, rows, purposes);
    ORDERS.set(rows, (order = { places, read: [...places.keys()], indexes: new Map(rows.map((row, index) => [row, index])) }));
  }
  return order;
}

/** `style`: what is known of the panel; undefined: what is to be learned of it is not asked. */
function servedView(leg: Leg, isHere: (key: string) => boolean, style: KnownStyle | null | undefined): ServedView {
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
          refused: one.refused,
          apexNew: one.apexNew,
          apex: one.apex ? { ttl: one.apex.ttl, data: [...one.apex.data] } : null,
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
    lessons:
      style === undefined
        ? []
        : lessonsSeen(leg, style).map((lesson) => ({ ...lesson, choices: lesson.choices.map(({ label, change }) => ({ label, change: styleView(change) })) })),
  };
}

function checkingView({ oldWeb, newWeb, fronted, lacks, ttls, faults, leaves, edge, scope, ...more }: CheckBasis): LedgerPage['checking'] {
  const web = ({ addresses, issuers, ...one }: CheckedWeb) => ({ ...one, addresses: [...addresses], issuers: issuers && [...issuers] });
  return {
    ...more,
    oldWeb: oldWeb.map(web),
    newWeb: newWeb && web(newWeb),
    fronted: fronted.map((set) => ({ ...set, data: [...set.data] })),
    scope: scope.kind === 'whole' ? scope : { ...scope, names: [...scope.names], asked: scope.asked && [...scope.asked] },
    lacks: [...lacks],
    ttls: ttls && { ...ttls, ttls: ttls.ttls && [...ttls.ttls] },
    redirects: [...more.redirects],
    faults: faults.map(({ pages, text }) => ({ pages: [...pages], text })),
    sharedServers: [...more.sharedServers],
    leaves: leaves ? { ...leaves, forwards: [...leaves.forwards] } : null,
    edge: { ...edge, fronting: edge.fronting.map(([owner, state]): [string, typeof state] => [owner, state]) },
  };
}

function ruleView({ id, rule, person, rows }: RuleOffer, people: ReadonlyMap<string, string>): LedgerPage['rules'][number] {
  return {
    id,
    words: ruleWords(rule),
    who: person === null ? null : (people.get(person) ?? null),
    rows: rows.map(({ before, row }) => ({
      id: before.id,
      ruling: row?.ruling ?? null,
      planned: row?.planned ? { ...row.planned, data: [...row.planned.data] } : null,
    })),
  };
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
