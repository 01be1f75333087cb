import { Name } from '../../dns/name';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { Check, Remark, remark } from './check';

const CHECKED: ReadonlySet<string> = new Set(['A', 'AAAA', 'CNAME', 'MX', 'TXT', 'SRV', 'CAA']);

/** Types whose targets are looked at too. */
const LEADS_BY_NAME: ReadonlySet<string> = new Set(['CNAME', 'MX']);
/** What most owners are, told from their text alone. */
const PLAIN = /^[a-z0-9][a-z0-9_-]*(\.[a-z0-9_-]+)*\.$/i;

/** A name in which part of a URL, a blank or a comma was pasted, a wildcard that is none (RFC 4592 §2.1.1), an underscore where a host has its name (RFC 1123 §2.1). */
export const oddName: Check = ({ rulings }) =>
  rulings.flatMap((ruling): Remark[] => {
    if (!ruling.planned || !CHECKED.has(ruling.type) || (PLAIN.test(ruling.owner) && !LEADS_BY_NAME.has(ruling.type))) return [];
    const set = rrsetRead(ruling.planned);
    const names = [set.owner, ...(LEADS_BY_NAME.has(ruling.type) ? set.data.flatMap((data) => namesIn(set.type, data)) : [])];
    const address = names.slice(1).find(isAddress);
    if (address) return [remark(ruling, 'look', 'address-as-name', `${address.toString()} looks like an address: here a name is wanted (RFC 2181 §10.3).`)];
    const odd = names.find(isOdd);
    if (odd)
      return [remark(ruling, 'look', 'odd-name', `${odd.toString()} holds what no name of a host has: part of an address, a blank or a comma was pasted?`)];
    const labels = set.owner.labels.map(textOfLabel);
    if (labels.some((label, index) => label.includes('*') && (label !== '*' || index > 0)))
      return [remark(ruling, 'look', 'wildcard-place', 'A * stands for any name only as the whole first label; here it is an ordinary character.')];
    if ((ruling.type === 'A' || ruling.type === 'AAAA') && labels[0]?.startsWith('_'))
      return [remark(ruling, 'look', 'underscore', 'No browser asks for a host whose name has an underscore: is it meant as a text or an alias?')];
    return [];
  });

function isOdd(name: Name): boolean {
  return name.labels.some((label) => /[^a-z0-9_*-]/i.test(textOfLabel(label)));
}

/** `192.0.2.7`, or what a panel makes of it: `192.0.2.7.zone.example`. */
function isAddress(name: Name): boolean {
  return name.labels.length >= 4 && name.labels.slice(0, 4).every((label) => /^\d{1,3}$/.test(textOfLabel(label)));
}

function textOfLabel(label: Uint8Array): string {
  return String.fromCharCode(...label);
}
