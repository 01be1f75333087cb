/**
 * Owner names that zones of agencies' clients have in practice, relative to the zone, sorted by what they serve. Where no
 * server gives the zone whole, these are asked for; what they lead to is asked for as well. All from the trade and the
 * standards that reserve the underscored ones (RFC 8552 and the IANA registry after it).
 */
export const CATALOGUE: Readonly<Record<string, readonly string[]>> = {
  website: words(`www www1 www2 www3 web m mobile beta test testing stage staging preview dev develop demo qa uat live old new next v2 origin edge cdn
    static assets img images media files download downloads video stream live-stream shop store cart checkout pay payments booking book tickets events
    blog news press jobs careers help support kb docs wiki forum community portal intranet extranet my account accounts login sso id auth
    api api2 app apps admin panel cp cms backend status monitor stats analytics track tracking go link links click archive
    en de fr es it nl maps data open search home landing promo campaign survey feedback members club donate register`),
  mail: words(`mail mail1 mail2 mail3 webmail smtp smtp1 smtp2 smtpout out outbound in inbound relay mx mx1 mx2 mx3 mx01 mx02 mx10 mx20 imap imap4 pop pop3
    email e-mail post mailhost mailserver mailgw antispam spam newsletter news-letter lists list listserv bounce bounces return em mta groupware
    archive-mail autodiscover autoconfig mta-sts _mta-sts _smtp._tls _dmarc _adsp._domainkey _domainkey _report._dmarc _bimi default._bimi
    _submission._tcp _submissions._tcp _imap._tcp _imaps._tcp _pop3._tcp _pop3s._tcp _smtp._tcp _sieve._tcp _jmap._tcp _autodiscover._tcp
    _25._tcp _465._tcp _587._tcp _993._tcp _995._tcp _25._tcp.mail _25._tcp.mx _25._tcp.mx1`),
  'signing of mail':
    words(`default dkim dkim1 dkim2 mail mail1 smtp s1 s2 s3 s1024 s2048 k1 k2 k3 key key1 key2 selector selector1 selector2 sig1 sel1 sel2 mx m1 m2
    a1 a2 email news newsletter 2023 2024 2025 2026 202401 202501 202601 20230601 x y primary backup`).map((selector) => `${selector}._domainkey`),
  calendar: words(`calendar cal caldav carddav contacts _caldav._tcp _caldavs._tcp _carddav._tcp _carddavs._tcp`),
  devices: words(
    `enroll enrollment enterpriseenrollment enterpriseregistration mdm devices wpad proxy _ntp._udp ntp time printer print scan _ipp._tcp _ipps._tcp`,
  ),
  voice:
    words(`sip sip1 sip2 sips pbx voip voice phone tel telephone conf meet video-conf call calls turn stun dialin xmpp chat im     _sip._tcp _sip._udp _sip._tls _sips._tcp _sipfederationtls._tcp _sipinternaltls._tcp _h323cs._tcp _stun._udp _stun._tcp _stuns._tcp _turn._udp _turn._tcp _turns._tcp
    _xmpp-client._tcp _xmpp-server._tcp _xmpps-client._tcp _matrix._tcp _matrix-fed._tcp _irc._tcp`),
  verification: words(`_acme-challenge _acme-challenge.www _acme-challenge.mail _dnsauth _domainconnect _validation _verification _verify verify verification
    _token _challenge _psl _agent _index._agents _esni `),
  federation:
    words(`ldap ldaps ad dc dc1 dc2 gc kdc kerberos adfs sts fs idp _ldap._tcp _ldaps._tcp _kerberos _kerberos._tcp _kerberos._udp _kpasswd._tcp _kpasswd._udp
    _kerberos-adm._tcp _gc._tcp _msdcs _ldap._tcp.dc._msdcs _vlmcs._tcp _radsec._tcp`),
  'remote access': words(`vpn vpn1 vpn2 ssl remote rdp rds gateway gw gw1 fw firewall router ssh sftp ftp ftp1 ftps _ftp._tcp _sftp-ssh._tcp _ssh._tcp desktop
    terminal ts rdweb connect access office branch bastion jump`),
  infrastructure: words(
    `ns ns0 ns1 ns2 ns3 ns4 dns dns1 dns2 server server1 server2 srv srv1 host host1 cloud nas backup backups db db1 sql     git svn ci build registry repo log logs syslog monitoring node1 node2 web1 web2 lb cluster vm1 vm2     local localhost loopback internal lan intern private hidden secure ipv4 ipv6 v4 v6 dyn home-office`,
  ),
  services: words(
    `_http._tcp _https._tcp _webdav._tcp _webdavs._tcp _nfs-domainroot._tcp _mqtt._tcp     _pkixrep._tcp _certificates._tcp _pgpkey-https._tcp _hkp._tcp _openpgpkey _smimecert _443._tcp _443._tcp.www _8443._tcp`,
  ),
};

function words(text: string): string[] {
  return text.split(/\s+/).filter((word) => word !== '');
}

/** Every name of the catalogue once. */
export const CATALOGUE_NAMES: readonly string[] = [...new Set(Object.values(CATALOGUE).flat())];
