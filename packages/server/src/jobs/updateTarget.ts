import { Name, TsigKey } from '@wanderon/core';
import { Host } from '@wanderon/contract';
import { ServerAt } from '../moves/leg';
import { StepContext } from './stepContext';

export interface UpdateTarget {
  readonly host: Host;
  readonly key: TsigKey;
  readonly server: ServerAt;
}

/** Where updates for a host go and with which key; a sentence where it takes none from us. */
export async function updateTarget({ hosts, network }: StepContext, hostId: string | null): Promise<UpdateTarget | { readonly problem: string }> {
  const host = hostId ? await hosts.get(hostId) : undefined;
  const key = host && (await hosts.keyOf(host.id));
  if (!host || !key) return { problem: `${host?.name ?? 'The DNS host'} takes no updates from us: no key is known.` };
  const name = host.nameservers[0];
  const address = host.updateAddress ?? (name ? (await network.walker().addressesOf(Name.parse(name)))[0] : undefined);
  if (!address) return { problem: `${name ?? host.name} has no address to send updates to.` };
  return { host, key, server: { server: name ?? host.name, address } };
}
