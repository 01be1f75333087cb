import { strings } from '../fields';
import { recordType } from '../recordType';

/** IANA registry */
export const CLA = recordType('CLA', 263, [strings('text')]);
