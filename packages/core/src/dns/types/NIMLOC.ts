import { hex } from '../fields';
import { recordType } from '../recordType';

/** IANA registry, a Nimrod locator */
export const NIMLOC = recordType('NIMLOC', 32, [hex('locator')]);
