import { addressFamilies } from './addressFamilies';
import { addressNamed } from './addressNamed';
import { aliasAtApex } from './aliasAtApex';
import { aliasBesideData } from './aliasBesideData';
import { aliasLoop } from './aliasLoop';
import { apexAndWww } from './apexAndWww';
import { automation } from './automation';
import { belowDname } from './belowDname';
import { caaForbids } from './caaForbids';
import { cannotHold } from './cannotHold';
import { dangling } from './dangling';
import { dkimKey } from './dkimKey';
import { dmarcPolicy } from './dmarcPolicy';
import { dmarcReports } from './dmarcReports';
import { doubledZone } from './doubledZone';
import { edgeInCircle } from './edgeInCircle';
import { forwardingEnds } from './forwardingEnds';
import { frontsOwn } from './frontsOwn';
import { largeAnswer } from './largeAnswer';
import { leadsNowhere } from './leadsNowhere';
import { leastTtl } from './leastTtl';
import { leftAtOldHost } from './leftAtOldHost';
import { longTtl } from './longTtl';
import { mailAtName } from './mailAtName';
import { mailGone } from './mailGone';
import { mailTarget } from './mailTarget';
import { mtaStsFits } from './mtaStsFits';
import { mtaStsMoves } from './mtaStsMoves';
import { nullMx } from './nullMx';
import { oddName } from './oddName';
import { policyUnread } from './policyUnread';
import { proofGone } from './proofGone';
import { redirectLost } from './redirectLost';
import { reverseNames } from './reverseNames';
import { serviceGone } from './serviceGone';
import { sharedServers } from './sharedServers';
import { signingCarried } from './signingCarried';
import { siteUnknown } from './siteUnknown';
import { specialAddress } from './specialAddress';
import { spfMoves } from './spfMoves';
import { spfNames } from './spfNames';
import { spfRecord } from './spfRecord';
import { sshfpMoves } from './sshfpMoves';
import { standIn } from './standIn';
import { subzone } from './subzone';
import { subzoneServers } from './subzoneServers';
import { tlsaMoves } from './tlsaMoves';
import { tooLarge } from './tooLarge';
import { tooMany } from './tooMany';
import { useAtWebHost } from './useAtWebHost';
import { variesAsFound } from './variesAsFound';
import { wildcardAnswers } from './wildcardAnswers';
import { Check, CheckInput, Remark } from './check';

const CHECKS: readonly Check[] = [
  addressFamilies,
  aliasAtApex,
  aliasBesideData,
  aliasLoop,
  apexAndWww,
  automation,
  belowDname,
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
  largeAnswer,
  leadsNowhere,
  leastTtl,
  leftAtOldHost,
  longTtl,
  mailAtName,
  mailGone,
  mailTarget,
  mtaStsFits,
  mtaStsMoves,
  nullMx,
  oddName,
  policyUnread,
  proofGone,
  redirectLost,
  reverseNames,
  addressNamed,
  serviceGone,
  sharedServers,
  signingCarried,
  siteUnknown,
  specialAddress,
  spfMoves,
  spfNames,
  spfRecord,
  sshfpMoves,
  standIn,
  subzone,
  subzoneServers,
  tlsaMoves,
  tooLarge,
  tooMany,
  useAtWebHost,
  variesAsFound,
  wildcardAnswers,
];

/** Every remark on the planned zone; the gate asks that none of them is a `stop`. */
export function checkRulings(input: CheckInput): Remark[] {
  return [...eachCheck(input)].flat();
}

/** The same, a check at a time: over a large plan all of them take seconds, and whoever runs them can do other things in between. */
export function* eachCheck(input: CheckInput): Generator<readonly Remark[], void> {
  for (const check of CHECKS) yield check(input);
}
