import { randomBytes } from 'node:crypto';
import {
  AuthorityAnswer,
  Exploration,
  Hint,
  Means,
  Name,
  RCODE,
  RRset,
  TYPE_CODES,
  TsigKey,
  againstGiven,
  coverageOf,
  groupRecords,
  negativeTtl,
  readSoa,
  rrsetKey,
  rrsetToText,
} from '@wanderon/core';
import { Delegation, NetError, exploreZone, limited, transferZone, walkZone } from '@wanderon/net';
import { Network, observed } from '../network/network';
import { ServerAt } from '../moves/leg';
import { NewSurvey } from './survey.store';

export interface TakenSurvey {
  readonly survey: NewSurvey;
  readonly authorities: readonly ServerAt[];
  readonly nameservers: readonly string[];
  /** TTLs in seconds, as the symbols of docs/calculations.md. */
  readonly P: number;
  readonly C: number;
  readonly N: number;
  readonly ds: boolean;
}

/** Asks every authority that the parent delegates to, and takes the inventory by the strongest means there is. Throws a NetError where no server of the parent answered. */
export async function takeSurvey(
  network: Network,
  zone: Name,
  delegation: Delegation,
  key: TsigKey | undefined,
  takenAt: number,
  given: Given,
): Promise<TakenSurvey> {
  const walker = network.walker();
  const nameservers = nameserversOf(delegation);
  const authorities: ServerAt[] = [];
  for (const server of nameservers) for (const address of await walker.addressesOf(Name.parse(server))) authorities.push({ server, address });
  const answers: AuthorityAnswer[] = await limited(authorities, 8, async ({ server, address }) => {
    const asked = await observed(network.client.ask({ address }, zone, TYPE_CODES.SOA));
    if (!asked.ok) return { server, address, authoritative: false, serial: undefined, transferred: false, problem: asked.problem };
    const soa = asked.value.answers.find((record) => record.type === TYPE_CODES.SOA && record.owner.equals(zone));
    const authoritative = asked.value.authoritative && asked.value.rcode === RCODE.NOERROR && soa !== undefined;
    return {
      server,
      address,
      authoritative,
      serial: soa ? readSoa(soa.data).serial : undefined,
      transferred: false,
      problem: authoritative ? undefined : 'it is lame: it does not answer with authority',
    };
  });
  const got = (await byTransfer(network, zone, key, answers)) ?? (await byQuestions(network, zone, answers, given));
  const { sets } = got;
  const hints = [...got.hints, ...againstGiven(zone, sets, given.sets)];
  const soaSet = sets.find((set) => set.type === TYPE_CODES.SOA);
  const apexNs = sets.find((set) => set.type === TYPE_CODES.NS && set.owner.equals(zone));
  const published = delegation.referrals.filter((referral) => referral.ttl !== undefined);
  return {
    survey: {
      takenAt,
      parent: delegation.parent,
      coverage: (({ grade, reasons }) => ({ grade, reasons: [...reasons] }))(coverageOf(answers, got.means)),
      referrals: delegation.referrals.map((referral) => ({
        ...referral,
        nameservers: [...referral.nameservers],
        glue: [...referral.glue],
        ds: [...referral.ds],
        ttl: referral.ttl ?? null,
        problem: referral.problem ?? null,
      })),
      authorities: answers.map((answer) => ({ ...answer, serial: answer.serial ?? null, problem: answer.problem ?? null })),
      sets: sets.map((set) => ({ ...rrsetToText(set), evidence: got.evidence(set) })),
      hints: hints.map(({ name, text }) => ({ owner: name.toString(), text, answer: null })),
    },
    authorities,
    nameservers,
    P: Math.max(0, ...published.map((referral) => referral.ttl!)),
    C: apexNs?.ttl ?? 0,
    N: soaSet ? negativeTtl(soaSet.ttl, readSoa(soaSet.data[0]!).minimum) : 0,
    ds: delegation.referrals.some((referral) => referral.ds.length > 0),
  };
}

/** What a person has in hand of the zone. */
export interface Given {
  readonly names: readonly Name[];
  readonly sets: readonly RRset[];
}

/** An inventory, how it was come by, and what is known to be missing. */
interface Inventory {
  readonly means: Means;
  readonly sets: readonly RRset[];
  readonly hints: readonly Hint[];
  readonly evidence: (set: RRset) => string;
}

/** The zone from the first authority that transfers it; what the others said against it is noted in `answers`. */
async function byTransfer(network: Network, zone: Name, key: TsigKey | undefined, answers: AuthorityAnswer[]): Promise<Inventory | undefined> {
  for (const [index, answer] of answers.entries()) {
    if (!answer.authoritative) continue;
    const transferred = await observed(transferZone(network.client, { address: answer.address }, zone, { key, limit: 1_000_000 }));
    if (!transferred.ok) {
      answers[index] = { ...answer, problem: transferred.problem };
      continue;
    }
    const { serial, records } = transferred.value;
    answers[index] = { ...answer, transferred: true, serial };
    return {
      means: { kind: 'transfer' },
      sets: groupRecords(records),
      hints: [],
      evidence: () => `transfer from ${answer.server} (${answer.address}) at serial ${serial}`,
    };
  }
  return undefined;
}

/** Along the NSEC chain of a signed zone, else by questions from the catalogue; from the first authority that answers. */
async function byQuestions(network: Network, zone: Name, answers: readonly AuthorityAnswer[], given: Given): Promise<Inventory> {
  const source = answers.find((answer) => answer.authoritative);
  const nothing: Inventory = {
    means: { kind: 'questions', address: '', asked: 0, remarks: [] },
    sets: [],
    hints: [],
    evidence: () => '',
  };
  if (!source) return nothing;
  const { server, address } = source;
  const walked = await walkZone(network.client, { address }, zone);
  if (walked.whole)
    return {
      means: { kind: 'walk', address, serial: walked.serial, names: walked.names, whole: true, problems: [] },
      sets: walked.sets,
      hints: [],
      evidence: () => `named by the NSEC chain of ${server} (${address}) at serial ${walked.serial}`,
    };
  // What a walk that broke off has seen is known to exist, and leads on.
  const known = [
    ...[...walked.sets, ...given.sets].map((set) => ({ name: set.owner, types: [set.type] })),
    ...given.names.map((name) => ({ name, types: [] })),
  ];
  const exploration = new Exploration(zone, () => `${randomBytes(9).toString('hex')}-nobody`, known);
  await exploreZone(network.client, { address }, exploration);
  const { sets, hints, remarks, asked } = exploration.report();
  const reasons = new Map(sets.map(({ set, because }) => [rrsetKey(set.owner, set.type), because]));
  return {
    means: {
      kind: 'questions',
      address,
      asked: asked + walked.asked,
      remarks: [...(walked.names > 0 ? walked.problems.slice(0, 3) : []), ...remarks],
    },
    sets: sets.map(({ set }) => set),
    hints,
    evidence: (set) => `answered by ${server} (${address}); its name: ${reasons.get(rrsetKey(set.owner, set.type)) ?? ''}`,
  };
}

/** Every name that any server of the parent delegates to. Throws a NetError where none of them answered. */
export function nameserversOf(delegation: Delegation): string[] {
  if (delegation.referrals.every((referral) => referral.problem !== undefined)) throw new NetError('unreachable', `no server of ${delegation.parent} answers`);
  return [...new Set(delegation.referrals.flatMap((referral) => referral.nameservers))].sort();
}
