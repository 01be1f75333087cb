/** Levels of a body that are read: no form has more than a few. */
const DEEPEST = 20;
/** NUL, which the database cannot hold, and halves of characters. */
// oxlint-disable-next-line no-control-regex
const UNREADABLE = /[\u0000\ud800-\udfff]/u;

/** Where in a body a text cannot be kept, as `rows.3.data`; undefined where all of it can. */
export function unreadableIn(body: unknown): string | undefined {
  const open: { readonly value: unknown; readonly path: readonly string[] }[] = [{ value: body, path: [] }];
  for (let one = open.pop(); one !== undefined; one = open.pop()) {
    const { value, path } = one;
    if (typeof value === 'string' ? UNREADABLE.test(value) : path.length > DEEPEST) return path.join('.');
    if (typeof value !== 'object' || value === null) continue;
    for (const [key, inner] of Object.entries(value)) {
      if (UNREADABLE.test(key)) return path.join('.');
      open.push({ value: inner, path: [...path, key] });
    }
  }
  return undefined;
}
