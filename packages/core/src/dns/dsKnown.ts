/** Algorithms and digests by which resolvers in use check a DS (RFC 8624 §3.1, §3.3). */
const ALGORITHMS: ReadonlySet<number> = new Set([5, 7, 8, 10, 13, 14, 15, 16]);
const DIGESTS: ReadonlySet<number> = new Set([1, 2, 4]);

/**
 * What of a DS set resolvers in use do not know, in words: to those the zone is unsigned, and they answer for it (RFC 4035 §5.2); one that
 * knows it checks. Undefined where one DS at least is of kinds that all of them know, or there is none. `sets`: in presentation form.
 *
 *     unknownDs(['1 200 2 AB']) → 'algorithm 200'
 */
export function unknownDs(ds: readonly string[]): string | undefined {
  const odd = ds.map((text) => {
    const [, algorithm, digest] = text.split(/\s+/).map(Number);
    if (!ALGORITHMS.has(algorithm!)) return `algorithm ${algorithm!}`;
    return DIGESTS.has(digest!) ? undefined : `digest type ${digest!}`;
  });
  return ds.length > 0 && odd.every((one) => one !== undefined) ? [...new Set(odd)].join(', ') : undefined;
}
