/** An owner name as typed below the zone: `@`, `www`, or absolute where it lies elsewhere. Takes absolute names with final dot. */
import { Name, NameError } from '@wanderon/core';

export function ownerBelow(owner: string, domain: string): string {
  try {
    return Name.parse(owner).relativeTo(Name.parse(`${domain}.`));
  } catch (error) {
    if (error instanceof NameError) return owner;
    throw error;
  }
}
