import { ByteReader, ByteWriter, WireError } from './bytes';
import { Field, plainField } from './recordType';
import { fail } from './token';
import { typeCode, typeMnemonic } from './typeNames';

/** The type bit map of NSEC, NSEC3 and CSYNC (RFC 4034 §4.1.2). */
export const typeBits = (label: string, options: { empty: boolean }): Field =>
  plainField(
    label,
    (words, out) => {
      const codes = new Set<number>();
      while (words.left > 0) {
        const token = words.bare(label);
        codes.add(typeCode(token.text) ?? fail(token, `${token.text} is not a record type`));
      }
      if (!options.empty && codes.size === 0) words.take(label);
      writeTypeBits([...codes], out);
    },
    (data, out) => {
      const codes = readTypeBits(data);
      if (!options.empty && codes.length === 0) throw new WireError(`${label} are missing`);
      out.ascii(codes.map(typeMnemonic).join(' '));
    },
    (data) => data.skip(data.left),
  );

function writeTypeBits(codes: readonly number[], out: ByteWriter): void {
  const windows = new Map<number, number[]>();
  for (const code of [...codes].sort((a, b) => a - b)) windows.set(code >> 8, [...(windows.get(code >> 8) ?? []), code & 0xff]);
  for (const [window, here] of windows) {
    const octets = new Uint8Array((here.at(-1)! >> 3) + 1);
    for (const code of here) octets[code >> 3]! |= 0x80 >> (code & 7);
    out.u8(window);
    out.u8(octets.length);
    out.bytes(octets);
  }
}

export function readTypeBits(data: ByteReader): number[] {
  const codes: number[] = [];
  let before = -1;
  while (data.left > 0) {
    const window = data.u8();
    const length = data.u8();
    if (window <= before || length < 1 || length > 32) throw new WireError('a type bit map is out of order');
    before = window;
    const octets = data.bytes(length);
    if (octets[length - 1] === 0) throw new WireError('a type bit map has a zero octet at its end');
    for (let bit = 0; bit < length * 8; bit++) if (octets[bit >> 3]! & (0x80 >> (bit & 7))) codes.push(window * 256 + bit);
  }
  return codes;
}
