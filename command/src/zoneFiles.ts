import { closeSync, openSync, readFileSync, readSync, realpathSync } from 'node:fs';
import { basename, dirname, isAbsolute, relative, resolve } from 'node:path';
import { CheckedZone, Name, NameError, ResourceRecord, ZoneFile, ZoneReader, checkZone, gatherZone } from '@wanderon/core';

/** A mistake in how a zone tool was called; the message says which. */
export class UsageError extends Error {}

/** Octets of a file that are read at a time. */
export const PIECE = 1 << 20;

/** Reads a file piece by piece, so that its text is never held whole. */
function read(file: string, origin: string | undefined): { zone: ZoneFile; name: Name } {
  if (file === '-' && origin === undefined) throw new UsageError('standard input needs --origin NAME');
  const name = parseName(origin ?? basename(file).replace(/\.(zone|db)$/, ''));
  const gathered = gatherZone();
  const reader = new ZoneReader(name, gathered, file === '-' ? {} : { include: includeBelow(dirname(file)) });
  const descriptor = file === '-' ? 0 : openSync(file, 'r');
  try {
    for (;;) {
      const piece = new Uint8Array(PIECE);
      const count = readPiece(descriptor, piece);
      if (count === 0) break;
      reader.write(piece.subarray(0, count));
    }
  } finally {
    if (descriptor !== 0) closeSync(descriptor);
  }
  reader.end();
  return { zone: gathered.file, name };
}

/** A pipe without data says so or ends with an error of its own; both are told from the end of the input. */
function readPiece(descriptor: number, piece: Uint8Array): number {
  for (;;) {
    try {
      return readSync(descriptor, piece);
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      if (code === 'EOF') return 0;
      if (code !== 'EAGAIN') throw error;
      Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 5);
    }
  }
}

export function parseName(text: string): Name {
  try {
    return Name.parse(text);
  } catch (error) {
    if (error instanceof NameError) throw new UsageError(`${text} is not a domain name: ${error.message}`);
    throw error;
  }
}

/** A zone file as a server would read it, with what is wrong in it. Throws a UsageError where it has no name. */
export function checked(file: string, origin: string | undefined, options = {}): CheckedZone & { readonly name: Name } {
  const { zone, name } = read(file, origin);
  return { ...checkZone(zone, name, options), name };
}

/** The records of a zone file that loads; throws a UsageError with the first thing that is wrong. */
export function loaded(file: string, origin: string | undefined): { records: readonly ResourceRecord[]; origin: Name } {
  const { records, findings, name } = checked(file, origin, { errorsOnly: true });
  const error = findings.find((finding) => finding.severity === 'error');
  if (error) throw new UsageError(`${error.file ?? file}:${error.line}:${error.column}: error: ${error.code}: ${error.text}`);
  return { records, origin: name };
}

/** $INCLUDE takes files of the zone file's own folder and below it, and no others; links that lead out are followed and refused. */
function includeBelow(folder: string): (file: string) => { octets: Uint8Array } | { problem: string } {
  return (file) => {
    try {
      const inside = relative(realpathSync(folder), realpathSync(resolve(folder, file)));
      if (inside.startsWith('..') || isAbsolute(inside)) return { problem: `${file} is not below the folder of the zone file` };
      return { octets: readFileSync(resolve(folder, file)) };
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === undefined) throw error;
      return { problem: `${file} cannot be read: ${(error as NodeJS.ErrnoException).code}` };
    }
  };
}
