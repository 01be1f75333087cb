/** RFC 6570 §2.1: what may stand outside expressions, a fragment's mark left out. */
const LITERAL = /^(?:[!$&()*+,\-./:;=?@[\]_~A-Za-z0-9]|%[0-9A-Fa-f]{2}|[\u00a0-\ud7ff\uf900-\ufdcf\ufdf0-\uffef]|[\u{10000}-\u{efffd}])*$/u;
/** RFC 6570 §2.3 and 2.4: a variable, perhaps cut to a length or exploded. */
const VARIABLE = /^((?:\w|%[0-9A-Fa-f]{2})+(?:\.(?:\w|%[0-9A-Fa-f]{2})+)*)(?:\*|:[1-9]\d{0,3})?$/;

/**
 * True for a template by which a path with a query in it is made (RFC 9461 §5, RFC 6570): it begins with a slash, has the
 * variable `dns`, and what comes of it has no fragment.
 *
 *     isDohPath('/dns-query{?dns}')  // true
 *     isDohPath('/dns-query{#dns}')  // false
 */
export function isDohPath(template: string): boolean {
  if (!template.startsWith('/') || template.includes('\ufffd')) return false;
  // Split at the braces: literals at even places, expressions at odd ones.
  const parts = template.split(/\{([^{}]*)\}/);
  const expressions = parts.filter((_, index) => index % 2 === 1).map(variablesOf);
  const literals = parts.filter((_, index) => index % 2 === 0);
  return literals.every((literal) => LITERAL.test(literal)) && expressions.every((one) => one !== undefined) && expressions.some((one) => one!.includes('dns'));
}

/** The names of an expression's variables; undefined where it is none, or makes a fragment. */
function variablesOf(expression: string): string[] | undefined {
  const names = expression
    .replace(/^[+./;?&]/, '')
    .split(',')
    .map((variable) => VARIABLE.exec(variable)?.[1]);
  return names.every((name) => name !== undefined) ? names : undefined;
}
