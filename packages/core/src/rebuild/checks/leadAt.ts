import { isLead } from '../leads';
import { Ruling } from '../ruling';

/** The first row by which a host name leads anywhere; `host` with or without final dot, in any case. */
export function leadAt(rulings: readonly Ruling[], host: string): Ruling | undefined {
  const owner = `${host.replace(/\.$/, '')}.`.toLowerCase();
  return rulings.find((row) => row.owner.toLowerCase() === owner && isLead(row.type));
}
