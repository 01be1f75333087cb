import { Name, ParentSight, TYPE_CODES, keyOf, namesElsewhere } from '@wanderon/core';
import { Delegation, NetError, Walker } from '@wanderon/net';
import { askSet } from '../askZone';
import { Network } from '../../network/network';
import { Sighted } from '../../moves/observation.store';
import { WorkContext } from '../context';

const ADDRESS_TYPES = [TYPE_CODES.A, TYPE_CODES.AAAA];

type Referral = Delegation['referrals'][number];

/** What every server of the parent publishes. */
export async function lookAtParent(context: WorkContext, network: Network): Promise<Sighted[]> {
  try {
    const walker = network.walker();
    const { referrals } = await walker.delegation(context.zone);
    const elsewhere = namesElsewhere(context.leg.plan).map((name) => Name.parse(name));
    const told = await nameAuthorities(network, walker, elsewhere);
    const published = referrals.map(parentSighted);
    // A server of the parent that has authority for these names as well is one server, and says both.
    const both = (one: Sighted): Sighted => withGlue(one, told.find((other) => other.subject === one.subject)?.value as ParentSight | undefined);
    return [...published.map(both), ...told.filter((one) => !published.some((other) => other.subject === one.subject))];
  } catch (error) {
    if (!(error instanceof NetError)) throw error;
    // The way to the parent is lost: of no server anything was heard.
    return context.leg.seen.parent.map((one) => ({ kind: 'parent', subject: one.address, server: one.server, value: undefined, problem: error.message }));
  }
}

/** Where the authorities of names that stay say that these are: by that alone the new set is told from the old one. */
async function nameAuthorities(network: Network, walker: Walker, names: readonly Name[]): Promise<Sighted[]> {
  const servers = new Map<string, { server: string; names: { name: Name; zone: Name }[] }>();
  for (const name of names) {
    const { zone, servers: all } = await walker.serversFor(name);
    for (const { name: server, addresses } of all)
      for (const address of addresses) {
        const known = servers.get(address) ?? { server, names: [] };
        known.names.push({ name, zone });
        servers.set(address, known);
      }
  }
  return Promise.all(
    [...servers].map(async ([subject, { server, names: told }]): Promise<Sighted> => {
      const base = { kind: 'parent', subject, server } as const;
      const questions = told.flatMap(({ name, zone }) => ADDRESS_TYPES.map((type) => ({ name, zone, type })));
      const answers = await Promise.all(questions.map((one) => askSet(network.client, subject, one.zone, keyOf(one.name, one.type))));
      if (answers.some((answer) => answer === undefined)) return { ...base, value: undefined, problem: 'it does not answer where the nameservers are' };
      const glue = questions.flatMap(({ name }, index) =>
        answers[index]!.data.map((address) => ({ name: name.toString(), address, ttl: answers[index]!.ttl })),
      );
      const value: ParentSight = { nameservers: [], ttl: 0, glue: glue.sort(byText), ds: [], dsTtl: 0, onlyAddresses: true };
      return { ...base, value };
    }),
  );
}

/** What it answers with authority takes the place of what it gives as glue (RFC 2181 §5.4.1). */
function withGlue(row: Sighted, told: ParentSight | undefined): Sighted {
  if (!told || row.value === undefined) return row;
  const value = row.value as ParentSight;
  const names = new Set(told.glue.map((one) => one.name.toLowerCase()));
  return { ...row, value: { ...value, glue: [...value.glue.filter((one) => !names.has(one.name.toLowerCase())), ...told.glue].sort(byText) } };
}

const byText = (a: ParentSight['glue'][number], b: ParentSight['glue'][number]): number => (`${a.name} ${a.address}` < `${b.name} ${b.address}` ? -1 : 1);

export function parentSighted(
  referral: Pick<Referral, 'server' | 'address' | 'nameservers' | 'ttl' | 'glue' | 'ds' | 'dsTtl' | 'problem'> & { readonly holdsZone?: boolean | undefined },
): Sighted {
  const { server, address, problem } = referral;
  const base = { kind: 'parent', subject: address, server } as const;
  if (problem !== undefined) return { ...base, value: undefined, problem };
  const value: ParentSight = {
    nameservers: [...referral.nameservers].sort(),
    ttl: referral.ttl ?? 0,
    glue: [...referral.glue].map(({ name, address: at, ttl }) => ({ name, address: at, ttl })).sort(byText),
    ds: [...referral.ds].sort(),
    dsTtl: referral.dsTtl ?? 0,
    ...(referral.holdsZone && { holdsZone: true as const }),
  };
  return { ...base, value };
}
