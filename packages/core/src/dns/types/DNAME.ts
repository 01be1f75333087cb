import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 6672 */
export const DNAME = recordType('DNAME', 39, [domain('target')], 'lowered');
