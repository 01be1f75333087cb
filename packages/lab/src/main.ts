import { Lab } from './lab';

/** Runs the lab as a process of its own: `main.js [--port N] [--state FILE] [--rate N] [--unlisted]`; prints its address as one line. */
async function main(): Promise<void> {
  const option = (name: string): string | undefined => {
    const at = process.argv.indexOf(`--${name}`);
    return at < 0 ? undefined : process.argv[at + 1];
  };
  const rate = option('rate');
  const stateFile = option('state');
  const lab = await Lab.open({
    port: Number(option('port') ?? 0),
    ...(stateFile ? { stateFile } : {}),
    ...(rate ? { rate: Number(rate) } : {}),
    unlisted: process.argv.includes('--unlisted'),
  });
  console.log(lab.address);
  const stop = (): void => {
    lab.close();
    process.exit(0);
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  // Without its parent the lab is of no use: the pipe from it closes when it dies.
  process.stdin.on('end', stop).resume();
}

void main();
