import { Duplex } from 'node:stream';
import { NetError } from './netError';
import { ServerAddress, where } from './server';

/** Two octets of length before each message (RFC 1035 §4.2.2). */
export function framed(wire: Uint8Array): Uint8Array {
  const out = new Uint8Array(wire.length + 2);
  out[0] = wire.length >> 8;
  out[1] = wire.length & 0xff;
  out.set(wire, 2);
  return out;
}

/** The messages that come over a connection, each in octets of its own. Throws a NetError where it ends inside one. */
export async function* frames(socket: Duplex, server: ServerAddress): AsyncGenerator<Uint8Array, void> {
  let pending: Buffer = Buffer.alloc(0);
  try {
    for await (const chunk of socket as AsyncIterable<Buffer>) {
      pending = pending.length === 0 ? chunk : Buffer.concat([pending, chunk]);
      let at = 0;
      while (pending.length - at >= 2) {
        const end = at + 2 + pending.readUInt16BE(at);
        if (pending.length < end) break;
        yield Uint8Array.prototype.slice.call(pending, at + 2, end);
        at = end;
      }
      pending = pending.subarray(at);
    }
  } catch (error) {
    if (error instanceof NetError || !(error instanceof Error) || !('code' in error)) throw error;
    throw new NetError('cut', `the connection to ${where(server)} broke: ${error.message}`);
  }
  if (pending.length > 0) throw new NetError('cut', `${where(server)} closed the connection inside a message`);
}
