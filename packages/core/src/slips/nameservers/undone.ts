import { plain } from '../../survey/words';
import { SetContext } from './slip';

export interface Undone {
  readonly code: string;
  /** The name as it would stand without this slip. */
  readonly typed: string;
  /** What it costs that this slip was made as well. */
  readonly cost: number;
  readonly text: (wanted: string) => string;
}

/**
 * Slips that leave the name as it was typed, with something around it: each with what is left once it is taken away, where another slip may
 * stand.
 *
 *     undone('ns1.quilmere.example.choir.example', …)  // [{ code: 'appended', typed: 'ns1.quilmere.example', … }]
 */
export function undone(typed: string, { zone }: SetContext): Undone[] {
  const domain = `.${plain(zone)}`;
  const found: Undone[] = [];
  if (typed.toLowerCase().endsWith(domain.toLowerCase()) && typed.slice(0, -domain.length).includes('.'))
    found.push({
      code: 'appended',
      typed: typed.slice(0, -domain.length),
      cost: 0.9,
      text: (wanted) => `${typed} has the domain appended: it is ${wanted}. Some forms want a dot at the end for that.`,
    });
  const [first] = typed.split('.');
  if (/^(?:www|dns|ns|nameserver|server|host)$/i.test(first!) && typed.split('.').length > 3)
    found.push({
      code: 'in front',
      typed: typed.slice(first!.length + 1),
      cost: 1.2,
      text: (wanted) => `${typed} has “${first}” in front of the name: it is ${wanted}.`,
    });
  return found;
}
