import { strings } from '../fields';
import { recordType } from '../recordType';

/** IANA registry, a zone status */
export const NINFO = recordType('NINFO', 56, [strings('text')]);
