import { recordType } from '../recordType';
import { RRSIG } from './RRSIG';

/** RFC 2535 §4: laid out as RRSIG, which took its place. */
export const SIG = recordType('SIG', 24, RRSIG.fields, 'lowered');
