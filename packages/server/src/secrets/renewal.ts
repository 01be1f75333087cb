import { Database } from '../db/database';
import { Sealer } from './sealer';

/** Every column that holds something sealed, with how a row of it is told. */
const SEALED = [
  { table: 'secrets', column: 'sealed' },
  { table: 'people', column: 'factor_secret' },
] as const;

/**
 * Seals everything under the current key that is under another one, row by row while servers run: each goes only where it has not been
 * changed meanwhile, and what could not be opened is told and left. Gives how many were sealed anew.
 */
export async function renewKeys(database: Database, sealer: Sealer, say: (line: string) => void): Promise<{ renewed: number; left: number }> {
  let renewed = 0;
  let left = 0;
  for (const { table, column } of SEALED) {
    const rows = await database(table).whereNotNull(column).orderBy('id').select<{ id: string; sealed: Buffer }[]>('id', { sealed: column });
    for (const { id, sealed } of rows) {
      if (!sealer.isFormer(sealed)) continue;
      const place = `${table}/${id}`;
      try {
        const anew = sealer.seal(sealer.open(sealed, place), place);
        renewed += await database(table)
          .where({ id, [column]: sealed })
          .update({ [column]: anew });
      } catch (error) {
        left += 1;
        say(`${place}: ${error instanceof Error ? error.message : String(error)}`);
      }
    }
  }
  return { renewed, left };
}
