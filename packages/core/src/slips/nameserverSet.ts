import { typedServers } from '../reading/typedServers';
import { plain } from '../survey/words';
import { nameKey } from '../watch/verdict';
import { cheapest, leastCost } from './leastCost';
import { cutShort } from './nameservers/cutShort';
import { labelInFront } from './nameservers/labelInFront';
import { leftOver } from './nameservers/leftOver';
import { misspelt } from './nameservers/misspelt';
import { ofAnother, ofAnotherToo } from './nameservers/ofAnother';
import { ofSameHost } from './nameservers/ofSameHost';
import { ofTheHost } from './nameservers/ofTheHost';
import { otherEnding } from './nameservers/otherEnding';
import { otherNumber } from './nameservers/otherNumber';
import { ownDomain, ownDomainToo } from './nameservers/ownDomain';
import { runTogether } from './nameservers/runTogether';
import { NameSlip, SetContext, SurplusSlip } from './nameservers/slip';
import { copied, twice } from './nameservers/twice';
import { undone } from './nameservers/undone';
import { within } from './nameservers/within';
import { written } from './nameservers/written';

/** What a name can be in the place of a wanted one. */
const MEANT: readonly NameSlip[] = [cutShort, ofAnother, otherNumber, labelInFront, otherEnding, misspelt, ofTheHost, ownDomain, ofSameHost];
/** What can be the matter with a name besides what is around it. */
const WITHIN: readonly NameSlip[] = [otherNumber, misspelt, otherEnding];
/** What a name can be that is only to go. */
const SURPLUS: readonly SurplusSlip[] = [twice, leftOver, ofAnotherToo, ownDomainToo];

/** What it costs to say of a name that nothing explains it, and of a wanted one that it was not typed. */
const STRANGER = 3;
const MISSING = 1;

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
  const slips: FoundSlip[] = [];
  const names: string[] = [];
  /** Wanted names that stand there wrongly, each explained. */
  const explained = new Set<string>();
  for (const field of fields.map((one) => one.trim()).filter((one) => one !== '')) {
    const inside = within(field, context.wanted);
    if (inside) {
      explained.add(nameKey(inside.wanted));
      const text = `“${field}” has a ${inside.mark} within the name: it is ${inside.wanted}.`;
      slips.push({ code: 'within', typed: field, wanted: inside.wanted, text });
      continue;
    }
    const found = written(field);
    if (found.slip) slips.push({ ...found.slip, typed: field, wanted: null });
    for (const name of found.names) {
      const together = runTogether(name, context);
      if (!together) names.push(name);
      else {
        const meant = together.filter((one) => wanted.has(nameKey(one)));
        meant.forEach((one) => explained.add(nameKey(one)));
        const text = `${name} is ${together.length} names run together. ${meant.join(' and ')} ${meant.length === 1 ? 'has' : 'each have'} a field of their own.`;
        slips.push({ code: 'together', typed: name, wanted: meant[0] ?? null, text });
      }
    }
  }
  const keys = names.map(nameKey);
  const count = (name: string): number => keys.filter((key) => key === nameKey(name)).length;
  const missing = [...wanted].flatMap(([key, name]) => (explained.has(key) ? [] : [name]));
  const wrong = explanation(
    context,
    names.map((typed) => ({ typed, isWanted: wanted.has(nameKey(typed)), isTwice: count(typed) > 1 })),
    missing,
  );
  slips.push(...wrong);
  const old = new Set(context.old.map(nameKey));
  const distinct = new Set(keys);
  const unchanged = distinct.size > 0 && distinct.size === old.size && [...distinct].every((key) => old.has(key)) && ![...old].every((key) => wanted.has(key));
  return { asPlanned: wrong.length === 0 && explained.size === 0, unchanged, slips };
}

interface Typed {
  readonly typed: string;
  /** It is a wanted name. */
  readonly isWanted: boolean;
  /** It stands there more than once. */
  readonly isTwice: boolean;
}

interface Meant {
  readonly slips: readonly { readonly code: string; readonly text: string }[];
  readonly cost: number;
}

/** Of all that stands there the explanation that costs least: each name as one that was meant, as one to take out, or as a stranger. */
function explanation(context: SetContext, there: readonly Typed[], wanted: readonly string[]): FoundSlip[] {
  const meant = there.map((one) => wanted.map((name) => meantAs(one, name, context)));
  const surplus = there.map((one) => cheapest(SURPLUS.flatMap((slip) => slip({ ...one, context }) ?? [])));
  const { partners } = leastCost(
    there.length,
    wanted.length,
    (i, j) => meant[i]![j]?.cost,
    (i) => surplus[i]?.cost ?? STRANGER,
    MISSING,
  );
  const found = there.map((_one, i) => (partners[i] === undefined ? undefined : meant[i]![partners[i]]!));
  // No name is right, and all are of the same host: it is a set that the host gave, for another domain.
  const ofOtherSet = there.length > 1 && found.every((one) => one?.slips.length === 1 && ['number', 'same host'].includes(one.slips[0]!.code));
  const slips = there.flatMap(({ typed }, i): FoundSlip[] => {
    const name = partners[i] === undefined ? null : wanted[partners[i]]!;
    if (name !== null && ofOtherSet)
      return [
        {
          code: 'other set',
          typed,
          wanted: name,
          text: `${typed} is another name of the same host, perhaps of the set of another domain: here it is ${name}.`,
        },
      ];
    if (name !== null) return found[i]!.slips.map(({ code, text }) => ({ code, typed, wanted: name, text }));
    const only = surplus[i];
    return [{ code: only?.code ?? 'stranger', typed, wanted: null, text: only?.text ?? `${typed} is in neither set: take it out.` }];
  });
  const missing = wanted.filter((_name, j) => !partners.includes(j));
  return [
    ...slips,
    ...missing.map((name) => ({ code: 'missing', typed: null, wanted: name, text: `${name} is missing: that field was not saved, or not filled in.` })),
  ];
}

/** The cheapest way in which a name was typed for a wanted one: rightly, with one slip, or with something around it and one within it. */
function meantAs({ typed, isWanted, isTwice }: Typed, wanted: string, context: SetContext): Meant | undefined {
  if (nameKey(typed) === nameKey(wanted)) return { slips: [], cost: 0 };
  const one = { typed, wanted, context };
  // A wanted name in the place of another was copied; nobody misspells one into the other.
  if (isWanted) return cheapest((isTwice ? [copied] : [otherNumber]).flatMap((slip) => slip(one) ?? []).map(single));
  const ways: Meant[] = MEANT.flatMap((slip) => slip(one) ?? []).map(single);
  for (const around of undone(typed, context)) {
    const outer = { code: around.code, text: around.text(wanted) };
    if (nameKey(around.typed) === nameKey(wanted)) ways.push({ slips: [outer], cost: around.cost });
    else
      for (const inner of WITHIN.flatMap((slip) => slip({ ...one, typed: around.typed }) ?? []))
        ways.push({ slips: [outer, inner], cost: around.cost + inner.cost });
  }
  return cheapest(ways);
}

const single = (slip: { readonly code: string; readonly text: string; readonly cost: number }): Meant => ({ slips: [slip], cost: slip.cost });

/**
 * The names of servers that a pasted text holds, each once, in their order.
 *
 *     namesTyped('NS1: ns-4.driftwood.example.\nNS2: ns-9.driftwood.example')  // ['ns-4.driftwood.example', 'ns-9.driftwood.example']
 */
export function namesTyped(text: string): string[] {
  const names = typedServers(text).flatMap((field) => written(field).names);
  return [...new Map(names.map((name) => [nameKey(name), name])).values()];
}
