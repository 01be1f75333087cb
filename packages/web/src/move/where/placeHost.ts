import { Host, LegView } from '@wanderon/contract';
import { StepPlace, rebuildsZone, registrarOf } from '@wanderon/core';

type Places = Pick<LegView, 'kind' | 'account' | 'oldDnsHost' | 'newDnsHost' | 'registrar' | 'registrarHost'>;

/** The host of a leg at which something is done; undefined where none is described. */
export function placeHost(hosts: readonly Host[], leg: Places, place: StepPlace): Host | undefined {
  if (place === 'registrar') return registrarOf(hosts, { chosen: leg.registrarHost, named: leg.registrar });
  const id = place === 'planned DNS' && rebuildsZone(leg) ? leg.newDnsHost : leg.oldDnsHost;
  return hosts.find((one) => one.id === id);
}

/** Its name, as sentences say it where nothing is known of it. */
export function placeName(host: Host | undefined, leg: Places, place: StepPlace): string {
  return host?.name ?? (place === 'registrar' ? (leg.registrar ?? 'the registrar') : 'the DNS host');
}
