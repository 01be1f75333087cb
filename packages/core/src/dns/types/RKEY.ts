import { WireError } from '../bytes';
import { keyFields } from '../keyFields';
import { recordType } from '../recordType';

/** IANA registry; its flags have no meaning yet and are 0. */
export const RKEY = recordType('RKEY', 57, keyFields, 'as they are', (data) => {
  if (data[0] !== 0 || data[1] !== 0) throw new WireError('the flags of an RKEY record are 0');
});
