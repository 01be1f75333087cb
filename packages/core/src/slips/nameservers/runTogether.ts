import { plain } from '../../survey/words';
import { NameSlip } from './slip';

/** Two names came into one field without anything between them: `ns1.quillmere.examplens2.quillmere.example`. */
export const runTogether: NameSlip = ({ typed, context }) => {
  const all = [...context.wanted, ...context.old].map((name) => plain(name).toLowerCase());
  const text = typed.toLowerCase();
  const first = all.find((name) => text.startsWith(name) && all.includes(text.slice(name.length).replace(/^\./, '')));
  if (first === undefined) return undefined;
  const second = text.slice(first.length).replace(/^\./, '');
  return { code: 'together', wanted: first, text: `${typed} is two names run together: ${first} and ${second} each have a field of their own.` };
};
