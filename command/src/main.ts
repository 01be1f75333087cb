import { join } from 'node:path';
import { loadKept } from './keptCode';

// Each command is loaded when it is asked for: a look at a zone file need not wait for the demo's parts.
const HELP = `Usage: ./wanderon COMMAND

  demo [--fresh]    everything on this machine: database, lab, server, made-up data
  start             the server for real use; with no setting at all it keeps its own database on this machine
  backup FILE       everything but the key into one file, while the server runs or not
  restore FILE      what a backup holds, into an installation that has nothing yet
  migrate           brings the database up to date, as the role that owns it
  keys renew        seals the stored keys and secrets under a new key, while the server runs
  trail check       whether every event of the trail is as it was written
  test [PATTERN]    types, lint, unit, integration and browser tests
  zone TOOL ...     zone files and servers from the command line: check, print, read, compare, plan, fetch, push, ask
  bench [NAME]      each figure as a ratio against a named reference of the same run

docs/operations.md says how to run it for real.`;

async function main(): Promise<number> {
  const [command, ...args] = process.argv.slice(2);
  switch (command) {
    case 'demo':
      await (await import('./demo')).demo(args);
      return 0;
    case 'start':
      return (await import('./start')).start();
    case 'backup':
    case 'restore':
      if (args.length === 1) return (await import('./backup'))[command](args[0]!);
      console.error(`Usage: ./wanderon ${command} FILE`);
      return 2;
    case 'migrate':
      return (await import('./start')).migrate();
    case 'keys':
      if (args.join(' ') === 'renew') return (await import('./start')).renewKeys();
      console.error('Usage: ./wanderon keys renew');
      return 2;
    case 'trail':
      if (args.join(' ') === 'check') return (await import('./start')).checkTrail();
      console.error('Usage: ./wanderon trail check');
      return 2;
    case 'test':
      return (await import('./test')).test(args);
    case 'zone':
      return (loadKept(join(__dirname, 'zoneTools.js')) as typeof import('./zone')).zone(args);
    case 'bench':
      return (await import('./bench')).bench(args);
    case undefined:
    case 'help':
    case '--help':
    case '-h':
      console.log(HELP);
      return 0;
    default:
      console.error(`There is no command ${command}.\n\n${HELP}`);
      return 2;
  }
}

main().then(
  (code) => (process.exitCode = code),
  (error: unknown) => {
    console.error(error instanceof Error ? error.message : error);
    process.exitCode = 1;
  },
);
