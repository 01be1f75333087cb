import { domain } from '../fields';
import { recordType } from '../recordType';

/** IANA registry */
export const TALINK = recordType('TALINK', 58, [domain('previous'), domain('next')]);
