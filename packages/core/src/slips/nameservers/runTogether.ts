import { plain } from '../../survey/words';
import { SetContext } from './slip';

/** Names in one field above which nobody typed them without noticing. */
const MOST = 4;

/**
 * The names that came into one field without anything between them; undefined where it is not made of them.
 *
 *     runTogether('ns1.quillmere.examplens2.quillmere.example', …)  // ['ns1.quillmere.example', 'ns2.quillmere.example']
 */
export function runTogether(typed: string, context: SetContext): string[] | undefined {
  const all = [...context.wanted, ...context.old].map(plain);
  const parts = (text: string, most: number): string[] | undefined => {
    if (text === '') return [];
    if (most === 0) return undefined;
    for (const name of all) {
      if (!text.startsWith(name.toLowerCase())) continue;
      const rest = parts(text.slice(name.length).replace(/^\./, ''), most - 1);
      if (rest) return [name, ...rest];
    }
    return undefined;
  };
  const found = parts(typed.toLowerCase(), MOST);
  return found && found.length > 1 ? found : undefined;
}
