import { RecordSlip, sameAll, shown } from './slip';

/** The owner of `www.zone.` typed whole into a panel that appends the zone: it is served at this name. */
export function appendedOwner(owner: string, zone: string): string {
  return `${owner}${zone}`;
}

/** The name was typed whole, and the panel appended the zone: the set stands at `www.zone.zone`. */
export const nameAppended: RecordSlip = ({ zone, owner, type, planned, elsewhere }) => {
  const there = elsewhere(appendedOwner(owner, zone), type);
  if (planned.length === 0 || !there || !sameAll(there, planned)) return undefined;
  const short = owner.toLowerCase() === zone.toLowerCase() ? '@, or an empty field' : owner.slice(0, -zone.length - 1);
  return {
    code: 'name appended',
    text: `It stands at ${shown(appendedOwner(owner, zone))}: the panel appended the domain to a name that was typed whole. Type ${short} as the name.`,
  };
};
