import { RRsetText } from '../dns/record';
import { Fronting } from '../hosts/fronting';
import { tickedOn } from '../hosts/sheetTicks';
import { Instant } from '../timetable/instant';
import { STARTING_TTL } from '../rebuild/propose';
import { NO_WISH, SiteWish } from '../watch/site';
import { SetKey } from './plan';

/** What people decide about a leg; each is a row that is never changed, and taken back by another row. */
export const DECISION_KINDS = [
  'hosts', // where it goes
  'named', // which nameservers the new host gave this domain; value: their names
  'ruling', // what becomes of a record set; subject: the row's id
  'rulings', // the same of many record sets at once; value: their rows, and the rule by which they were ruled, if there is one
  'rule over', // such a rule is offered to no more rows; subject: the id of the decision that made it
  'push', // the new zone is pushed, and what changes in the plan later with it
  'approve', // TTLs lowered, the old zone names the new nameservers, TTLs raised, and when
  'submitted', // the nameservers were changed at the registrar, or the records are to change now or were changed
  'leave', // a step is left to a person or left out; subject: the step
  'retry', // a step that stopped is tried again; subject: the step
  'aside', // a server is not waited for any more; subject: its address
  'waive', // a line of the gate is let pass; subject: the line
  'accept TTLs', // TTLs that cannot be lowered are taken as they are
  'assent', // what stands at the new host and is not ours; subject: the set
  'survey', // a survey is taken again
  'site', // at which spelling visitors are to end, and where the site stands beforehand; value: a SiteWish
  'website', // the website is looked at now
  'hint', // what a hint is about
  'purpose', // what a record set is for
  'stored', // what a fronted set holds
  'look', // servers are looked at now; subject: the kind of look
  'own task', // something to do that somebody noted; subject: its id, value: the task, or null where it is taken away
  'pages', // pages that are looked at
  'done', // a step that a person does; subject: the step
  'early', // what the web host looks for beforehand is put into the live zone
  'front', // how a name is answered at a host that fronts names; subject: the name in lower case
  'panel', // what the panel of the DNS host was seen to show; value: its sets, or null
  'comment', // what somebody writes beside a record set; subject: its key, value: its text
  'typed', // a row of a handover sheet was typed, or not after all; subject: its tick (`tickOf`)
  'registration', // what the registrar shows of the domain, where no registry tells; value: a GivenRegistration
  'registrar', // at which registrar the nameservers are changed; value: the host's id
] as const;
export type DecisionKind = (typeof DECISION_KINDS)[number];

export interface Decision {
  readonly id: number;
  readonly kind: DecisionKind;
  readonly subject: string;
  readonly value: unknown;
  readonly person: string | null;
  readonly at: Instant;
  /** The decision that this one takes back; its own value does not count. */
  readonly undoes: number | null;
}

/** Decisions that stand: those not taken back, in the order in which they were made. A taking back can be taken back. */
export function standing<D extends Pick<Decision, 'id' | 'undoes'>>(decisions: readonly D[]): D[] {
  const undone = new Set<number>();
  // The newest first: what takes back is itself judged before what it takes back.
  for (const decision of [...decisions].sort((a, b) => b.id - a.id)) if (decision.undoes !== null && !undone.has(decision.id)) undone.add(decision.undoes);
  return decisions.filter((decision) => decision.undoes === null && !undone.has(decision.id));
}

export interface Assent {
  /** `take`: ours replaces it or it goes; `leave`: it stays where it is. */
  readonly what: 'take' | 'leave';
  /** What stood there when it was said. */
  readonly data: readonly string[];
}

