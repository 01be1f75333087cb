import { Name, RRset, TsigKey, rrsetFromText } from '@wanderon/core';
import { DnsClient } from '@wanderon/net';
import { TakenSurvey, takeSurvey } from '../../../packages/server/src/survey/takeSurvey';
import { SurveyWish } from '../../../packages/server/src/survey/surveyWorld';

export interface SurveyedServer {
  readonly name: string;
  readonly address: string;
}

/** A survey as the server takes it, of a zone that stands at the servers given: the parent is only told of. */
export function surveyOf(
  client: DnsClient,
  zone: Name,
  servers: readonly SurveyedServer[],
  known: { key?: TsigKey | undefined; given?: SurveyWish['given']; fronts?: SurveyWish['fronts']; siblings?: readonly string[]; isEnough?: () => boolean } = {},
): Promise<TakenSurvey> {
  const nameservers = servers.map((server) => server.name);
  const referral = {
    server: 'parent.test.',
    address: '192.0.2.1',
    nameservers,
    ttl: 3600,
    glue: [],
    ds: [],
    dsTtl: undefined,
    denied: false,
    holdsZone: false,
    problem: undefined,
  };
  const walker = {
    givenUp: new Set<string>(),
    delegation: () => Promise.resolve({ parent: zone.parent.toString(), referrals: [referral] }),
    recordsOf: () => Promise.resolve(null),
    addressesOf: (name: Name) => Promise.resolve(servers.filter((server) => Name.parse(server.name).equals(name)).map((server) => server.address)),
  };
  return takeSurvey(
    { client, walker: () => walker, http: { routes: client.routes }, bootstrap: () => Promise.resolve(undefined) },
    {
      zone,
      hosts: [{ id: 'host', name: 'Host', nameservers, key: () => Promise.resolve(known.key) }],
      fronts: known.fronts ?? [],
      given: known.given ?? { names: [], sets: [] },
      siblings: () => Promise.resolve(known.siblings ?? []),
      isEnough: known.isEnough,
      pages: [],
    },
    () => 1_800_000_000,
  );
}

export function setsOf(taken: TakenSurvey): RRset[] {
  return taken.survey.sets.map(rrsetFromText);
}
