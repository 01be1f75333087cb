import { Name } from '../dns/name';
import { RRsetText } from '../dns/record';
import { canonicalRdata, parseRdata } from '../dns/rdata';
import { TYPE_CODES, typeCode } from '../dns/typeNames';
import { textOf } from '../survey/namesInText';
import { Find } from './find';

/** Record sets as a server gave them, by name and type. */
export type Served = ReadonlyMap<string, RRsetText>;

/** What is served decides: the find is as it is served, or one of its other readings is (its place), or other values stand there. */
export type ServedSays = { readonly is: 'same'; readonly reading: number | undefined } | { readonly is: 'other'; readonly data: readonly string[] };

const keyOf = (owner: Name, type: string): string => `${owner.key} ${type}`;

export function servedBy(sets: readonly RRsetText[]): Served {
  return new Map(
    sets.flatMap((set) => {
      const owner = Name.tryParse(set.owner);
      return owner ? [[keyOf(owner, set.type), set] as const] : [];
    }),
  );
}

/**
 * What a survey says of a record that a text gives; undefined where no such set was served.
 *
 *     servedSays(find('mail', 'MX', '10 mx1.post.example.'), zone, servedBy(survey.sets))  // { is: 'same', … }: the question is answered
 */
export function servedSays(find: Find, zone: Name, served: Served): ServedSays | undefined {
  if (find.kind !== 'record') return undefined;
  const readings = [{ owner: find.owner, data: find.data }, ...find.others];
  let other: RRsetText | undefined;
  for (const [index, { owner, data }] of readings.entries()) {
    const name = Name.tryParse(owner, zone);
    const set = name && served.get(keyOf(name, find.type));
    if (!set) continue;
    if (data !== '' && set.data.some((one) => isSame(find.type, one, data, zone))) return { is: 'same', reading: index === 0 ? undefined : index - 1 };
    if (index === 0) other = set;
  }
  return other && { is: 'other', data: other.data };
}

/** Texts are the same whatever strings they are parted into; names in any case. */
function isSame(type: string, a: string, b: string, zone: Name): boolean {
  const code = typeCode(type);
  if (code === undefined) return false;
  const [one, two] = [parseRdata(code, a, zone), parseRdata(code, b, zone)];
  if (code === TYPE_CODES.TXT) return textOf(one) === textOf(two);
  const [x, y] = [canonicalRdata(code, one), canonicalRdata(code, two)];
  return x.length === y.length && x.every((octet, index) => octet === y[index]);
}
