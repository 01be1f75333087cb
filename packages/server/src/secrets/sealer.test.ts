import { createCipheriv, randomBytes } from 'node:crypto';
import { Sealer } from './sealer';

const [first, second] = [randomBytes(32), randomBytes(32)];
const sealer = (current: Buffer, ...former: Buffer[]): Sealer => new Sealer({ WANDERON_SECRET_KEY: current, WANDERON_FORMER_KEYS: former });
const secret = Buffer.from('a key of a host');

describe('a secret that is sealed', () => {
  it('opens in its own place alone', () => {
    const sealed = sealer(first).seal(secret, 'secrets/1');
    expect(Buffer.from(sealer(first).open(sealed, 'secrets/1'))).toEqual(secret);
    expect(() => sealer(first).open(sealed, 'secrets/2')).toThrow();
    expect(sealed.includes(secret)).toBe(false);
  });

  it('does not open when a bit of it is another one', () => {
    const sealed = sealer(first).seal(secret, 'secrets/1');
    for (let at = 0; at < sealed.length; at++) {
      const bent = Buffer.from(sealed);
      bent[at]! ^= 1;
      expect(() => sealer(first).open(bent, 'secrets/1')).toThrow();
    }
    expect(() => sealer(first).open(sealed.subarray(0, 20), 'secrets/1')).toThrow();
  });

  it('opens under a former key, and is then to be sealed anew', () => {
    const sealed = sealer(first).seal(secret, 'secrets/1');
    const both = sealer(second, first);
    expect(Buffer.from(both.open(sealed, 'secrets/1'))).toEqual(secret);
    expect([both.isFormer(sealed), both.isFormer(both.seal(secret, 'secrets/1'))]).toEqual([true, false]);
    expect(() => sealer(second).open(sealed, 'secrets/1')).toThrow(/another key/);
  });

  it('opens as it was sealed before places and numbers were sealed with it', () => {
    const nonce = randomBytes(12);
    const cipher = createCipheriv('aes-256-gcm', first, nonce);
    const body = Buffer.concat([cipher.update(secret), cipher.final()]);
    const sealed = Buffer.concat([nonce, cipher.getAuthTag(), body]);
    expect(Buffer.from(sealer(second, first).open(sealed, 'anywhere'))).toEqual(secret);
    expect(sealer(first).isFormer(sealed)).toBe(true);
    expect(() => sealer(second).open(sealed, 'anywhere')).toThrow(/another key/);
  });

  it('is not longer than a key can be', () => expect(() => sealer(first).seal(Buffer.alloc(5000), 'secrets/1')).toThrow(RangeError));
});
