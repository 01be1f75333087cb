import { createHmac, timingSafeEqual } from 'node:crypto';
import { Hasher } from '@wanderon/core';

/** HMAC and constant-time comparison from Node's own cryptography. */
export const hasher: Hasher = {
  hmac: (algorithm, secret, data) => new Uint8Array(createHmac(algorithm.replace('hmac-', ''), secret).update(data).digest()),
  equal: (a, b) => a.length === b.length && timingSafeEqual(a, b),
};
