import { RRset, SetChange, TsigKey, changesBetween, groupRecords, printRdata, typeMnemonic } from '@wanderon/core';
import { NetError, sendUpdates, transferZone } from '@wanderon/net';
import { StepContext, StepOutcome } from './stepContext';

export interface OutwardTarget {
  readonly step: string;
  readonly server: { readonly server: string; readonly address: string };
  readonly key: TsigKey;
  /** What the zone is to hold, from what it holds. */
  readonly wanted: (served: readonly RRset[]) => readonly RRset[];
  readonly keep: (set: RRset) => boolean;
  readonly says: (changes: number) => string;
  readonly decidedBy: string | null;
}

/**
 * Brings a zone to what is wanted by dynamic update, safe to repeat: looks first whether it already took effect, records
 * the action before and after, guards every change by what was seen, and looks again afterwards. A process that dies in
 * between leaves an action without an end; the next one finds the zone as it should be and sends nothing.
 */
export async function bringZoneTo(context: StepContext, target: OutwardTarget): Promise<StepOutcome> {
  const { store, clock, network, zone, leg } = context;
  const look = async (): Promise<SetChange[]> => {
    const { records } = await transferZone(network.client, target.server, zone, { key: target.key });
    const served = groupRecords(records);
    return changesBetween(served, target.wanted(served), target.keep);
  };
  try {
    const changes = await look();
    const begun = await store.database('actions').where({ leg_id: leg.id, step: target.step, finished_at: null }).first<{ id: string } | undefined>('id');
    if (changes.length === 0) {
      if (begun) await store.database('actions').where({ id: begun.id }).update({ finished_at: clock.now(), outcome: 'found done' });
      return { state: 'done' };
    }
    const changed = changes.map(describe);
    const person = target.decidedBy ?? undefined;
    if (!begun)
      await context.note(target.step, `Sending to ${target.server.server} (${target.server.address}): ${target.says(changes.length)}`, {
        before: changed.map((one) => one.before),
        after: changed.map((one) => one.after),
        person,
      });
    const action =
      begun?.id ??
      (
        await store
          .database('actions')
          .insert({ leg_id: leg.id, step: target.step, server: target.server.address, changes: JSON.stringify(changed), started_at: clock.now() })
          .returning<{ id: string }[]>('id')
      )[0]!.id;
    await sendUpdates(network.client, target.server, zone, changes, target.key);
    const left = await look();
    if (left.length > 0)
      return {
        state: 'failed',
        problem: `${target.server.server} took the update, but still differs in ${left
          .map((change) => `${change.owner.toString()} ${typeMnemonic(change.type)}`)
          .slice(0, 5)
          .join(', ')}.`,
      };
    await store.database('actions').where({ id: action }).update({ finished_at: clock.now(), outcome: 'done' });
    return { state: 'done' };
  } catch (error) {
    if (!(error instanceof NetError)) throw error;
    if (['timeout', 'cut', 'unreachable'].includes(error.kind)) return { state: 'wait', until: clock.now() + 30, problem: sentence(error.message) };
    return { state: 'failed', problem: sentence(error.message), rcode: error.rcode };
  }
}

export function sentence(text: string): string {
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}

function describe(change: SetChange): { before: unknown; after: unknown } {
  const show = (set: RRset | undefined): unknown =>
    set && { owner: set.owner.toString(), type: typeMnemonic(set.type), ttl: set.ttl, data: set.data.map((data) => printRdata(set.type, data)) };
  return { before: show(change.before) ?? null, after: show(change.after) ?? null };
}
