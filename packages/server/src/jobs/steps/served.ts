import { Name, RCODE, RRset, TYPE_CODES, parseRdata, plannedSets, rcodeName, rrsetToText, sameData } from '@wanderon/core';
import { rulingOf, ServedState, ServerAt } from '../../moves/leg';
import { limited } from '@wanderon/net';
import { observed } from '../../network/network';
import { StepContext, StepWork } from '../stepContext';

/** Reads every planned set back from every server of the new DNS host, by the questions that a resolver asks. */
export const served: StepWork = async (context) => {
  const state = await readBack(context);
  await context.store.setServed(context.leg.id, state);
  const differing = state.servers.filter((server) => server.problem !== null || server.differs.length > 0);
  if (differing.length === 0) return { state: 'done' };
  return {
    state: 'wait',
    until: context.clock.now() + context.config.WANDERON_LOOK_EVERY / 2,
    problem: `${differing.map((server) => server.server).join(', ')} ${differing.length === 1 ? 'does' : 'do'} not serve the whole plan yet.`,
  };
};

export async function readBack(context: StepContext): Promise<ServedState> {
  const { network, leg, rulings, zone, clock } = context;
  const walker = network.walker();
  const servers: ServerAt[] = [];
  const missing: ServedState['servers'] = [];
  for (const server of leg.new_nameservers) {
    const addresses = await walker.addressesOf(Name.parse(server));
    if (addresses.length === 0) missing.push({ server, address: '', problem: 'it has no address', differs: [] });
    for (const address of addresses) servers.push({ server, address });
  }
  const apexNs: RRset = { owner: zone, type: TYPE_CODES.NS, ttl: 0, data: leg.new_nameservers.map((name) => parseRdata(TYPE_CODES.NS, name)) };
  const expected = [...plannedSets(rulings.map(rulingOf), 'starting'), apexNs];
  const cuts = expected.filter((set) => set.type === TYPE_CODES.NS && !set.owner.equals(zone)).map((set) => set.owner);
  const results = await limited(servers, 4, async ({ server, address }) => {
    let problem: string | null = null;
    const compared = await limited(expected, 16, async (set) => {
      const asked = await observed(network.client.ask({ address }, set.owner, set.type));
      if (!asked.ok) problem = asked.problem;
      else if (asked.value.rcode !== RCODE.NOERROR && asked.value.rcode !== RCODE.NXDOMAIN) problem = `it answered ${rcodeName(asked.value.rcode)}`;
      else {
        const { answers, authorities, additionals } = asked.value;
        // At and below a cut the server answers with a referral (RFC 1034 §4.3.2 step 3b): NS and glue stand in its other sections.
        const sections = cuts.some((cut) => set.owner.isAtOrBelow(cut)) ? [...answers, ...authorities, ...additionals] : answers;
        const there = sections.filter((record) => record.type === set.type && record.owner.equals(set.owner));
        const data = there.map((record) => record.data);
        if (!sameData(set.type, data, set.data)) return [rrsetToText({ ...set, ttl: there[0]?.ttl ?? 0, data })];
      }
      return [];
    });
    return { server, address, problem, differs: compared.flat() };
  });
  return { at: clock.now(), servers: [...results, ...missing] };
}
