import { ZoneAnswers } from '../../dns/zoneAnswers';
import { plannedSets } from '../propose';
import { Ruling } from '../ruling';
import { CheckInput } from './check';

const made = new WeakMap<readonly Ruling[], ZoneAnswers>();

/** The planned zone, to be asked as a server is: wildcards, cuts and aliases count. Made once for all checks. */
export function plannedZone({ zone, rulings }: Pick<CheckInput, 'zone' | 'rulings'>): ZoneAnswers {
  let answers = made.get(rulings);
  if (!answers) made.set(rulings, (answers = new ZoneAnswers(zone, plannedSets(rulings, 'settled'))));
  return answers;
}
