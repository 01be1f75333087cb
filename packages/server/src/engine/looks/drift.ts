import { driftFromPlan, isFirstUse, mergeSightings, parsePrefix } from '@wanderon/core';
import { NetError, lookUpRegistration, rdapServiceFor } from '@wanderon/net';
import { Network, observed } from '../../network/network';
import { HostStore } from '../../hosts/host.store';
import { Sighted } from '../../moves/observation.store';
import { SurveyStore } from '../../survey/survey.store';
import { askAuthorities } from '../../survey/askAuthorities';
import { resolver } from '../../survey/whereNamesLead';
import { takeInventory } from '../../survey/takeInventory';
import { WorkContext } from '../context';

/** The old zone's contents against what the plan was made from, and the registration's statuses; what signing makes aside. */
export async function lookForDrift(context: WorkContext, network: Network, hosts: HostStore, surveys: SurveyStore): Promise<Sighted[]> {
  // Nothing that was never there can change.
  const drift = isFirstUse(context.leg.plan) ? [] : driftOf(context, network, hosts, surveys);
  return Promise.all([drift, registrationOf(context, network)]).then((all) => all.flat());
}

async function driftOf({ leg, loaded, zone }: WorkContext, network: Network, hosts: HostStore, surveys: SurveyStore): Promise<Sighted[]> {
  const base = { kind: 'drift', subject: 'old zone' } as const;
  try {
    const asked = await askAuthorities(network.client, zone, leg.plan.oldServers, undefined);
    const before = leg.plan.rulings.flatMap((ruling) => (ruling.found ? [ruling.found] : []));
    const all = [...loaded.hosts.values()].filter((host) => host.role === 'dns');
    const wish = {
      zone,
      hosts: [],
      fronts: all.flatMap((host) => host.fronts.map((range) => ({ host: host.name, prefix: parsePrefix(range)! }))),
      given: { names: [], sets: [] },
      before: surveys.asQuestions(before),
      siblings: () => Promise.resolve([]),
      pages: [],
    };
    const inventory = await takeInventory(network.surveyWorld, wish, await hosts.keyOf(loaded.row.old_dns_host), asked);
    if (inventory.sightings.length === 0) return [{ ...base, value: undefined, problem: 'no old nameserver gave anything of the zone' }];
    const sets = mergeSightings(inventory.sightings).map((one) => one.set);
    const varying = loaded.row.survey_id ? await surveys.varying(loaded.row.survey_id) : new Set<string>();
    const changes = driftFromPlan(zone, leg.plan.rulings, sets, varying);
    return [{ ...base, value: { changes } }];
  } catch (error) {
    if (!(error instanceof NetError)) throw error;
    return [{ ...base, value: undefined, problem: error.message }];
  }
}

async function registrationOf({ move }: WorkContext, network: Network): Promise<Sighted[]> {
  const { bootstrap, http } = network.surveyWorld;
  // Where nobody tells which registry to ask, nothing is seen: a person may say what the registrar shows.
  const services = await observed(bootstrap());
  if (!services.ok || !services.value || rdapServiceFor(services.value, move.domain) === undefined) return [];
  const base = { kind: 'registration', subject: move.domain } as const;
  const look = await lookUpRegistration({ ...http, resolve: resolver(network.walker(), (host) => host) }, services.value, move.domain);
  if (look.kind === 'absent') return [{ ...base, value: { statuses: [] } }];
  if (look.kind === 'unknown') return [{ ...base, value: undefined, problem: look.problem }];
  const { statuses, registrar = null, expires = null } = look.registration;
  return [{ ...base, value: { statuses: [...statuses].sort(), registrar, expires } }];
}
