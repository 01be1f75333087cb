import { unknownDs } from '../../dns/dsKnown';
import { duration } from '../duration';
import { plain } from '../words';
import { Finder, Finding } from './finding';

/** DNSSEC: a DS makes the switch a matter of order (RFC 6781 §4.3.5); keys and DS have to fit together. */
export const signing: Finder = ({ referrals, authorities }) => {
  const findings: Finding[] = [];
  const answering = referrals.filter((referral) => referral.problem === undefined && referral.nameservers.length > 0);
  const withDs = answering.filter((referral) => referral.ds.length > 0);
  const sound = authorities.filter((authority) => authority.authoritative);
  const signed = sound.filter((authority) => authority.signed);
  if (withDs.length > 0) {
    const ttl = Math.max(0, ...withDs.map((referral) => referral.dsTtl ?? 0));
    const odd = unknownDs([...new Set(withDs.flatMap((referral) => referral.ds))]);
    const forged = odd === undefined ? 'resolvers that validate take' : `resolvers that know ${odd} take`;
    findings.push({
      weight: 'look',
      code: 'ds',
      text: `The parent publishes a DS, which is remembered for ${duration(ttl)}: as long as it stands, ${forged} a zone with other keys for forged. It has to go, and be forgotten, before the switch.`,
    });
    if (odd !== undefined)
      findings.push({
        weight: 'note',
        code: 'ds-unknown',
        text: `The DS is of ${odd}, which resolvers in use do not know: to those the zone is unsigned, and they answer for it. One that knows it checks the signatures.`,
      });
    if (withDs.length < answering.length)
      findings.push({ weight: 'look', code: 'ds-differs', text: `Only some of the parent's servers publish the DS: a change is under way.` });
    const unsigned = sound.filter((authority) => !authority.signed);
    if (unsigned.length > 0)
      findings.push({
        weight: odd === undefined ? 'stop' : 'look',
        code: 'bogus',
        text: `${[...new Set(unsigned.map((authority) => plain(authority.server)))].join(', ')} serves the zone without keys although the parent publishes a DS: ${odd === undefined ? 'for resolvers that validate it is forged' : `for a resolver that knows ${odd} it is forged, for all others it is unsigned and works`}.`,
      });
  } else if (signed.length > 0)
    findings.push({
      weight: 'note',
      code: 'signed-without-ds',
      text: 'The zone is signed and the parent publishes no DS: nobody can check the signatures, and the switch need not wait for them.',
    });
  return findings;
};
