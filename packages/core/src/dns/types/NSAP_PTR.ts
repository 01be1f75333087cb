import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 1348 */
export const NSAP_PTR = recordType('NSAP-PTR', 23, [domain('owner')], 'lowered');
