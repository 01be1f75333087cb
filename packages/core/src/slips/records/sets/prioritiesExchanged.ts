import { RecordSlip } from '../slip';
import { lacking, lastOf, typedValue } from '../typedValue';

/** The right targets with the right priorities, each with that of another. */
export const prioritiesExchanged: RecordSlip = ({ type, planned, served }) => {
  if (type !== 'MX' && type !== 'SRV') return undefined;
  const is = lacking(type, served, planned).map((data) => typedValue(type, data));
  const was = lacking(type, planned, served).map((data) => typedValue(type, data));
  if (is.length !== was.length || was.length < 2) return undefined;
  const sorted = (list: readonly string[]): string => [...list].sort().join('\n');
  const targets = (list: typeof is): string => sorted(list.map((value) => lastOf(value).toLowerCase()));
  const heads = (list: typeof is): string =>
    sorted(
      list.map((value) =>
        value.fields
          .slice(0, -1)
          .map((field) => field.text)
          .join(' '),
      ),
    );
  if (targets(is) !== targets(was) || heads(is) !== heads(was)) return undefined;
  const right = was.map((value) => `${lastOf(value)} has ${value.fields[0]!.text}`).join(', ');
  return { code: 'priorities exchanged', text: `The priorities are exchanged: ${right}.` };
};
