import { Name } from '../dns/name';
import { RRsetText } from '../dns/record';
import { typeCode } from '../dns/typeNames';
import { LegPlan, keyOfRow } from '../move/plan';
import { sameTexts } from '../timetable/wanted';
import { hostsOwnSet } from './hostsOwn';
import { STARTING_TTL } from './propose';
import { HOSTS_OWN, Ruling, isChanging } from './ruling';

/**
 * The rulings of the leg that sets back what another one changed where it is: each row with its sides exchanged, the rest as it is. What the
 * web host asked for elsewhere in the zone (`isAsked`) stays: it leads nobody anywhere, and another move of the domain may need it.
 */
export function backRulings(rulings: readonly Ruling[], raised: boolean, isAsked: (row: Ruling) => boolean = () => false): Ruling[] {
  return rulings.map((ruling) => {
    if (!isChanging(ruling)) return ruling;
    const back = exchanged(ruling, raised);
    return isAsked(ruling) && back.found ? { ...back, ruling: 'carry', planned: back.found, reason: 'stays: another move of the domain may need it' } : back;
  });
}

/** Every row with its sides exchanged: found is what the new host has, planned what the old one had. What belongs to a host stays with it. */
export function delegationBackRulings(plan: Pick<LegPlan, 'zone' | 'rulings' | 'newNameservers'>, raised: boolean): Ruling[] {
  const own = hostsOwnSet(plan.zone);
  const apex: RRsetText = { owner: plan.zone.toString(), type: 'NS', ttl: STARTING_TTL, data: [...plan.newNameservers] };
  return [
    ...plan.rulings.filter((row) => !own({ owner: Name.parse(row.owner), type: typeCode(row.type)! })).map((row) => exchanged(row, raised)),
    { owner: apex.owner, type: apex.type, ruling: 'drop', found: apex, planned: undefined, reason: `${HOSTS_OWN}: it serves its own set` },
  ];
}

/** `raised`: what is there has, or may have, the TTL that it was to keep. */
function exchanged(row: Ruling, raised: boolean): Ruling {
  const { owner, type, found, planned } = row;
  const there = planned && { ...planned, ttl: raised ? planned.ttl : Math.min(planned.ttl, STARTING_TTL) };
  const base = { owner, type, found: there, planned: found, reason: 'set back as it was' };
  if (!there) return { ...base, ruling: 'new' };
  if (!found) return { ...base, ruling: 'drop' };
  const same = sameTexts(keyOfRow(row), [...there.data].sort(), [...found.data].sort());
  return { ...base, ruling: same ? 'carry' : 'repoint' };
}
