import { isUtf8 } from 'node:buffer';
import { NewSweep, inHandSchema, newSweepSchema, panelShownSchema, planReadSchema } from '@wanderon/contract';
import { Name, RRsetText, readDomainList } from '@wanderon/core';
import { ZodType } from 'zod';
import { InvalidInput } from '../refusals';
import { readNamesGiven, readSetsGiven } from './readGiven';
import { unreadableIn } from './unreadable';

const KEPT = 'Nothing was changed.';

/** What is read of each kind of large body. */
export interface LargeValues {
  /** What a person has in hand; `sets` as it is kept, `count` of them. */
  readonly 'in-hand': {
    readonly serial: number | undefined;
    readonly names: readonly string[];
    readonly sets: string;
    readonly count: number;
    readonly servers: readonly string[];
  };
  readonly plan: { readonly sets: readonly RRsetText[] };
  /** Null: what the panel showed is to be forgotten. */
  readonly panel: { readonly sets: readonly RRsetText[] | null };
  readonly sweep: Pick<NewSweep, 'name'> & Pick<ReturnType<typeof readDomainList>, 'domains' | 'bad' | 'leftOut'>;
}
export type LargeKind = keyof LargeValues;

/**
 * Reads the body of a request that may be as large as a zone: JSON in UTF-8, its schema, and every set in one spelling. `zone` is the domain
 * that it is about; a sweep is about none. Throws an InvalidInput that names the field.
 */
export function readLarge<K extends LargeKind>(kind: K, octets: Uint8Array, zone: string | null): LargeValues[K] {
  return READERS[kind](jsonOf(octets), Name.parse(zone ?? '.'));
}

const READERS: { readonly [K in LargeKind]: (body: unknown, zone: Name) => LargeValues[K] } = {
  'in-hand': (body, zone) => {
    const { serial, names, sets, servers } = valid(inHandSchema, body);
    const read = readSetsGiven(sets, zone);
    return { serial: serial ?? undefined, names: readNamesGiven(names, zone), sets: JSON.stringify(read), count: read.length, servers };
  },
  plan: (body, zone) => ({ sets: readSetsGiven(valid(planReadSchema, body).sets, zone) }),
  panel: (body, zone) => {
    const { sets } = valid(panelShownSchema, body);
    return { sets: sets && readSetsGiven(sets, zone) };
  },
  sweep: (body) => {
    const { name, text } = valid(newSweepSchema, body);
    const { domains, bad, leftOut } = readDomainList(text);
    // The first that cannot be read is told.
    return { name, domains, bad: bad.slice(0, 1), leftOut };
  },
};

function jsonOf(octets: Uint8Array): unknown {
  if (octets.length === 0) return undefined;
  if (!isUtf8(octets)) throw new InvalidInput('It is not in UTF-8.', { kept: KEPT });
  let body: unknown;
  try {
    body = JSON.parse(Buffer.from(octets).toString('utf8'));
  } catch (error) {
    throw new InvalidInput(`It is no JSON: ${(error as Error).message}.`, { kept: KEPT });
  }
  const field = unreadableIn(body);
  if (field !== undefined) throw new InvalidInput('It holds a character that cannot be kept, or is nested too deep.', { ...(field && { field }), kept: KEPT });
  return body;
}

function valid<T>(schema: ZodType<T>, body: unknown): T {
  const read = schema.safeParse(body);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new InvalidInput(issue!.message, { field: issue!.path.join('.'), kept: KEPT });
}
