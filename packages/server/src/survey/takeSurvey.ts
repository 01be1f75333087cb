import {
  AuthorityAnswer,
  Name,
  RCODE,
  ResourceRecord,
  TYPE_CODES,
  TsigKey,
  groupRecords,
  negativeTtl,
  readSoa,
  rrsetToText,
  transferCoverage,
} from '@wanderon/core';
import { Delegation, NetError, transferZone } from '@wanderon/net';
import { Network, limited, observed } from '../network/network';
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

/** Asks every authority that the parent delegates to, and transfers the zone. Throws a NetError where no server of the parent answered. */
export async function takeSurvey(network: Network, zone: Name, delegation: Delegation, key: TsigKey | undefined, takenAt: number): Promise<TakenSurvey> {
  const walker = network.walker();
  const nameservers = nameserversOf(delegation);
  const authorities: ServerAt[] = [];
  for (const server of nameservers) for (const address of await walker.addressesOf(Name.parse(server))) authorities.push({ server, address });
  let records: readonly ResourceRecord[] | undefined;
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
  let source: AuthorityAnswer | undefined;
  for (const [index, answer] of answers.entries()) {
    if (!answer.authoritative) continue;
    const transferred = await observed(transferZone(network.client, { address: answer.address }, zone, { key, limit: 1_000_000 }));
    if (!transferred.ok) {
      answers[index] = { ...answer, problem: transferred.problem };
      continue;
    }
    records = transferred.value.records;
    source = answers[index] = { ...answer, transferred: true, serial: transferred.value.serial };
    break;
  }
  const sets = groupRecords(records ?? []);
  const soaSet = sets.find((set) => set.type === TYPE_CODES.SOA);
  const apexNs = sets.find((set) => set.type === TYPE_CODES.NS && set.owner.equals(zone));
  const published = delegation.referrals.filter((referral) => referral.ttl !== undefined);
  return {
    survey: {
      takenAt,
      parent: delegation.parent,
      coverage: (({ grade, reasons }) => ({ grade, reasons: [...reasons] }))(transferCoverage(answers)),
      referrals: delegation.referrals.map((referral) => ({
        ...referral,
        nameservers: [...referral.nameservers],
        glue: [...referral.glue],
        ds: [...referral.ds],
        ttl: referral.ttl ?? null,
        problem: referral.problem ?? null,
      })),
      authorities: answers.map((answer) => ({ ...answer, serial: answer.serial ?? null, problem: answer.problem ?? null })),
      sets: sets.map((set) => ({ ...rrsetToText(set), evidence: `transfer from ${source!.server} (${source!.address}) at serial ${source!.serial}` })),
    },
    authorities,
    nameservers,
    P: Math.max(0, ...published.map((referral) => referral.ttl!)),
    C: apexNs?.ttl ?? 0,
    N: soaSet ? negativeTtl(soaSet.ttl, readSoa(soaSet.data[0]!).minimum) : 0,
    ds: delegation.referrals.some((referral) => referral.ds.length > 0),
  };
}

/** Every name that any server of the parent delegates to. Throws a NetError where none of them answered. */
export function nameserversOf(delegation: Delegation): string[] {
  if (delegation.referrals.every((referral) => referral.problem !== undefined)) throw new NetError('unreachable', `no server of ${delegation.parent} answers`);
  return [...new Set(delegation.referrals.flatMap((referral) => referral.nameservers))].sort();
}
