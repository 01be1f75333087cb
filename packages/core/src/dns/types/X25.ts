import { WireError } from '../bytes';
import { string } from '../fields';
import { recordType } from '../recordType';

/** RFC 1183 §3.1: four or more digits. */
export const X25 = recordType('X25', 19, [string('address')], 'as they are', (data) => {
  if (data.length < 5 || data.subarray(1).some((octet) => octet < 48 || octet > 57))
    throw new WireError('an X.25 address has four digits at least, and nothing else');
});
