import { RecordSlip, WrongSet, shown } from '../slip';
import { lacking } from '../typedValue';
import { wildcardOver } from './wildcardOver';

/** An alias allows nothing beside it (RFC 1034 §3.6.2): either hides the other, or the panel refuses it. */
export const aliasBeside: RecordSlip = (wrong) => {
  const { owner, type, planned, served, elsewhere, rows } = wrong;
  if (planned.length === 0 || served.length > 0) return undefined;
  const isPlanned = (other: string): boolean =>
    rows.some((row) => row.type === other && row.owner.toLowerCase() === owner.toLowerCase() && row.planned.length > 0);
  const right = `${type} ${planned.map(shown).join(', ')}`;
  if (type === 'CNAME') {
    const [other] = (['A', 'AAAA', 'TXT', 'MX'] as const).filter((one) => !isPlanned(one) && standsThere(wrong, one));
    if (other === undefined) return undefined;
    const there = elsewhere(owner, other)!.map(shown).join(', ');
    return { code: 'alias beside', text: `${other} ${there} stands at this name, and an alias can stand only alone: delete it, and add ${right}.` };
  }
  const alias = elsewhere(owner, 'CNAME') ?? [];
  return !isPlanned('CNAME') && standsThere(wrong, 'CNAME')
    ? { code: 'alias beside', text: `An alias to ${shown(alias[0]!)} stands at this name and hides all else there: delete it, and add ${right}.` }
    : undefined;
};

/** It is there, and not because a wildcard, planned or not, gives it to every name that does not exist (RFC 4592 §2.2.1). */
function standsThere({ owner, zone, elsewhere, rows }: WrongSet, type: string): boolean {
  const there = elsewhere(owner, type) ?? [];
  const wildcard = wildcardOver(owner, zone);
  const planned = rows.filter((row) => row.type === type && row.owner.startsWith('*.') && owner.toLowerCase().endsWith(row.owner.slice(1).toLowerCase()));
  const given = [...planned.map((row) => row.planned), (wildcard && elsewhere(wildcard, type)) || []];
  return there.length > 0 && !given.some((data) => lacking(type, there, data).length === 0);
}
