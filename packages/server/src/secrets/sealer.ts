import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { CONFIG } from '../config';

/** First octet of what is sealed; what was sealed before there was one begins with a nonce, which is random. */
const FORM = 0x02;
const KEY_NUMBER = 4;
const NONCE = 12;
const TAG = 16;
const HEAD = 1 + KEY_NUMBER + NONCE + TAG;
/** Octets of a secret that is kept: no key is longer. */
const LONGEST = 4096;

/** The key that seals, and those that may still open. */
export interface Keys {
  readonly WANDERON_SECRET_KEY: Buffer;
  readonly WANDERON_FORMER_KEYS: readonly Buffer[];
}

/**
 * Encrypts secrets at rest with AES-256-GCM under a key from the environment. What is sealed says which key it was; the place where it
 * stands is sealed with it, so that it opens nowhere else. Form, number of the key, nonce, tag, then ciphertext.
 */
@Injectable()
export class Sealer {
  private readonly current: Buffer;
  private readonly keys: ReadonlyMap<string, Buffer>;
  private readonly all: readonly Buffer[];

  constructor(@Inject(CONFIG) config: Keys) {
    this.current = config.WANDERON_SECRET_KEY;
    this.all = [this.current, ...config.WANDERON_FORMER_KEYS];
    this.keys = new Map(this.all.map((key) => [keyNumber(key), key]));
  }

  /** `place`: table and row. Throws a RangeError for what is longer than any key. */
  seal(secret: Uint8Array, place: string): Buffer {
    if (secret.length > LONGEST) throw new RangeError(`a secret has at most ${LONGEST} octets`);
    const nonce = randomBytes(NONCE);
    const cipher = createCipheriv('aes-256-gcm', this.current, nonce, { authTagLength: TAG }).setAAD(Buffer.from(place));
    const body = Buffer.concat([cipher.update(secret), cipher.final()]);
    return Buffer.concat([Buffer.of(FORM), Buffer.from(keyNumber(this.current), 'hex'), nonce, cipher.getAuthTag(), body]);
  }

  /** Throws where no key that is known opens it, or it was sealed for another place. */
  open(sealed: Buffer, place: string): Uint8Array {
    const number = sealed.subarray(1, 1 + KEY_NUMBER).toString('hex');
    const key = sealed[0] === FORM && sealed.length >= HEAD ? this.keys.get(number) : undefined;
    if (!key) return this.openFormer(sealed, number);
    const nonce = sealed.subarray(1 + KEY_NUMBER, 1 + KEY_NUMBER + NONCE);
    const decipher = createDecipheriv('aes-256-gcm', key, nonce, { authTagLength: TAG }).setAAD(Buffer.from(place));
    decipher.setAuthTag(sealed.subarray(HEAD - TAG, HEAD));
    return new Uint8Array(Buffer.concat([decipher.update(sealed.subarray(HEAD)), decipher.final()]));
  }

  /** Whether it has to be sealed anew: under another key, or without its place. */
  isFormer(sealed: Buffer): boolean {
    return sealed[0] !== FORM || sealed.subarray(1, 1 + KEY_NUMBER).toString('hex') !== keyNumber(this.current);
  }

  /** As it was sealed at first: nonce, tag, ciphertext, without place or number. */
  private openFormer(sealed: Buffer, number: string): Uint8Array {
    if (sealed.length < NONCE + TAG) throw new Error('what is sealed is cut short');
    for (const key of this.all) {
      const decipher = createDecipheriv('aes-256-gcm', key, sealed.subarray(0, NONCE), { authTagLength: TAG });
      decipher.setAuthTag(sealed.subarray(NONCE, NONCE + TAG));
      const body = decipher.update(sealed.subarray(NONCE + TAG));
      try {
        return new Uint8Array(Buffer.concat([body, decipher.final()]));
      } catch {
        // Another key, then.
      }
    }
    throw new Error(`a secret was sealed with another key than is known${sealed[0] === FORM ? `: number ${number}` : ''}`);
  }
}

/** What a key is told by, without telling it. */
export function keyNumber(key: Buffer): string {
  return createHash('sha256')
    .update('wanderon key number')
    .update(key)
    .digest('hex')
    .slice(0, 2 * KEY_NUMBER);
}
