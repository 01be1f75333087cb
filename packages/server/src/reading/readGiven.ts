import { Name, NameError, RRsetText, TextError, rrsetFromText, rrsetToText } from '@wanderon/core';
import { InvalidInput } from '../refusals';

/** Names that a person gives, in one spelling. Throws an InvalidInput that says which one is none, or is none of the zone. */
export function readNamesGiven(names: readonly string[], zone: Name): string[] {
  return names.map((text) => checked('names', text, () => inZone(Name.parse(text), zone)));
}

/** Record sets that a person gives, in one spelling. Throws an InvalidInput that names the one that cannot be read, or is outside of the zone. */
export function readSetsGiven(sets: readonly RRsetText[], zone: Name): RRsetText[] {
  return sets.map((set) =>
    checked('sets', `${set.owner} ${set.type}`, () => {
      const read = rrsetFromText(set);
      inZone(read.owner, zone);
      return rrsetToText(read);
    }),
  );
}

/** A name in one spelling; throws a RangeError where it is outside of the zone. */
export function inZone(name: Name, zone: Name): string {
  if (!name.isAtOrBelow(zone)) throw new RangeError('it is outside the zone');
  return name.toString();
}

/** What `read` gives; throws an InvalidInput that names the field and what stands in it where it is no name and no data. */
export function checked<T>(field: string, what: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof NameError || error instanceof TextError || error instanceof RangeError)
      throw new InvalidInput(`${what} cannot be taken: ${error.message}.`, { field, kept: 'Nothing was changed.' });
    throw error;
  }
}
