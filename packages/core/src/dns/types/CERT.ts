import { base64, mnemonicNumber, u16 } from '../fields';
import { recordType } from '../recordType';

/** Mnemonics of RFC 4398 §2.1. */
const CERTIFICATE_TYPES = { PKIX: 1, SPKI: 2, PGP: 3, IPKIX: 4, ISPKI: 5, IPGP: 6, ACPKIX: 7, IACPKIX: 8, URI: 253, OID: 254 };
/** Mnemonics of RFC 4034 appendix A.1 and later, as servers print them here. */
const ALGORITHMS = {
  RSAMD5: 1,
  DH: 2,
  DSA: 3,
  RSASHA1: 5,
  NSEC3DSA: 6,
  NSEC3RSASHA1: 7,
  RSASHA256: 8,
  RSASHA512: 10,
  ECCGOST: 12,
  ECDSAP256SHA256: 13,
  ECDSAP384SHA384: 14,
  ED25519: 15,
  ED448: 16,
  INDIRECT: 252,
  PRIVATEDNS: 253,
  PRIVATEOID: 254,
};

/** RFC 4398 §2 */
export const CERT = recordType('CERT', 37, [
  mnemonicNumber('type', CERTIFICATE_TYPES, 2),
  u16('key tag'),
  mnemonicNumber('algorithm', ALGORITHMS, 1),
  base64('certificate'),
]);
