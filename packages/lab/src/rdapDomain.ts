import { Instant } from '@wanderon/core';
import { REGISTRARS, registrarOf } from './registrars';
import { ScenarioDomain } from './scenario/domains';

/** Days from one renewal to the next. */
const TERM = 365;

/** What the lab's registry tells of a registered domain (RFC 9083 §5.3). */
export function rdapDomain(domain: ScenarioDomain, nameservers: readonly string[], now: Instant): object {
  const { zone, registered = {} } = domain;
  const registrar = registrarOf(domain);
  const name = zone.replace(/\.$/, '');
  const daysLeft = registered.daysLeft ?? 210;
  const at = (days: number): string => new Date((now + days * 86_400) * 1000).toISOString();
  return {
    rdapConformance: ['rdap_level_0'],
    objectClassName: 'domain',
    ldhName: name,
    handle: `LAB-${name.toUpperCase()}`,
    status: registered.statuses ?? ['client transfer prohibited'],
    events: [
      { eventAction: 'registration', eventDate: at(daysLeft - 6 * TERM) },
      { eventAction: 'expiration', eventDate: at(daysLeft) },
      { eventAction: 'last changed', eventDate: at(daysLeft - TERM) },
    ],
    nameservers: nameservers.map((server) => ({ objectClassName: 'nameserver', ldhName: server.replace(/\.$/, '') })),
    secureDNS: { delegationSigned: false },
    entities: [
      {
        objectClassName: 'entity',
        handle: registrar.toUpperCase(),
        roles: ['registrar'],
        vcardArray: [
          'vcard',
          [
            ['version', {}, 'text', '4.0'],
            ['fn', {}, 'text', REGISTRARS[registrar]],
          ],
        ],
      },
    ],
  };
}
