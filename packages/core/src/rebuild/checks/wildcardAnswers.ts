import { Name } from '../../dns/name';
import { typeCode } from '../../dns/typeNames';
import { plain } from '../../survey/words';
import { Ruling, isHostsOwn } from '../ruling';
import { Check, remark } from './check';
import { plannedZone } from './plannedZone';

/** Types by which a name leads visitors or mail somewhere. */
const LEADS: ReadonlySet<string> = new Set(['A', 'AAAA', 'CNAME', 'MX']);

/**
 * A name that is left out and that a wildcard answers from then on (RFC 4592 §2.2): it does not go, it leads elsewhere. Where nothing is left
 * at the name, the wildcard leads visitors and mail from it, whichever type was dropped.
 */
export const wildcardAnswers: Check = (input) => {
  const wildcards = input.rulings.filter((row) => row.planned && row.owner.startsWith('*.'));
  if (wildcards.length === 0) return [];
  const types = [...new Set(wildcards.map((row) => row.type))];
  const left = new Set(input.rulings.flatMap((row) => (row.planned ? [row.owner.toLowerCase()] : [])));
  const found = new Map<string, Set<string>>();
  for (const row of input.rulings) if (row.found) found.set(row.owner.toLowerCase(), (found.get(row.owner.toLowerCase()) ?? new Set()).add(row.type));
  const told = new Set<string>();
  return input.rulings.flatMap((ruling) => {
    const owner = ruling.owner.toLowerCase();
    if (ruling.planned || !ruling.found || isHostsOwn(ruling) || left.has(owner) || told.has(owner)) return [];
    const answers = types.filter((type) => LEADS.has(type) || found.get(owner)!.has(type)).flatMap((type) => answeredBy(input, ruling, type));
    if (answers.length === 0) return [];
    told.add(owner);
    const text = `Once it is left out, ${plain(answers[0]!.from)} answers for it (${answers.map((one) => one.type).join(', ')}).`;
    return [remark(ruling, 'look', 'wildcard-answers', text)];
  });
};

/** The wildcard that answers for a name and type by the plan. */
function answeredBy(input: Parameters<Check>[0], { owner }: Ruling, type: string): { readonly from: string; readonly type: string }[] {
  const answer = plannedZone(input).ask(Name.parse(owner), typeCode(type)!);
  const from = answer.from?.toString();
  return from?.startsWith('*.') && answer.answers.length > 0 ? [{ from, type }] : [];
}
