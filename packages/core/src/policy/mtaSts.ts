import { readTagList } from './tagList';

/** That there is a policy for mail, and which one (RFC 8461 §3.1). */
export type MtaStsRecord = { readonly ok: true; readonly id: string } | { readonly ok: false; readonly problem: string };

/** True for a text that says so, well or badly. */
export function isMtaSts(text: string): boolean {
  return /^v\s*=\s*STSv1\s*(?:;|$)/i.test(text);
}

/** Reads the record at `_mta-sts` (RFC 8461 §3.1). Never throws. */
export function readMtaStsRecord(text: string): MtaStsRecord {
  if (!/^v\s*=\s*STSv1\s*(?:;|$)/.test(text)) return { ok: false, problem: 'v=STSv1 has to stand first' };
  const id = readTagList(text)?.get('id');
  if (id === undefined) return { ok: false, problem: 'it has no id' };
  if (!/^[a-z0-9]{1,32}$/i.test(id)) return { ok: false, problem: `its id is letters and digits, at most 32, and is ${id.slice(0, 40)}` };
  return { ok: true, id };
}

export const MTA_STS_MODES = ['enforce', 'testing', 'none'] as const;

/** The policy itself, a page of its own host (RFC 8461 §3.2). */
export type MtaStsPolicy =
  | {
      readonly ok: true;
      readonly mode: (typeof MTA_STS_MODES)[number];
      /** Host names, or `*.` and the rest of them; in lower case, without final dot. */
      readonly mx: readonly string[];
      /** Seconds for which senders keep it. */
      readonly maxAge: number;
    }
  | { readonly ok: false; readonly problem: string };

/** Longest time that a policy may say (RFC 8461 §3.2): about a year. */
const LONGEST_AGE = 31_557_600;
/** Lines of a policy that are read. */
const LINES = 500;

/** Reads a policy (RFC 8461 §3.2): `key: value` lines, of which those that nobody knows are passed over. Never throws. */
export function readMtaStsPolicy(text: string): MtaStsPolicy {
  const wrong = (problem: string): MtaStsPolicy => ({ ok: false, problem });
  const fields = text.split(/\r?\n/, LINES).flatMap((line) => {
    const at = line.indexOf(':');
    return at < 0 ? [] : [{ key: line.slice(0, at).trim(), value: line.slice(at + 1).trim() }];
  });
  const first = (key: string): string | undefined => fields.find((one) => one.key === key)?.value;
  if (first('version') !== 'STSv1') return wrong('it does not say version: STSv1');
  const mode = MTA_STS_MODES.find((one) => one === first('mode'));
  if (!mode) return wrong(`its mode is none of ${MTA_STS_MODES.join(', ')}`);
  const age = first('max_age') ?? '';
  if (!/^\d{1,10}$/.test(age) || Number(age) > LONGEST_AGE) return wrong(`its max_age is no number of seconds up to ${LONGEST_AGE}`);
  const mx = fields.filter((one) => one.key === 'mx').map(({ value }) => value.toLowerCase().replace(/\.$/, ''));
  const odd = mx.find((one) => !/^(?:\*\.)?[a-z0-9_](?:[a-z0-9_-]*[a-z0-9])?(?:\.[a-z0-9_](?:[a-z0-9_-]*[a-z0-9])?)*$/.test(one));
  if (odd !== undefined) return wrong(`"${odd.slice(0, 60)}" is no name of a mail host`);
  if (mx.length === 0 && mode !== 'none') return wrong('it names no mail host');
  return { ok: true, mode, mx: [...new Set(mx)], maxAge: Number(age) };
}

/**
 * Whether a mail host is one that a policy names (RFC 8461 §4.1). A `*.` stands for one label.
 *
 *     fitsMtaSts(['*.post.test'], 'mx1.post.test.') // true
 *     fitsMtaSts(['*.post.test'], 'a.mx1.post.test.') // false
 */
export function fitsMtaSts(mx: readonly string[], host: string): boolean {
  const name = host.toLowerCase().replace(/\.$/, '');
  const rest = name.slice(name.indexOf('.') + 1);
  return mx.some((one) => (one.startsWith('*.') ? name.includes('.') && one.slice(2) === rest : one === name));
}
