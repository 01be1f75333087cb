import { NameSlip } from './slip';

const withoutNumbers = (name: string): string => name.toLowerCase().replace(/\d+/g, '#');

/** A name of a numbered series that was copied, and its number not changed, or changed to another one. */
export const numberNotChanged: NameSlip = ({ typed, twice, missing }) => {
  const wanted = missing.find((name) => withoutNumbers(name) === withoutNumbers(typed) && withoutNumbers(name) !== name.toLowerCase());
  if (twice)
    return wanted === undefined
      ? { code: 'twice', wanted: null, text: `${typed} stands twice: take one out.` }
      : { code: 'number', wanted, text: `${typed} stands twice: the number was not changed. One of them is ${wanted}.` };
  return wanted === undefined ? undefined : { code: 'number', wanted, text: `${typed} has another number: it is ${wanted}.` };
};
