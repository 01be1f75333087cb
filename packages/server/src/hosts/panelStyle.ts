import { Host } from '@wanderon/contract';
import { KnownStyle } from '@wanderon/core';

/** What is known of a panel, as it goes over HTTP. */
export function styleView({ ttls, lacks, ...style }: KnownStyle): NonNullable<Host['entry']> {
  return { ...style, ...(ttls !== undefined && { ttls: ttls && [...ttls] }), ...(lacks && { lacks: [...lacks] }) };
}
