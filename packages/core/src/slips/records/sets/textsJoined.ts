import { RecordSlipFound, WrongSet } from '../slip';
import { inSentence, lacking, lastOf, typedValue } from '../typedValue';

/** Texts of one name above which nobody makes one of two by a slip. */
const MOST = 8;

export interface TextsJoined {
  readonly slip: RecordSlipFound;
  /** The value that is served, and those that it was made of. */
  readonly served: string;
  readonly planned: readonly string[];
}

/** Two texts of one name that were saved as one; undefined where none is made of two. */
export function textsJoined({ type, planned, served }: WrongSet): TextsJoined | undefined {
  const missing = lacking(type, planned, served);
  if ((type !== 'TXT' && type !== 'SPF') || missing.length < 2 || missing.length > MOST) return undefined;
  const text = (data: string): string => lastOf(typedValue(type, data));
  const key = (one: string): string => one.replace(/[\s,;"]+/g, '');
  for (const there of lacking(type, served, planned))
    for (const first of missing)
      for (const second of missing)
        if (first !== second && key(text(there)) === key(text(first)) + key(text(second)))
          return {
            served: there,
            planned: [first, second],
            slip: {
              code: 'texts joined',
              text: `Two texts were saved as one: ${inSentence(text(first))} and ${inSentence(text(second))} are a record each.`,
            },
          };
  return undefined;
}
