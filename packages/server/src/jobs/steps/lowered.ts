import { Name, TYPE_CODES, groupRecords, rrsetFromText, rrsetKey, sameData, typeMnemonic } from '@wanderon/core';
import { limited, transferZone } from '@wanderon/net';
import { observed } from '../../network/network';
import { markSeen } from '../seen';
import { StepContext, StepWork } from '../stepContext';
import { loweredTtl, setsToLower } from './lower';

/** Sees that every address of every old authority serves the lowered TTLs; from then on the old TTLs run out. */
export const lowered: StepWork = async (context) => {
  const { leg, clock, network, store, rulings, zone } = context;
  const sets = setsToLower(zone, rulings);
  const silent = new Set<string>();
  const servers = await limited(leg.facts.oldAuthorities ?? [], 4, async (server) => {
    const all = await limited(sets, 16, async (set) => {
      const asked = await observed(network.client.ask({ address: server.address }, set.owner, set.type));
      if (!asked.ok) {
        silent.add(server.server);
        return false;
      }
      const there = asked.value.answers.filter((record) => record.type === set.type && record.owner.equals(set.owner));
      return there.length > 0 && there.every((record) => record.ttl <= Math.min(set.T, loweredTtl(leg)));
    });
    return { ...server, isNew: all.every(Boolean) };
  });
  const seen = markSeen(leg.facts, 'lowered', clock.now(), servers);
  await store.addFacts(leg.id, seen.facts);
  if (!seen.all) {
    const waiting = servers.filter((server) => !server.isNew).map((server) => server.server);
    const behind = waiting.filter((server) => !silent.has(server));
    const words = [
      behind.length > 0 ? `${behind.join(', ')} still ${behind.length === 1 ? 'serves' : 'serve'} the old TTLs.` : '',
      silent.size > 0 ? `${[...silent].join(', ')} ${silent.size === 1 ? 'does' : 'do'} not answer.` : '',
    ];
    return { state: 'wait', until: clock.now() + context.config.WANDERON_LOOK_EVERY, problem: words.filter(Boolean).join(' ') };
  }
  await store.addFacts(leg.id, { tl: seen.all, drift: await driftSince(context) });
  return { state: 'done' };
};

/** What the old zone holds otherwise than it was surveyed, TTLs aside, in words. */
async function driftSince(context: StepContext): Promise<string[]> {
  const { leg, network, hosts, zone, rulings } = context;
  const key = await hosts.keyOf(leg.old_dns_host);
  const address = leg.facts.oldAuthorities?.[0]?.address;
  if (!address) return [];
  const got = await observed(transferZone(network.client, { address }, zone, { key }));
  if (!got.ok) return driftByQuestions(context, address);
  const own = (owner: Name, type: number): boolean => owner.equals(zone) && (type === TYPE_CODES.SOA || type === TYPE_CODES.NS);
  const now = new Map(
    groupRecords(got.value.records)
      .filter((set) => !own(set.owner, set.type))
      .map((set) => [rrsetKey(set.owner, set.type), set]),
  );
  const drift: string[] = [];
  for (const row of rulings) {
    if (!row.found) continue;
    const found = rrsetFromText(row.found);
    if (own(found.owner, found.type)) continue;
    const set = now.get(rrsetKey(found.owner, found.type));
    now.delete(rrsetKey(found.owner, found.type));
    if (!set) drift.push(`${row.owner} ${row.type} is gone`);
    else if (!sameData(set.type, set.data, found.data)) drift.push(`${row.owner} ${row.type} changed`);
  }
  for (const set of now.values()) drift.push(`${set.owner.toString()} ${typeMnemonic(set.type)} was added`);
  return drift;
}

/** The same where the old host gives no transfer: every set that was found is asked for again. What was added since is not seen. */
async function driftByQuestions({ network, zone, rulings }: StepContext, address: string): Promise<string[]> {
  const rows = rulings.flatMap((row) => (row.found ? [{ row, found: rrsetFromText(row.found) }] : []));
  const drift = await limited(rows, 16, async ({ row, found }) => {
    if (found.owner.equals(zone) && (found.type === TYPE_CODES.SOA || found.type === TYPE_CODES.NS)) return undefined;
    const asked = await observed(network.client.ask({ address }, found.owner, found.type));
    if (!asked.ok) return `${row.owner} ${row.type} could not be read again: ${asked.problem}`;
    const records = [...asked.value.answers, ...asked.value.authorities, ...asked.value.additionals].filter(
      (record) => record.type === found.type && record.owner.equals(found.owner),
    );
    const set = groupRecords(records)[0];
    if (!set) return `${row.owner} ${row.type} is gone`;
    return sameData(set.type, set.data, found.data) ? undefined : `${row.owner} ${row.type} changed`;
  });
  return drift.filter((one) => one !== undefined);
}
