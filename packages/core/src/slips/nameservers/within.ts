import { plain } from '../../survey/words';
import { nameKey } from '../../watch/verdict';

/**
 * The name that a field means which has a comma or a blank within it, where there is one; undefined where it has none, or means none.
 *
 *     within('ns1,quillmere.example', ['ns1.quillmere.example.'])  // { wanted: 'ns1.quillmere.example', mark: 'comma' }
 */
export function within(field: string, wanted: readonly string[]): { readonly wanted: string; readonly mark: 'comma' | 'blank' } | undefined {
  const text = field.trim();
  if (!/[\s,]/.test(text) || !/^[\p{L}\p{N}\s,._-]+$/u.test(text)) return undefined;
  const made = ['.', ''].map((instead) => nameKey(text.replace(/\.?[\s,]+\.?/g, (found) => (found.includes('.') ? '.' : instead))));
  const name = wanted.find((one) => made.includes(nameKey(one)));
  return name === undefined ? undefined : { wanted: plain(name), mark: text.includes(',') ? 'comma' : 'blank' };
}
