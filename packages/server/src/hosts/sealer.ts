import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { CONFIG, Config } from '../config';

/** Encrypts secrets at rest with AES-256-GCM under the key from the environment: nonce, tag, then ciphertext. */
@Injectable()
export class Sealer {
  constructor(@Inject(CONFIG) private readonly config: Config) {}

  seal(secret: Uint8Array): Buffer {
    const nonce = randomBytes(12);
    const cipher = createCipheriv('aes-256-gcm', this.config.WANDERON_SECRET_KEY, nonce);
    const body = Buffer.concat([cipher.update(secret), cipher.final()]);
    return Buffer.concat([nonce, cipher.getAuthTag(), body]);
  }

  /** Throws where the key is another one than it was sealed with. */
  open(sealed: Buffer): Uint8Array {
    const decipher = createDecipheriv('aes-256-gcm', this.config.WANDERON_SECRET_KEY, sealed.subarray(0, 12));
    decipher.setAuthTag(sealed.subarray(12, 28));
    return new Uint8Array(Buffer.concat([decipher.update(sealed.subarray(28)), decipher.final()]));
  }
}
