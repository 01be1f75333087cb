import { addressFamilies } from './addressFamilies';
import { aliasAtApex } from './aliasAtApex';
import { aliasBesideData } from './aliasBesideData';
import { aliasLoop } from './aliasLoop';
import { apexAndWww } from './apexAndWww';
import { automation } from './automation';
import { caaForbids } from './caaForbids';
import { cannotHold } from './cannotHold';
import { Check, CheckInput, Remark } from './check';
import { dangling } from './dangling';
import { dkimKey } from './dkimKey';
import { dmarcPolicy } from './dmarcPolicy';
import { dmarcReports } from './dmarcReports';
import { doubledZone } from './doubledZone';
import { edgeInCircle } from './edgeInCircle';
import { forwardingEnds } from './forwardingEnds';
import { frontsOwn } from './frontsOwn';
import { leadsNowhere } from './leadsNowhere';
import { leftAtOldHost } from './leftAtOldHost';
import { longTtl } from './longTtl';
import { mailAtName } from './mailAtName';
import { mailGone } from './mailGone';
import { mailTarget } from './mailTarget';
import { mtaStsFits } from './mtaStsFits';
import { mtaStsMoves } from './mtaStsMoves';
import { oddName } from './oddName';
import { proofGone } from './proofGone';
import { reverseNames } from './reverseNames';
import { serviceGone } from './serviceGone';
import { specialAddress } from './specialAddress';
import { spfMoves } from './spfMoves';
import { spfRecord } from './spfRecord';
import { standIn } from './standIn';
import { subzone } from './subzone';
import { tlsaMoves } from './tlsaMoves';
import { tooLarge } from './tooLarge';
import { tooMany } from './tooMany';
import { wildcardAnswers } from './wildcardAnswers';

const CHECKS: readonly Check[] = [
  addressFamilies,
  aliasAtApex,
  aliasBesideData,
  aliasLoop,
  apexAndWww,
  automation,
  caaForbids,
  cannotHold,
  dangling,
  dkimKey,
  dmarcPolicy,
  dmarcReports,
  doubledZone,
  edgeInCircle,
  forwardingEnds,
  frontsOwn,
  leadsNowhere,
  leftAtOldHost,
  longTtl,
  mailAtName,
  mailGone,
  mailTarget,
  mtaStsFits,
  mtaStsMoves,
  oddName,
  proofGone,
  reverseNames,
  serviceGone,
  specialAddress,
  spfMoves,
  spfRecord,
  standIn,
  subzone,
  tlsaMoves,
  tooLarge,
  tooMany,
  wildcardAnswers,
];

/** Every remark on the planned zone; the gate asks that none of them is a `stop`. */
export function checkRulings(input: CheckInput): Remark[] {
  return CHECKS.flatMap((check) => check(input));
}
