import { A } from './A';
import { A6 } from './A6';
import { AAAA } from './AAAA';
import { AFSDB } from './AFSDB';
import { AMTRELAY } from './AMTRELAY';
import { APL } from './APL';
import { ATMA } from './ATMA';
import { AVC } from './AVC';
import { BRID } from './BRID';
import { CAA } from './CAA';
import { CDNSKEY } from './CDNSKEY';
import { CDS } from './CDS';
import { CERT } from './CERT';
import { CLA } from './CLA';
import { CNAME } from './CNAME';
import { CSYNC } from './CSYNC';
import { DHCID } from './DHCID';
import { DLV } from './DLV';
import { DNAME } from './DNAME';
import { DNSKEY } from './DNSKEY';
import { DOA } from './DOA';
import { DS } from './DS';
import { DSYNC } from './DSYNC';
import { EID } from './EID';
import { EUI48 } from './EUI48';
import { EUI64 } from './EUI64';
import { GPOS } from './GPOS';
import { HHIT } from './HHIT';
import { HINFO } from './HINFO';
import { HIP } from './HIP';
import { HTTPS } from './HTTPS';
import { IPN } from './IPN';
import { IPSECKEY } from './IPSECKEY';
import { ISDN } from './ISDN';
import { KEY } from './KEY';
import { KX } from './KX';
import { L32 } from './L32';
import { L64 } from './L64';
import { LOC } from './LOC';
import { LP } from './LP';
import { MB } from './MB';
import { MD } from './MD';
import { MF } from './MF';
import { MG } from './MG';
import { MINFO } from './MINFO';
import { MR } from './MR';
import { MX } from './MX';
import { NAPTR } from './NAPTR';
import { NID } from './NID';
import { NIMLOC } from './NIMLOC';
import { NINFO } from './NINFO';
import { NS } from './NS';
import { NSAP } from './NSAP';
import { NSAP_PTR } from './NSAP_PTR';
import { NSEC } from './NSEC';
import { NSEC3 } from './NSEC3';
import { NSEC3PARAM } from './NSEC3PARAM';
import { NXT } from './NXT';
import { OPENPGPKEY } from './OPENPGPKEY';
import { PTR } from './PTR';
import { PX } from './PX';
import { RESINFO } from './RESINFO';
import { RKEY } from './RKEY';
import { RP } from './RP';
import { RRSIG } from './RRSIG';
import { RT } from './RT';
import { SIG } from './SIG';
import { SINK } from './SINK';
import { SMIMEA } from './SMIMEA';
import { SOA } from './SOA';
import { SPF } from './SPF';
import { SRV } from './SRV';
import { SSHFP } from './SSHFP';
import { SVCB } from './SVCB';
import { TA } from './TA';
import { TALINK } from './TALINK';
import { TLSA } from './TLSA';
import { TXT } from './TXT';
import { URI } from './URI';
import { WALLET } from './WALLET';
import { WKS } from './WKS';
import { X25 } from './X25';
import { ZONEMD } from './ZONEMD';
import { RecordType } from '../recordType';

/** Every type that has a text form of its own, by number. The others are written as RFC 3597 has it. */
export const RECORD_TYPES: ReadonlyMap<number, RecordType> = new Map(
  [
    A,
    A6,
    AAAA,
    AFSDB,
    AMTRELAY,
    APL,
    ATMA,
    AVC,
    BRID,
    CAA,
    CDNSKEY,
    CDS,
    CERT,
    CLA,
    CNAME,
    CSYNC,
    DHCID,
    DLV,
    DNAME,
    DNSKEY,
    DOA,
    DS,
    DSYNC,
    EID,
    EUI48,
    EUI64,
    GPOS,
    HHIT,
    HINFO,
    HIP,
    HTTPS,
    IPN,
    IPSECKEY,
    ISDN,
    KEY,
    KX,
    L32,
    L64,
    LOC,
    LP,
    MB,
    MD,
    MF,
    MG,
    MINFO,
    MR,
    MX,
    NAPTR,
    NID,
    NIMLOC,
    NINFO,
    NS,
    NSAP,
    NSAP_PTR,
    NSEC,
    NSEC3,
    NSEC3PARAM,
    NXT,
    OPENPGPKEY,
    PTR,
    PX,
    RESINFO,
    RKEY,
    RP,
    RRSIG,
    RT,
    SIG,
    SINK,
    SMIMEA,
    SOA,
    SPF,
    SRV,
    SSHFP,
    SVCB,
    TA,
    TALINK,
    TLSA,
    TXT,
    URI,
    WALLET,
    WKS,
    X25,
    ZONEMD,
  ].map((type) => [type.code, type]),
);
