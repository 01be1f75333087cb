import { createHash, randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { FactorOffer } from '@wanderon/contract';
import { Secret, TOTP } from 'otpauth';
import { Clock, WALL_CLOCK } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { InvalidInput, NotNow } from '../refusals';
import { Sealer } from '../secrets/sealer';

/** Octets of a secret, as RFC 4226 §4 recommends. */
const SECRET = 20;
/** Seconds a code is good for, and how many steps a clock may be off (RFC 6238 §5.2). */
const PERIOD = 30;
const WINDOW = 1;
const CODES = 10;
const KEPT = 'Nothing was changed.';

interface FactorRow {
  id: string;
  login: string;
  factor_secret: Buffer | null;
  factor_since: number | null;
  factor_step: string | null;
}

/** Codes of an app as a second factor (RFC 6238), and codes that open the account once where the app is lost. */
@Injectable()
export class SecondFactor {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(WALL_CLOCK) private readonly clock: Clock,
    private readonly sealer: Sealer,
  ) {}

  /** Makes a secret that counts for nothing until a code of it was typed. Throws a NotNow where there is a factor already. */
  async offer(person: string): Promise<FactorOffer> {
    const row = await this.row(person, this.database);
    if (row.factor_since !== null) throw new NotNow('There is a second factor already.', { detail: 'Take it off first.', kept: KEPT });
    const secret = randomBytes(SECRET);
    await this.database('people')
      .where({ id: person, factor_since: null })
      .update({ factor_secret: this.sealer.seal(secret, place(person)) });
    const totp = totpOf(secret, row.login);
    return { secret: totp.secret.base32, address: totp.toString() };
  }

  /** From now on the account asks for codes; gives the recovery codes, this once. Throws an InvalidInput where the code is not right. */
  async confirm(person: string, code: string, transaction: Database): Promise<string[]> {
    const row = await this.row(person, transaction);
    if (row.factor_since !== null || !row.factor_secret) throw new NotNow('No second factor is being set up.', { kept: KEPT });
    const step = this.stepOf(row, code);
    if (step === undefined) throw wrongCode();
    await transaction('people').where({ id: person }).update({ factor_since: this.clock.now(), factor_step: step });
    return this.renew(person, transaction);
  }

  /** Other recovery codes in the place of those that there were. Throws a NotNow where there is no factor that they could stand in for. */
  async renew(person: string, transaction: Database): Promise<string[]> {
    if ((await this.row(person, transaction)).factor_since === null) throw new NotNow('There is no second factor.', { kept: KEPT });
    const codes = Array.from({ length: CODES }, () => recoveryCode());
    await transaction('recovery_codes').where({ person_id: person }).delete();
    await transaction('recovery_codes').insert(codes.map((one) => ({ person_id: person, digest: digest(person, one) })));
    return codes;
  }

  async remove(person: string, transaction: Database): Promise<void> {
    await transaction('people').where({ id: person }).update({ factor_secret: null, factor_since: null, factor_step: null });
    await transaction('recovery_codes').where({ person_id: person }).delete();
  }

  /** True where a code of the app, later than the last one, or a recovery code is right; it does not count a second time. */
  async takes(person: string, code: string): Promise<boolean> {
    const row = await this.row(person, this.database);
    const step = this.stepOf(row, code);
    if (step !== undefined) {
      const later = this.database('people')
        .where({ id: person })
        .andWhere((of) => void of.whereNull('factor_step').orWhere('factor_step', '<', step));
      return (await later.update({ factor_step: step })) > 0;
    }
    return (
      (await this.database('recovery_codes')
        .where({ person_id: person, digest: digest(person, code) })
        .delete()) > 0
    );
  }

  private stepOf({ id, login, factor_secret: sealed }: FactorRow, code: string): number | undefined {
    if (!sealed || !/^\d{6}$/.test(code)) return undefined;
    const timestamp = this.clock.now() * 1000;
    const delta = totpOf(this.sealer.open(sealed, place(id)), login).validate({ token: code, timestamp, window: WINDOW });
    return delta === null ? undefined : Math.floor(timestamp / 1000 / PERIOD) + delta;
  }

  private async row(person: string, database: Database): Promise<FactorRow> {
    return (await database<FactorRow>('people').where({ id: person }).first('id', 'login', 'factor_secret', 'factor_since', 'factor_step'))!;
  }
}

export function wrongCode(): InvalidInput {
  return new InvalidInput('The code is not right.', { field: 'code', detail: 'Take the one that the app shows now.', kept: KEPT });
}

const place = (person: string): string => `people/${person}`;

function totpOf(secret: Uint8Array, login: string): TOTP {
  return new TOTP({
    issuer: 'Wanderon',
    label: login,
    algorithm: 'SHA1',
    digits: 6,
    period: PERIOD,
    secret: new Secret({ buffer: new Uint8Array(secret).buffer }),
  });
}

/** `x7kq2-m9fhd-3pwtn`: letters and digits that nobody mistakes for each other, 75 bits of them. */
function recoveryCode(): string {
  const letters = '23456789abcdefghjkmnpqrstuvwxyz';
  const drawn = Array.from(randomBytes(120)).filter((octet) => octet < 8 * letters.length);
  return [0, 5, 10]
    .map((from) =>
      drawn
        .slice(from, from + 5)
        .map((octet) => letters[octet % letters.length])
        .join(''),
    )
    .join('-');
}

function digest(person: string, code: string): string {
  return createHash('sha256')
    .update(`${person}\n${code.replace(/[\s-]/g, '')}`)
    .digest('hex');
}
