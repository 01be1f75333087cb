import { distance } from './misspelt';
import { NameSlip } from './slip';

/** The ending of a name was typed as another one: `ns1.quillmere.test`, `ns1.quillmere.example.test`. */
export const otherEnding: NameSlip = ({ typed, wanted }) => {
  const [is, was] = [typed.toLowerCase().split('.'), wanted.toLowerCase().split('.')];
  let same = 0;
  while (same < Math.min(is.length, was.length) && is[same] === was[same]) same++;
  const [ending, right] = [is.slice(same), was.slice(same)];
  // The name of the host itself stands: what differs is behind it.
  if (same < 2 || ending.length < 1 || ending.length > 2 || right.length > 2 || ending.at(-1) === right.at(-1)) return undefined;
  // A long ending with a letter or two wrong was misspelt.
  if (ending.join('.').length > 4 && distance(ending.join('.'), right.join('.')) <= 2) return undefined;
  const instead = right.length === 0 ? 'it ends before that' : `and not in .${right.join('.')}`;
  return { code: 'ending', cost: 1, text: `${typed} ends in .${ending.join('.')}, ${instead}: it is ${wanted}.` };
};
