import { isIpv4, isIpv6 } from '../../../dns/address';
import { ValueSlip } from '../slip';
import { hasTarget } from '../typedValue';

/** An address was typed where a name is asked for. */
export const addressAsTarget: ValueSlip = ({ is, was, type }) =>
  hasTarget(type) && (isIpv4(is) || isIpv6(is)) ? { code: 'address', cost: 1.6, text: `${is} is an address, and a name is asked for: ${was}.` } : undefined;
