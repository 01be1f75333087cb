/** What kept an answer from us. `kind` is for the program, the message for people. */
export type NetErrorKind =
  | 'timeout'
  | 'unreachable'
  | 'cut'
  | 'malformed'
  | 'refused'
  | 'key'
  | 'signature'
  | 'time'
  | 'cancelled'
  | 'limit'
  | 'certificate'
  | 'truncated';

export class NetError extends Error {
  override readonly name = 'NetError';
  constructor(
    readonly kind: NetErrorKind,
    message: string,
    /** The response code, where the server answered with one. */
    readonly rcode?: number,
  ) {
    super(message);
  }
}
