import { ByteWriter } from './bytes';
import { Name } from './name';

const SIZE = 4096;
/** How many names one message may teach; far more than one that is read at a glance holds. */
const MOST = 2048;

/**
 * Writes names with pointers to what was written before (RFC 1035 §4.1.4). Only onto the same spelling, so that letter
 * case survives. Used again for every message.
 */
export class Compressor {
  private readonly hashes = new Int32Array(SIZE);
  private readonly offsets = new Uint16Array(SIZE);
  private readonly rounds = new Uint32Array(SIZE);
  private readonly starts = new Uint8Array(128);
  private readonly suffixes = new Int32Array(128);
  private round = 0;
  private count = 0;

  begin(): void {
    this.round += 1;
    this.count = 0;
  }

  write(name: Name, out: ByteWriter): void {
    const { wire } = name;
    let labels = 0;
    for (let at = 0; wire[at] !== 0; at += wire[at]! + 1) this.starts[labels++] = at;
    let hash = 0x811c9dc5;
    let end = wire.length - 1;
    for (let i = labels - 1; i >= 0; i--) {
      const start = this.starts[i]!;
      for (let at = start; at < end; at++) hash = Math.imul(hash ^ wire[at]!, 0x01000193);
      this.suffixes[i] = hash ^ (hash >>> 13);
      end = start;
    }
    for (let i = 0; i < labels; i++) {
      const start = this.starts[i]!;
      const offset = this.find(this.suffixes[i]!, wire, start, out);
      if (offset >= 0) return out.u16(0xc000 | offset);
      out.slice(wire, start, start + wire[start]! + 1);
    }
    out.u8(0);
  }

  /** Where the rest of a name stands already; where it does not, its place to come is remembered and -1 given. */
  private find(hash: number, wire: Uint8Array, start: number, out: ByteWriter): number {
    let slot = hash & (SIZE - 1);
    for (; this.rounds[slot] === this.round; slot = (slot + 1) & (SIZE - 1))
      if (this.hashes[slot] === hash && standsAt(out, this.offsets[slot]!, wire, start)) return this.offsets[slot]!;
    if (out.length < 0x4000 && this.count < MOST) {
      this.count += 1;
      this.rounds[slot] = this.round;
      this.hashes[slot] = hash;
      this.offsets[slot] = out.length;
    }
    return -1;
  }
}

function standsAt(out: ByteWriter, offset: number, wire: Uint8Array, start: number): boolean {
  let at = start;
  let from = offset;
  for (;;) {
    // A name that is being written has no end yet.
    if (from >= out.length) return false;
    const length = out.at(from);
    if (length >= 0xc0) {
      from = ((length & 0x3f) << 8) | out.at(from + 1);
      continue;
    }
    if (length !== wire[at]) return false;
    if (length === 0) return true;
    for (let i = 1; i <= length; i++) if (out.at(from + i) !== wire[at + i]) return false;
    from += length + 1;
    at += length + 1;
  }
}
