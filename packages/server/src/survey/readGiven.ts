import { InHandInput } from '@wanderon/contract';
import { Name, NameError, RRsetText, TextError, rrsetFromText, rrsetToText } from '@wanderon/core';
import { ProblemError } from '../problem';

/** Names and record sets that a person gives, checked and in one spelling. Throws a ProblemError that names the field. */
export function readGiven(input: InHandInput, zone: Name): { names: string[]; sets: RRsetText[] } {
  return {
    names: input.names.map((text) => checked('names', text, () => inZone(Name.parse(text), zone))),
    sets: input.sets.map((set) =>
      checked('sets', `${set.owner} ${set.type}`, () => {
        const read = rrsetFromText(set);
        inZone(read.owner, zone);
        return rrsetToText(read);
      }),
    ),
  };
}

function inZone(name: Name, zone: Name): string {
  if (!name.isAtOrBelow(zone)) throw new RangeError('it is outside the zone');
  return name.toString();
}

function checked<T>(field: string, what: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof NameError || error instanceof TextError || error instanceof RangeError)
      throw new ProblemError(400, `${what} cannot be taken: ${error.message}.`, { field, kept: 'Nothing was changed.' });
    throw error;
  }
}
