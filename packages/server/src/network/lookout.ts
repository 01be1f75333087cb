import { Over } from '@wanderon/net';

/** A resolver that moves are watched from. */
export interface Lookout {
  readonly name: string;
  /** Empty where no resolver is asked, but the way from the root down. */
  readonly address: string;
  readonly over: Over | 'afresh';
  /** Over TLS and HTTPS: the name that its certificate is for. */
  readonly tlsName?: string;
  readonly path?: string;
  /** Where it stands. */
  readonly stands: string;
  readonly note: string;
}
