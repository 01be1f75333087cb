import { constants, createPrivateKey, generateKeyPairSync, privateEncrypt } from 'node:crypto';
import { SecureContext, createSecureContext } from 'node:tls';
import { pki, md } from 'node-forge';

const DAY = 86_400_000;

/** The lab's own certificate authority: certificates for whichever name a visitor asks for, made when first asked. */
export class LabAuthority {
  readonly pem: string;
  private readonly authority: pki.Certificate;
  private readonly authorityKey: pki.rsa.PrivateKey;
  /** One for all that it certifies, itself included: a key takes half a second to find, and nothing here is to be kept from anybody. */
  private readonly pair = keyPair();
  private readonly pairPem = pki.privateKeyToPem(this.pair.privateKey);
  private readonly contexts = new Map<string, SecureContext>();
  private serial = 1;

  constructor() {
    this.authorityKey = fast(this.pair.privateKey);
    this.authority = this.certificate('Lab Authority', this.pair.publicKey, this.authorityKey, undefined, [
      { name: 'basicConstraints', cA: true, critical: true },
      { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    ]);
    this.pem = pki.certificateToPem(this.authority);
  }

  /** For SNI: a certificate for the domain of that name and what stands right below it. */
  contextFor(name: string): SecureContext {
    const domain = name
      .split('.')
      .slice(name.endsWith('.nic.example') ? -3 : -2)
      .join('.');
    let context = this.contexts.get(domain);
    if (!context) {
      const certificate = this.certificate(domain, this.pair.publicKey, this.authorityKey, this.authority, [
        { name: 'basicConstraints', cA: false },
        { name: 'extKeyUsage', serverAuth: true },
        { name: 'subjectAltName', altNames: [domain, `*.${domain}`].map((value) => ({ type: 2, value })) },
      ]);
      context = createSecureContext({ key: this.pairPem, cert: pki.certificateToPem(certificate) });
      this.contexts.set(domain, context);
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

/** What precedes a SHA-256 digest in a signature (RFC 8017 §9.2). */
const SHA256_INFO = Buffer.from('3031300d060960864801650304020105000420', 'hex');

/** The same key with Node's arithmetic: a thousand domains want certificates at once. */
function fast(key: pki.rsa.PrivateKey): pki.rsa.PrivateKey {
  const own = createPrivateKey(pki.privateKeyToPem(key));
  const sign = (digest: md.MessageDigest): string =>
    privateEncrypt({ key: own, padding: constants.RSA_PKCS1_PADDING }, Buffer.concat([SHA256_INFO, Buffer.from(digest.digest().toHex(), 'hex')])).toString(
      'binary',
    );
  return { ...key, sign };
}

/** A private key in PEM that labs share which are opened one after the other; each makes its own without it. */
const LAB_KEY = 'WANDERON_LAB_KEY';

function keyPair(): { privateKey: pki.rsa.PrivateKey; publicKey: pki.rsa.PublicKey } {
  const privateKey = pki.privateKeyFromPem(process.env[LAB_KEY] ?? newKey());
  return { privateKey, publicKey: pki.rsa.setPublicKey(privateKey.n, privateKey.e) };
}

/** By Node, which is a hundred times as fast at it. */
function newKey(): string {
  const { privateKey } = generateKeyPairSync('rsa', {
    modulusLength: 2048,
    privateKeyEncoding: { type: 'pkcs1', format: 'pem' },
    publicKeyEncoding: { type: 'spki', format: 'pem' },
  });
  return privateKey;
}
