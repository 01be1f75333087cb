/** A name server as it is asked. */
export interface ServerAddress {
  readonly address: string;
  /** 53, or 853 over TLS and 443 over HTTPS, where it is absent. */
  readonly port?: number;
  /** Over TLS and HTTPS: the name its certificate must be for. Without one any certificate will do, as RFC 7858 §4.1 allows. */
  readonly tlsName?: string;
  /** Over TLS and HTTPS: certificates to trust instead of the system's, as PEM. */
  readonly ca?: string;
  /** Over HTTPS: the path, /dns-query where it is absent (RFC 8484 §4.1.1). */
  readonly path?: string;
}

/** How a question travels: UDP goes on over TCP where the answer did not fit (RFC 7766). */
export type Over = 'udp' | 'tcp' | 'tls' | 'https';

export const DEFAULT_PORTS: Readonly<Record<Over, number>> = { udp: 53, tcp: 53, tls: 853, https: 443 };

/** A server in words. */
export function where(server: ServerAddress): string {
  return server.port === undefined || server.port === 53 ? server.address : `${server.address} port ${server.port}`;
}
