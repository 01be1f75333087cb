import { domain, u16 } from '../fields';
import { recordType } from '../recordType';
import { svcParams } from '../svcParams';

/** RFC 9460 §2 */
export const HTTPS = recordType('HTTPS', 65, [u16('priority'), domain('target'), svcParams]);