/** The decisions of a leg as its rules ask for them. */
export interface Said {
  readonly named: Decision | undefined;
  readonly pushed: Decision | undefined;
  readonly approved: Decision | undefined;
  readonly lowerTo: number;
  readonly lowerAt: Instant | null;
  readonly plannedSwitch: Instant | null;
  readonly submitted: Decision | undefined;
  readonly submittedAt: Instant | undefined;
  readonly left: ReadonlyMap<string, Decision>;
  readonly done: ReadonlyMap<string, Decision>;
  readonly early: Decision | undefined;
  readonly retried: ReadonlyMap<string, Decision>;
  readonly aside: ReadonlyMap<string, Decision>;
  readonly waived: ReadonlyMap<string, Decision>;
  readonly accepted: Decision | undefined;
  /** Seconds; TTLs up to this one are taken as they are. */
  readonly acceptedTtl: number | undefined;
  readonly assents: ReadonlyMap<SetKey, Assent>;
  readonly surveyAsked: number;
  readonly websiteAsked: number;
  /** When somebody asked for a look of a kind last. */
  readonly looksAsked: ReadonlyMap<string, Instant>;
  readonly ownTasks: readonly OwnTask[];
  /** Ticks on handover sheets, all of them: what somebody says is typed completes nothing that can be seen. */
  readonly ticks: readonly string[];
  /** Those on the sheet of the records, by their rows. */
  readonly typed: readonly string[];
  /** What a person says of the registration. */
  readonly registration: GivenRegistration | undefined;
  /** The registrar that a person chose, by its id as a host. */
  readonly registrar: string | undefined;
  readonly site: SiteWish;
  readonly fronting: ReadonlyMap<string, Fronting>;
  /** What the panel of the DNS host was seen to show, as somebody pasted it. */
  readonly shown: readonly RRsetText[] | undefined;
}

/** Something that somebody wants done in this move, beside what its hosts ask for. */
export interface OwnTask {
  readonly id: string;
  readonly title: string;
  /** `before`: the cutover waits for it. `after`: it can only be done then. */
  readonly when: 'before' | 'after';
  readonly note: string;
}

/** What a person says of the registration, as its registrar shows it; null: not said. */
export interface GivenRegistration {
  readonly registrar: string | null;
  readonly expires: Instant | null;
  /** Changes are locked there. */
  readonly locked: boolean | null;
}

interface Approval {
  readonly lowerTo?: number;
  readonly lowerAt?: Instant | null;
  readonly plannedSwitch?: Instant | null;
}

/** What stands, by kind and subject; the last word on a subject counts. */
export function saidBy(decisions: readonly Decision[]): Said {
  const stands = standing(decisions);
  const last = (kind: DecisionKind): Decision | undefined => stands.findLast((one) => one.kind === kind);
  const bySubject = (kind: DecisionKind): Map<string, Decision> => new Map(stands.filter((one) => one.kind === kind).map((one) => [one.subject, one]));
  const approved = last('approve');
  const submitted = last('submitted');
  const approval = (approved?.value ?? {}) as Approval;
  const ticks = [...bySubject('typed')].flatMap(([tick, one]) => (one.value === true ? [tick] : []));
  return {
    named: last('named'),
    pushed: last('push'),
    approved,
    lowerTo: approval.lowerTo ?? STARTING_TTL,
    lowerAt: approval.lowerAt ?? null,
    plannedSwitch: approval.plannedSwitch ?? null,
    submitted,
    submittedAt: submitted?.at,
    left: bySubject('leave'),
    done: bySubject('done'),
    early: last('early'),
    retried: bySubject('retry'),
    aside: bySubject('aside'),
    waived: bySubject('waive'),
    accepted: last('accept TTLs'),
    acceptedTtl: last('accept TTLs')?.value as number | undefined,
    assents: new Map([...bySubject('assent')].map(([key, one]) => [key, one.value as Assent])),
    surveyAsked: last('survey')?.id ?? 0,
    websiteAsked: last('website')?.id ?? 0,
    looksAsked: new Map([...bySubject('look')].map(([kind, one]) => [kind, one.at])),
    ownTasks: [...bySubject('own task')].flatMap(([id, one]) => (one.value === null ? [] : [{ ...(one.value as Omit<OwnTask, 'id'>), id }])),
    ticks,
    typed: tickedOn('records', ticks),
    registration: last('registration')?.value as GivenRegistration | undefined,
    registrar: last('registrar')?.value as string | undefined,
    site: (last('site')?.value as SiteWish | undefined) ?? NO_WISH,
    fronting: new Map([...bySubject('front')].map(([owner, one]) => [owner, one.value as Fronting])),
    shown: (last('panel')?.value as readonly RRsetText[] | null | undefined) ?? undefined,
  };
}
