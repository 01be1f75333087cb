import { typedServers } from '../reading/typedServers';
import { plain } from '../survey/words';
import { nameKey } from '../watch/verdict';
import { appended } from './nameservers/appended';
import { cutShort } from './nameservers/cutShort';
import { leftOver } from './nameservers/leftOver';
import { labelInFront } from './nameservers/labelInFront';
import { misspelt } from './nameservers/misspelt';
import { numberNotChanged } from './nameservers/numberNotChanged';
import { ofAnother } from './nameservers/ofAnother';
import { ofTheHost } from './nameservers/ofTheHost';
import { otherEnding } from './nameservers/otherEnding';
import { ownDomain } from './nameservers/ownDomain';
import { runTogether } from './nameservers/runTogether';
import { NameSlip, SetContext } from './nameservers/slip';
import { within } from './nameservers/within';
import { written } from './nameservers/written';

/** In this order: the first that explains a name is the one that is told. */
const SLIPS: readonly NameSlip[] = [
  appended,
  cutShort,
  leftOver,
  ofAnother,
  numberNotChanged,
  labelInFront,
  otherEnding,
  runTogether,
  misspelt,
  ofTheHost,
  ownDomain,
];

export interface FoundSlip {
  /** Which slip it is; `stranger` and `missing` where none explains what is there, or is not. */
  readonly code: string;
  /** The name as it stands there; null where it is not there. */
  readonly typed: string | null;
  readonly text: string;
  /** What is to stand there instead; null where it is to go. */
  readonly wanted: string | null;
}

export interface ReadSet {
  /** The wanted set and nothing else. */
  readonly asPlanned: boolean;
  /** It is the set from before, whole: nothing was changed, saved or published. */
  readonly unchanged: boolean;
  readonly slips: readonly FoundSlip[];
}

/**
 * A nameserver set as it stands in a form, or as the parent publishes it, against the one that is wanted: each name that is
 * wrong with the slip that explains it, and each that is missing (RFC 1034 §4.2.1, RFC 1123 §2.1 for how names are written).
 *
 *     readNameserverSet({ zone: 'choir.example.', wanted: ['ns1.quillmere.example.', 'ns2.quillmere.example.'], old: [], others: [] },
 *       ['ns1.quillmere.example', 'ns1.quillmere.example'])
 *     // { asPlanned: false, slips: [{ code: 'number', text: 'ns1.quillmere.example stands twice: the number was not changed.', … }] }
 */
export function readNameserverSet(context: SetContext, fields: readonly string[]): ReadSet {
  const wanted = new Map(context.wanted.map((name) => [nameKey(name), plain(name)]));
  const old = new Set(context.old.map(nameKey));
  const slips: FoundSlip[] = [];
  const there = new Set<string>();
  const explained = new Set<string>();
  const wrong: { typed: string; key: string }[] = [];
  let isWithin = false;
  for (const field of fields.filter((one) => one.trim() !== '')) {
    const inside = within(field, context.wanted);
    if (inside) {
      explained.add(nameKey(inside.wanted));
      isWithin = true;
      slips.push({
        code: 'within',
        typed: field.trim(),
        wanted: inside.wanted,
        text: `“${field.trim()}” has a ${inside.mark} within the name: it is ${inside.wanted}.`,
      });
      continue;
    }
    const { names, slip } = written(field);
    if (slip) slips.push({ ...slip, typed: field.trim(), wanted: null });
    for (const name of names) {
      const key = nameKey(name);
      if (wanted.has(key) && !there.has(key)) there.add(key);
      else wrong.push({ typed: name, key });
    }
  }
  const missing = (): string[] => [...wanted].flatMap(([key, name]) => (there.has(key) || explained.has(key) ? [] : [name]));
  for (const { typed, key } of wrong) {
    const found = SLIPS.map((slip) => slip({ typed, key, twice: there.has(key), missing: missing(), context })).find((one) => one !== undefined);
    if (found?.wanted) explained.add(nameKey(found.wanted));
    slips.push(found ? { ...found, typed } : { code: 'stranger', typed, wanted: null, text: `${typed} is in neither set: take it out.` });
  }
  for (const name of missing())
    slips.push({ code: 'missing', typed: null, wanted: name, text: `${name} is missing: that field was not saved, or not filled in.` });
  const keys = new Set([...there, ...wrong.map((one) => one.key)]);
  const unchanged = keys.size > 0 && keys.size === old.size && [...keys].every((key) => old.has(key)) && ![...old].every((key) => wanted.has(key));
  const asPlanned = wrong.length === 0 && !isWithin && there.size === wanted.size;
  return { asPlanned, unchanged, slips };
}

/**
 * The names of servers that a pasted text holds, each once, in their order.
 *
 *     namesTyped('NS1: ns-4.driftwood.example.\nNS2: ns-9.driftwood.example')  // ['ns-4.driftwood.example', 'ns-9.driftwood.example']
 */
export function namesTyped(text: string): string[] {
  const names = typedServers(text).flatMap((field) => written(field).names);
  return [...new Map(names.map((name) => [nameKey(name), name])).values()];
}
