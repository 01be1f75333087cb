import { NameSlip } from './slip';

const withoutEnding = (name: string): string => name.toLowerCase().slice(0, name.lastIndexOf('.'));

/** The ending of a name was typed as another one: `ns1.quillmere.test`. */
export const otherEnding: NameSlip = ({ typed, missing }) => {
  const wanted = missing.find((name) => typed.includes('.') && withoutEnding(name) === withoutEnding(typed) && withoutEnding(name).includes('.'));
  if (wanted === undefined) return undefined;
  return { code: 'ending', wanted, text: `${typed} ends in ${typed.slice(typed.lastIndexOf('.'))}: it is ${wanted}.` };
};
