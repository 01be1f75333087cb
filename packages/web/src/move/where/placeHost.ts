import { Host, LegView } from '@wanderon/contract';
import { FreshPlace } from './noteWhere';
import { StepPlace, commonServers, dnsHostOf, rebuildsZone, registrarOf } from '@wanderon/core';

type Places = Pick<LegView, 'kind' | 'account' | 'oldDnsHost' | 'newDnsHost' | 'oldNameservers' | 'registrar' | 'registrarHost'>;

/** The host of a leg at which something is done; undefined where none is described. */
export function placeHost(hosts: readonly Host[], leg: Places, place: StepPlace): Host | undefined {
  if (place === 'registrar') return registrarOf(hosts, { chosen: leg.registrarHost, named: leg.registrar });
  if (place === 'planned DNS' && rebuildsZone(leg)) return hosts.find((one) => one.id === leg.newDnsHost);
  return dnsHostOf(hosts, leg.oldDnsHost, leg.oldNameservers);
}

/** Its name, as sentences say it where nothing is known of it. */
export function placeName(host: Host | undefined, leg: Places, place: StepPlace): string {
  return host?.name ?? (place === 'registrar' ? (leg.registrar ?? 'the registrar') : 'the present DNS host');
}

/** What an undescribed place becomes a host of, once something is noted of it; undefined where that is a place of the move itself. */
export function freshPlace(leg: Places, place: StepPlace): FreshPlace | undefined {
  if (place === 'registrar') return { role: 'registrar', nameservers: [], name: leg.registrar };
  const isLive = place === 'live DNS' || !rebuildsZone(leg);
  return isLive && leg.oldDnsHost === null && leg.oldNameservers.length > 0
    ? { role: 'dns', nameservers: commonServers(leg.oldNameservers), name: null }
    : undefined;
}
