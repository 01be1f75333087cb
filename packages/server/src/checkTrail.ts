import { readConfig } from './config';
import { openDatabase } from './db/database';
import { checkTrail } from './events/trailSeals';

/** Holds the trail against its seals: exit code 0 where every event is as it was written, 1 where one is not. */
async function main(): Promise<void> {
  const config = readConfig(process.env);
  const database = await openDatabase(config.WANDERON_DATABASE);
  try {
    const { sealed, open, last, problem } = await checkTrail(database, config);
    if (problem !== undefined) console.error(`The trail does not hold: ${problem}. The ${sealed} before it fit.`);
    else {
      console.log(`All ${sealed} sealed events of the trail are as they were written.`);
      if (open > 0) console.log(`${open} ${open === 1 ? 'is' : 'are'} not sealed yet; a server that runs seals every few seconds.`);
      if (last !== undefined) console.log(`Last seal: ${last}. Kept elsewhere, it shows later whether the end was cut off.`);
    }
    process.exitCode = problem === undefined ? 0 : 1;
  } finally {
    await database.destroy();
  }
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(2);
});
