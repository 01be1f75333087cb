import { ByteReader, WireError } from '../bytes';
import { optionalBase64 } from '../fields';
import { ipsecGateway } from '../gateway';
import { recordType } from '../recordType';

/** RFC 4025 §2; with algorithm 0 there is no key (§2.4), which servers carry but do not load from zone files. */
export const IPSECKEY = recordType('IPSECKEY', 45, [ipsecGateway, optionalBase64('key')], 'as they are', (data) => {
  const reader = new ByteReader(data);
  ipsecGateway.names(reader);
  if (reader.left === 0) throw new WireError('servers want a public key here');
});
