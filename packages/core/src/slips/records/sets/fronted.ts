import { RecordSlip } from '../slip';

/** A host's front answers where the plan has the true addresses. */
export const frontedAlready: RecordSlip = ({ served, planned, isFront }) =>
  served.length > 0 && served.every(isFront) && !planned.some(isFront)
    ? { code: 'fronted', text: 'The host answers with its own addresses: switch that off for this name until the plan says otherwise.' }
    : undefined;
