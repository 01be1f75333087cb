import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.7 */
export const MINFO = recordType('MINFO', 14, [domain('responsible'), domain('errors')], 'compressed');
