import { setWords } from '../survey/words';
import { RRset, rrsetToText, sameData } from '../dns/record';
import { typeMnemonic } from '../dns/typeNames';
import { SetChange, changesBetween } from '../dns/update';
import { SetKey, keyOf } from '../move/plan';
import { Assent } from '../move/said';
import { sameTexts } from '../timetable/wanted';

/** A set at the new host that is not ours, with its data in presentation form, sorted. */
export interface ForeignSet extends RRset {
  readonly texts: readonly string[];
}

/**
 * What brings the new zone to the plan, and what stands there that somebody else put there and that nobody has said may go.
 * `sent`: what we sent there last, by set; `found`: what was found there and is to change; `assents`: what a person said of what stood there then.
 */
export function pushChanges(
  served: readonly RRset[],
  wanted: readonly RRset[],
  how: {
    readonly keep: (set: RRset) => boolean;
    readonly sent: ReadonlyMap<SetKey, readonly string[]>;
    readonly found?: ReadonlyMap<SetKey, readonly string[]>;
    readonly assents: ReadonlyMap<SetKey, Assent>;
  },
): { readonly changes: readonly SetChange[]; readonly foreign: readonly ForeignSet[] } {
  const foreign: ForeignSet[] = [];
  const changes = changesBetween(served, wanted, how.keep).filter(({ before, after }) => {
    if (!before || (after && sameData(before.type, before.data, after.data))) return true;
    const key = keyOf(before.owner, before.type);
    const texts = [...rrsetToText(before).data].sort();
    const ours = how.sent.get(key);
    if ([ours, how.found?.get(key)].some((one) => one && sameTexts(key, [...one].sort(), texts))) return true;
    // Once we have pushed, what somebody puts beside the plan at the live host is theirs: it is reported, and left alone.
    if (!after && !ours && how.sent.size > 0) return false;
    const assent = how.assents.get(key);
    const said = assent && sameTexts(key, [...assent.data].sort(), texts) ? assent.what : undefined;
    if (said === 'leave' && !after) return false;
    // What the plan names is overwritten once a person has said either word about what stands there.
    if (said === undefined) foreign.push({ ...before, texts });
    return true;
  });
  return { changes, foreign };
}

/** What stands in the way at a host, in a sentence, and as it is kept with the step. */
export function foreignWords(
  host: string,
  foreign: readonly ForeignSet[],
): { readonly problem: string; readonly foreign: readonly { readonly key: SetKey; readonly data: readonly string[] }[] } {
  const names = foreign.map((set) => setWords({ owner: set.owner.toString(), type: typeMnemonic(set.type) }));
  const more = names.length > 5 ? ` and ${names.length - 5} more` : '';
  return {
    problem: `At ${host} stands what is not of this plan, and would go or be overwritten: ${names.slice(0, 5).join(', ')}${more}.`,
    foreign: foreign.map((set) => ({ key: keyOf(set.owner, set.type), data: set.texts })),
  };
}
