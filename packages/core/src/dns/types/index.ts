import { A } from './A';
import { AAAA } from './AAAA';
import { AFSDB } from './AFSDB';
import { CAA } from './CAA';
import { CDNSKEY } from './CDNSKEY';
import { CDS } from './CDS';
import { CNAME } from './CNAME';
import { DNAME } from './DNAME';
import { DNSKEY } from './DNSKEY';
import { DS } from './DS';
import { HINFO } from './HINFO';
import { KX } from './KX';
import { MX } from './MX';
import { NAPTR } from './NAPTR';
import { NS } from './NS';
import { NSEC } from './NSEC';
import { OPENPGPKEY } from './OPENPGPKEY';
import { PTR } from './PTR';
import { RP } from './RP';
import { RRSIG } from './RRSIG';
import { SMIMEA } from './SMIMEA';
import { SOA } from './SOA';
import { SPF } from './SPF';
import { SRV } from './SRV';
import { SSHFP } from './SSHFP';
import { TLSA } from './TLSA';
import { TXT } from './TXT';
import { URI } from './URI';
import { RecordType } from '../recordType';

/** Every type that has a text form of its own here; any other is printed and read as RFC 3597. */
export const RECORD_TYPES: ReadonlyMap<number, RecordType> = new Map(
  [
    A,
    AAAA,
    AFSDB,
    CAA,
    CDNSKEY,
    CDS,
    CNAME,
    DNAME,
    DNSKEY,
    DS,
    HINFO,
    KX,
    MX,
    NAPTR,
    NS,
    NSEC,
    OPENPGPKEY,
    PTR,
    RP,
    RRSIG,
    SMIMEA,
    SOA,
    SPF,
    SRV,
    SSHFP,
    TLSA,
    TXT,
    URI,
  ].map((type) => [type.code, type]),
);
