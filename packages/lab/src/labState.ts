import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { RunningClock } from '@wanderon/core';
import { PendingChange } from './registrars';
import { WebPanel } from './webPanel';

/** What a lab keeps between two starts. */
export interface SavedState {
  readonly clock: RunningClock;
  readonly zones: readonly { readonly host: string; readonly origin: string; readonly text: string }[];
  readonly pending?: readonly PendingChange[];
  readonly larkspur?: ReturnType<WebPanel['saved']>;
}

/** Undefined where nothing was kept yet; throws a SyntaxError or the system's error where it cannot be read. */
export function readState(file: string | undefined): SavedState | undefined {
  if (!file) return undefined;
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as SavedState;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined;
    throw error;
  }
}

/** The file is the old one or the new one, whole, whenever the process ends. */
export function writeState(file: string, state: SavedState): void {
  mkdirSync(dirname(file), { recursive: true });
  // The keys of its hosts are in it.
  writeFileSync(`${file}.new`, JSON.stringify(state), { mode: 0o600 });
  renameSync(`${file}.new`, file);
}
