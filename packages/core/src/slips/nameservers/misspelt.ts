import { plain } from '../../survey/words';
import { distance, domainOf } from '../names';
import { NameSlip } from './slip';

/** A name that differs from the wanted one by a letter or two: left out, doubled, changed, or two of them exchanged. */
export const misspelt: NameSlip = ({ typed, wanted, context }) => {
  const far = distance(typed.toLowerCase(), wanted.toLowerCase());
  if (far === Infinity) return undefined;
  const elsewhere = !context.wanted.some((name) => domainOf(plain(name)).toLowerCase() === domainOf(typed).toLowerCase());
  const danger = elsewhere && typed.includes('.') ? ` As it stands it leads into ${domainOf(typed)}, which is not the host’s.` : '';
  return { code: 'misspelt', cost: 0.5 + 0.7 * far, text: `${typed} is misspelt: it is ${wanted}.${danger}` };
};
