import { Name } from '../../dns/name';
import { TYPE_CODES } from '../../dns/typeNames';
import { Fix, fixedTo } from '../fix';
import { isLead } from '../leads';
import { Check, CheckInput, Remark, remark } from './check';
import { plannedZone } from './plannedZone';

/**
 * A redirect that lives at the edge of the DNS host answers only for names that exist and are fronted: where nothing leads from a name of
 * its own, an address that nobody is asked at stands in for it.
 */
export const standIn: Check = (input) => [...missing(input), ...bare(input)];

/** The other spelling of the website, which was answered before and is not any more. */
function missing(input: CheckInput): Remark[] {
  const { zone, rulings, edge } = input;
  if (!edge || edge.standIn === '') return [];
  const spellings = [zone, zone.child('www')];
  const [silent, led] = [spellings.filter((name) => !leads(input, name)), spellings.find((name) => leads(input, name))];
  if (silent.length !== 1 || !led) return [];
  const owner = silent[0]!.toString().toLowerCase();
  const row = rulings.find((one) => one.owner.toLowerCase() === owner && one.found && !one.planned && isLead(one.type));
  if (!row) return [];
  const text = `Nothing answers for this spelling in the plan. If the edge of ${edge.host} is to send its visitors to ${shown(led)}, a record has to stand in for it there.`;
  return [remark(row, 'look', 'stand-in', text, [standInFix(input, row.owner)])];
}

/** What stands in and is not fronted leads visitors nowhere. */
function bare({ rulings, edge }: CheckInput): Remark[] {
  if (!edge || edge.standIn === '') return [];
  return rulings
    .filter((row) => row.planned?.data.includes(edge.standIn) && edge.fronting.get(row.owner.toLowerCase()) !== 'on')
    .map((row) => remark(row, 'look', 'stand-in', `${edge.standIn} is only a placeholder: have ${edge.host} answer this name with its own addresses.`));
}

function standInFix({ rulings, edge }: CheckInput, owner: string): Fix | undefined {
  if (!edge || edge.standIn === '') return undefined;
  const type = edge.standIn.includes(':') ? 'AAAA' : 'A';
  return { text: `Have ${edge.standIn} stand in for it.`, rows: [fixedTo(rulings, owner, type, [edge.standIn])] };
}

function leads(input: CheckInput, name: Name): boolean {
  return [TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CNAME].some((type) => plannedZone(input).ask(name, type).answers.length > 0);
}

function shown(name: Name): string {
  return name.toString().replace(/\.$/, '');
}
