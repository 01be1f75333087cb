import { ByteReader, WireError } from '../bytes';
import { plainField, recordType } from '../recordType';
import { Token, Words, fail } from '../token';

/** Thousandths of an arc second at the equator and the prime meridian (RFC 1876 §2). */
const MIDDLE = 0x8000_0000;
/** Centimetres below the reference spheroid at which altitudes begin. */
const BASE = 10_000_000;
const DEFAULTS = { size: 0x12, horizontal: 0x16, vertical: 0x13 };

/** RFC 1876 §3: `51 30 12.748 N 0 7 39.611 W 0.00m 1m 10000m 10m`; minutes, seconds and the last three may be left out. */
const location = plainField(
  'location',
  (words, out) => {
    const latitude = readAngle(words, 'latitude', 90, 'N', 'S');
    const longitude = readAngle(words, 'longitude', 180, 'E', 'W');
    const altitude = readMetres(words.bare('altitude'), 'altitude', -100_000, 42_849_672.95);
    const optional = (label: string, fallback: number): number => (words.left > 0 ? toPrecision(words.bare(label), label) : fallback);
    const size = optional('size', DEFAULTS.size);
    const horizontal = optional('horizontal precision', DEFAULTS.horizontal);
    const vertical = optional('vertical precision', DEFAULTS.vertical);
    out.u8(0);
    out.u8(size);
    out.u8(horizontal);
    out.u8(vertical);
    out.u32(latitude);
    out.u32(longitude);
    out.u32(altitude + BASE);
  },
  (data, out) => {
    if (data.u8() !== 0) throw new WireError('this version of LOC is unknown');
    const [size, horizontal, vertical] = [data.u8(), data.u8(), data.u8()];
    const latitude = printAngle(data, 90, 'N', 'S');
    const longitude = printAngle(data, 180, 'E', 'W');
    const altitude = data.u32() - BASE;
    out.ascii(`${latitude} ${longitude} ${(altitude / 100).toFixed(2)}m ${printPrecision(size)} ${printPrecision(horizontal)} ${printPrecision(vertical)}`);
  },
  // Only version 0 has this length (RFC 1876 §2).
  (data) => data.skip(data.left > 0 && data.data[data.at] === 0 ? 16 : data.left),
);

export const LOC = recordType('LOC', 29, [location]);

function readAngle(words: Words, label: string, most: number, positive: string, negative: string): number {
  const read = (part: string, pattern: RegExp, below: number): number => {
    const token = words.bare(`${part} of ${label}`);
    if (!pattern.test(token.text) || Number(token.text) > below) fail(token, `${token.text} cannot be the ${part} of a ${label}`);
    return Number(token.text);
  };
  const side = (): boolean => {
    const next = words.peek()?.text;
    return next === positive || next === negative;
  };
  const first = words.peek();
  let total = read('degrees', /^\d+$/, most) * 3_600_000;
  if (!side()) total += read('minutes', /^\d+$/, 59) * 60_000;
  if (!side()) total += Math.round(read('seconds', /^(\d+\.?|\d*\.\d{1,3})$/, 59.999) * 1000);
  const token = words.bare(`${positive} or ${negative}`);
  const way = token.text;
  if (way !== positive && way !== negative) fail(token, `${positive} or ${negative} was expected`);
  if (total > most * 3_600_000) fail(first ?? token, `a ${label} is at most ${most} degrees`);
  return way === positive ? MIDDLE + total : MIDDLE - total;
}

/** Metres to centimetres. */
function readMetres(token: Token, label: string, least: number, most: number): number {
  if (!/^[+-]?(\d+\.?|\d*\.\d{1,2})m?$/.test(token.text)) fail(token, `${label} must be metres, with centimetres at most`);
  const metres = parseFloat(token.text);
  if (metres < least || metres > most) fail(token, `${label} must be from ${least} to ${most} m`);
  return Math.round(metres * 100);
}

/** A power of ten in centimetres, mantissa in the upper four bits. */
function toPrecision(token: Token, label: string): number {
  let mantissa = readMetres(token, label, 0, 90_000_000);
  let exponent = 0;
  while (mantissa > 9) {
    mantissa = Math.floor(mantissa / 10);
    exponent += 1;
  }
  return (mantissa << 4) | exponent;
}

function printPrecision(octet: number): string {
  const [mantissa, exponent] = [octet >> 4, octet & 15];
  if (mantissa > 9 || exponent > 9 || (mantissa === 0 && exponent > 0)) throw new WireError('a LOC precision is out of range');
  const centimetres = mantissa * 10 ** exponent;
  return centimetres >= 100 ? `${centimetres / 100}m` : `${(centimetres / 100).toFixed(2)}m`;
}

function printAngle(data: ByteReader, most: number, positive: string, negative: string): string {
  const value = data.u32() - MIDDLE;
  const total = Math.abs(value);
  if (total > most * 3_600_000) throw new WireError('a LOC angle is out of range');
  const degrees = Math.floor(total / 3_600_000);
  const minutes = Math.floor((total % 3_600_000) / 60_000);
  return `${degrees} ${minutes} ${((total % 60_000) / 1000).toFixed(3)} ${value < 0 ? negative : positive}`;
}
