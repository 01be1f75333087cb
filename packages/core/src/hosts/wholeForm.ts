import { RRsetText } from '../dns/record';
import { Entry } from './enter';
import { KnownStyle } from './entryStyle';

/** What may have to be typed instead of the plain form, as it stands in a zone file (RFC 1035 §5.1); undefined where both are the same. */
export interface WholeForm {
  readonly name: string | undefined;
  readonly value: string | undefined;
}

/**
 * The whole forms of the records of a set, for what is not known of their panel: each with its plain entry. None where all is known.
 *
 *     wholeForms(null, enter(USUAL_STYLE, 'choir.example.', www), www)
 *     // [[{ name: 'www', value: 'edge.thornwick.example', … }, { name: 'www.choir.example.', value: 'edge.thornwick.example.' }]]
 */
export function wholeForms(known: KnownStyle | null, plain: readonly Entry[], { owner, data }: RRsetText): (readonly [Entry, WholeForm])[] {
  const asked = { name: known?.names === undefined, value: known?.targetDot === undefined };
  if (!asked.name && !asked.value) return [];
  return plain.map((entry, index) => {
    const name = asked.name ? owner : undefined;
    const value = asked.value && data[index] !== entry.value ? data[index] : undefined;
    return [entry, { name, value }] as const;
  });
}
