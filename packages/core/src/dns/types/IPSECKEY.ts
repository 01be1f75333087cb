import { optionalBase64 } from '../fields';
import { ipsecGateway } from '../gateway';
import { recordType } from '../recordType';

/** RFC 4025 §2 */
export const IPSECKEY = recordType('IPSECKEY', 45, [ipsecGateway, optionalBase64('key')]);
