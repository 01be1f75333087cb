import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';

export interface Measured {
  /** Wall-clock seconds of the whole process. */
  readonly seconds: number;
  /** Peak resident memory in MiB. */
  readonly peak: number;
  readonly out: string;
}

/** Runs a command to its end; standard output is kept only if asked for. Throws an Error where it fails. */
export function measure(command: string, args: readonly string[], keep = false): Promise<Measured> {
  return new Promise((resolve, reject) => {
    const began = performance.now();
    const child = spawn(command, args, { stdio: ['ignore', keep ? 'pipe' : 'ignore', 'pipe'] });
    let out = '';
    let said = '';
    let peak = 0;
    child.stdout?.on('data', (chunk: Buffer) => (out += String(chunk)));
    child.stderr?.on('data', (chunk: Buffer) => (said = (said + String(chunk)).slice(-2000)));
    const look = setInterval(() => {
      try {
        peak = Math.max(peak, Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? 0) / 1024);
      } catch (error) {
        // It ended between two looks.
        if (!['ENOENT', 'ESRCH'].includes((error as NodeJS.ErrnoException).code ?? '')) throw error;
      }
    }, 20);
    child.once('error', reject);
    child.once('close', (code) => {
      clearInterval(look);
      if (code === 0) resolve({ seconds: (performance.now() - began) / 1000, peak, out });
      else reject(new Error(`${command} ${args.join(' ')} ended with ${code}: ${said}`));
    });
  });
}

export function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[values.length >> 1]!;
}

/** Median, least and largest, of ratios taken in turns. */
export function spread(ratios: readonly number[]): string {
  return `${median(ratios).toFixed(2)} (${Math.min(...ratios).toFixed(2)} to ${Math.max(...ratios).toFixed(2)}, ${ratios.length} rounds)`;
}
