import { RecordSlip, shown } from '../slip';
import { lacking } from '../typedValue';

/**
 * Saved all right, on another domain or in a panel to which nothing is delegated. A sign and no proof: many domains of an agency lead to
 * the same places.
 */
export const astray: RecordSlip = ({ type, planned, served, elsewhereFound = [] }) => {
  const missing = lacking(type, planned, served);
  if (missing.length === 0) return undefined;
  const found = elsewhereFound.find((one) => lacking(type, missing, one.data).length === 0);
  if (!found) return undefined;
  return found.what === 'domain'
    ? { code: 'another domain', text: `It is not there, and the same stands at ${shown(found.where)}: was it saved on another domain?` }
    : { code: 'another host', text: `It is not there, and stands at ${found.where}, to which nothing is delegated: was it typed in the wrong panel?` };
};
