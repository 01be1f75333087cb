import { generateKeyPairSync } from 'node:crypto';
import { SecureContext, createSecureContext } from 'node:tls';
import { pki, md } from 'node-forge';

const DAY = 86_400_000;

/** The lab's own certificate authority: certificates for whichever name a visitor asks for, made when first asked. */
export class LabAuthority {
  readonly pem: string;
  private readonly authority: pki.Certificate;
  private readonly authorityKey: pki.rsa.PrivateKey;
  private readonly leafKey = keyPair();
  private readonly contexts = new Map<string, SecureContext>();
  private serial = 1;

  constructor() {
    const own = keyPair();
    this.authorityKey = own.privateKey;
    this.authority = this.certificate('Lab Authority', own.publicKey, own.privateKey, undefined, [
      { name: 'basicConstraints', cA: true, critical: true },
      { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    ]);
    this.pem = pki.certificateToPem(this.authority);
  }

  /** For SNI: a certificate for that one name. */
  contextFor(name: string): SecureContext {
    let context = this.contexts.get(name);
    if (!context) {
      const certificate = this.certificate(name, this.leafKey.publicKey, this.authorityKey, this.authority, [
        { name: 'basicConstraints', cA: false },
        { name: 'extKeyUsage', serverAuth: true },
        { name: 'subjectAltName', altNames: [{ type: 2, value: name }] },
      ]);
      context = createSecureContext({ key: pki.privateKeyToPem(this.leafKey.privateKey), cert: pki.certificateToPem(certificate) });
      this.contexts.set(name, context);
    }
    return context;
  }

  private certificate(
    name: string,
    publicKey: pki.rsa.PublicKey,
    signer: pki.rsa.PrivateKey,
    issuer: pki.Certificate | undefined,
    extensions: Record<string, unknown>[],
  ): pki.Certificate {
    const certificate = pki.createCertificate();
    certificate.publicKey = publicKey;
    certificate.serialNumber = (this.serial++).toString(16).padStart(2, '0');
    // Browsers and Node go by the machine's clock, whatever the lab's says.
    certificate.validity.notBefore = new Date(Date.now() - DAY);
    certificate.validity.notAfter = new Date(Date.now() + 3650 * DAY);
    const subject = [{ name: 'commonName', value: name.slice(0, 64) }, ...(issuer ? [] : [{ name: 'organizationName', value: 'Lab Authority' }])];
    certificate.setSubject(subject);
    certificate.setIssuer(issuer ? issuer.subject.attributes : subject);
    certificate.setExtensions(extensions);
    certificate.sign(signer, md.sha256.create());
    return certificate;
  }
}

/** Keys from Node, which is a hundred times as fast at it. */
function keyPair(): { privateKey: pki.rsa.PrivateKey; publicKey: pki.rsa.PublicKey } {
  const { privateKey, publicKey } = generateKeyPairSync('rsa', {
    modulusLength: 2048,
    privateKeyEncoding: { type: 'pkcs1', format: 'pem' },
    publicKeyEncoding: { type: 'spki', format: 'pem' },
  });
  return { privateKey: pki.privateKeyFromPem(privateKey), publicKey: pki.publicKeyFromPem(publicKey) as pki.rsa.PublicKey };
}
