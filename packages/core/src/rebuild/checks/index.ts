import { addressFamilies } from './addressFamilies';
import { aliasAtApex } from './aliasAtApex';
import { aliasBesideData } from './aliasBesideData';
import { apexAndWww } from './apexAndWww';
import { Check, CheckInput, Remark } from './check';
import { doubledZone } from './doubledZone';
import { frontsOwn } from './frontsOwn';
import { leftAtOldHost } from './leftAtOldHost';
import { mailTarget } from './mailTarget';
import { tooLarge } from './tooLarge';

const CHECKS: readonly Check[] = [aliasAtApex, aliasBesideData, apexAndWww, addressFamilies, doubledZone, frontsOwn, leftAtOldHost, mailTarget, tooLarge];

/** Every remark on the planned zone; the gate asks that none of them is a `stop`. */
export function checkRulings(input: CheckInput): Remark[] {
  return CHECKS.flatMap((check) => check(input));
}
