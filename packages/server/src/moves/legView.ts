import { Host, LegView } from '@wanderon/contract';
import {
  Leg,
  Line,
  Step,
  Waiver,
  answeredRows,
  askingHosts,
  decisionWords,
  factsOf,
  gateOf,
  hostChanges,
  isChanging,
  isByHand,
  isOpen,
  isTakeover,
  looksMade,
  needsOf,
  openStops,
  passes,
  redoable,
  stepsOf,
  titleIn,
  undoable,
  unseenNames,
  waysBack,
} from '@wanderon/core';
import { knowledgeOf } from '../hosts/host.store';
import { LoadedLeg } from './legLoader';
import { derivedView, finite } from './summary';

/** A leg as `person` sees it: what undo takes back is theirs. `sent`: steps for which something went to a server. */
export function legView(loaded: LoadedLeg, people: ReadonlyMap<string, string>, sent: readonly string[], person: string): LegView {
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
          sets: answeredRows(leg.plan).filter(isChanging).length,
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
    lowerAt: leg.said.lowerAt,
    oldByHand: chosen && !leg.plan.oldHost?.keyed,
    lowerTo: leg.said.lowerTo,
    approved: leg.said.approved !== undefined,
    pushed: leg.said.pushed !== undefined,
    byHand: chosen && isByHand(leg),
    back: waysBack(leg).map(({ how, ruledOut, takes, gone }) => ({ how, ruledOut, takes: finite(takes), gone: derivedView(gone) })),
    registrar: leg.seen.registration?.registrar ?? leg.said.registration?.registrar ?? null,
    registrationSeen: leg.seen.registration !== undefined && leg.seen.registration.problem === null,
    givenRegistration: leg.said.registration ? { ...leg.said.registration } : null,
    registrarHost: leg.said.registrar ?? null,
    asked: askedView(leg, hosts.get(row.new_web_host ?? '')),
    looks: leg.plan.followed ? [] : looksMade(leg),
    looked: leg.seen.looked,
    ownTasks: [...leg.said.ownTasks],
    ticks: [...leg.said.ticks],
    unseen: chosen ? [...unseenNames(leg.plan)] : [],
    surveyAgain: chosen && leg.said.surveyAsked > (leg.state.work.get('survey')?.upTo ?? 0),
    sent: [...sent],
    survey: row.last_survey ?? row.survey_id,
    said: decisions.at(-1)?.id ?? 0,
    undoable: undo ? decisionWords(undo, titleIn(leg)) : null,
    redoable: original ? decisionWords(original, titleIn(leg)) : null,
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
