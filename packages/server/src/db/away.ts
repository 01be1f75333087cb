import { types } from 'node:util';

/** SQLSTATE of a connection that is cut or cannot be made: class 08, shutdowns and crashes (57P01 to 57P03), and too many (53300). */
const AWAY = /^(?:08|57P0[123]|53300$)/;
const NETWORK: ReadonlySet<string> = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND', 'EHOSTUNREACH']);
/** What the driver and the pool say of it in words alone; a query's error opens with its statement: 'select 1 - Connection terminated unexpectedly'. */
const WORDS =
  /(?:^| - )(?:Connection terminated|Client (?:has encountered a connection error|was closed)|Knex: Timeout acquiring a connection)|is not currently accepting connections/;

/** True where the database is away for the moment: what was asked for can be asked again. */
export function isDatabaseAway(error: unknown): boolean {
  if (!types.isNativeError(error)) return false;
  const code = 'code' in error && typeof error.code === 'string' ? error.code : '';
  // Other people's servers are asked through `net`, whose errors are its own.
  return AWAY.test(code) || WORDS.test(error.message) || NETWORK.has(code);
}
