import { isSiteOf } from '../../names';
import { ValueSlip } from '../slip';
import { hasTarget } from '../typedValue';

/** The domain of the host itself, or its website, stands as the target. */
export const hostsSite: ValueSlip = ({ is, was, type }) =>
  hasTarget(type) && isSiteOf(is, was) && was.split('.').length > 2
    ? { code: 'website', cost: 1.5, text: `${is} is the host’s domain or website: the target is ${was}.` }
    : undefined;
