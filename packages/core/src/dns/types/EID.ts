import { hex } from '../fields';
import { recordType } from '../recordType';

/** IANA registry, an endpoint identifier */
export const EID = recordType('EID', 31, [hex('identifier')]);
