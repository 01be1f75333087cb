import { Name } from '../dns/name';
import { addressLabels } from '../dns/reverse';
import { CATALOGUE, CATALOGUE_NAMES } from './catalogue';

const SIGNS = 'abcdefghijklmnopqrstuvwxyz0123456789';

/**
 * Names that a zone may have, the likeliest first: those of the addresses of its range, where it is of one, the catalogue, numbered ones, two of it together, and every label of up
 * to three letters and digits. For putting names to hashes, where a try costs nothing to anybody else.
 */
export function* likelyNames(zone: Name): Generator<Name, void> {
  yield zone;
  for (const label of addressLabels(zone)) yield zone.child(label);
  for (const text of CATALOGUE_NAMES) yield* withAncestors(zone, zone.child(text));
  yield zone.child('*');
  const plain = [...new Set(Object.entries(CATALOGUE).flatMap(([kind, names]) => (kind === 'signing of mail' ? [] : names)))].filter(
    (name) => !/[_.]/.test(name),
  );
  for (const name of plain) {
    yield zone.child(`*.${name}`);
    for (let number = 0; number < 30; number++) {
      yield zone.child(`${name}${number}`);
      yield zone.child(`${name}-${number}`);
      if (number < 10) yield zone.child(`${name}0${number}`);
    }
  }
  for (const a of SIGNS) {
    yield zone.child(a);
    for (const b of SIGNS) {
      yield zone.child(a + b);
      for (const c of SIGNS) yield zone.child(a + b + c);
    }
  }
  for (const first of plain)
    for (const second of plain) {
      if (first === second) continue;
      yield zone.child(`${first}.${second}`);
      yield zone.child(`${first}-${second}`);
    }
}

/** A name and every one above it inside the zone, which exists for its sake. */
export function* withAncestors(zone: Name, name: Name): Generator<Name, void> {
  for (let at = name; at.isBelow(zone); at = at.parent) yield at;
}
