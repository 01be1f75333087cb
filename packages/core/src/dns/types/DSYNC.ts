import { domain, mnemonicNumber, type, u16 } from '../fields';
import { NOTIFY_SCHEMES } from '../mnemonics';
import { recordType } from '../recordType';

/** RFC 9859 §2.1 */
export const DSYNC = recordType('DSYNC', 66, [type('type'), mnemonicNumber('scheme', NOTIFY_SCHEMES, 1, { printed: true }), u16('port'), domain('target')]);
