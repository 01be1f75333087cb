import { readConfig } from './config';
import { openDatabase } from './db/database';
import { renewKeys } from './secrets/renewal';
import { Sealer } from './secrets/sealer';

/** Seals every secret under WANDERON_SECRET_KEY; WANDERON_FORMER_KEYS holds the keys that it may be sealed with. Servers may run meanwhile. */
async function main(): Promise<void> {
  const config = readConfig(process.env);
  const database = await openDatabase(config.WANDERON_DATABASE);
  try {
    const { renewed, left } = await renewKeys(database, new Sealer(config), (line) => console.error(line));
    console.log(`${renewed} ${renewed === 1 ? 'secret was' : 'secrets were'} sealed under the new key.`);
    if (left === 0) console.log('Nothing needs a former key any more: WANDERON_FORMER_KEYS can be left out.');
    else console.log(`${left} could not be opened with any key that was given, and ${left === 1 ? 'was' : 'were'} left.`);
    process.exitCode = left === 0 ? 0 : 1;
  } finally {
    await database.destroy();
  }
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(2);
});
