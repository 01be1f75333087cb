import { rrsetRead } from '../../dns/record';
import { textOf } from '../../survey/namesInText';
import { Ruling } from '../ruling';
import { CheckInput } from './check';

/** The planned texts of a name, each put together. */
export function textsAt({ rulings }: Pick<CheckInput, 'rulings'>, owner: string): string[] {
  const row = rulings.find((one) => one.type === 'TXT' && one.owner.toLowerCase() === owner.toLowerCase());
  return row ? textsOf(row) : [];
}

/** The planned texts of a row. */
export function textsOf({ type, planned }: Pick<Ruling, 'type' | 'planned'>): string[] {
  return planned && type === 'TXT' ? rrsetRead(planned).data.map(textOf) : [];
}
