import { strings } from '../fields';
import { recordType } from '../recordType';

/** IANA registry */
export const AVC = recordType('AVC', 258, [strings('text')]);
