import { strings } from '../fields';
import { recordType } from '../recordType';

/** IANA registry */
export const WALLET = recordType('WALLET', 262, [strings('text')]);
