import { Name } from '../dns/name';
import { namesIn } from '../dns/rdata';
import { RRset } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { listWords, plain } from '../survey/words';

/** Values that are told of a kind before "and 3 more". */
const TOLD = 3;

/**
 * How a domain stands, in short sentences: where its website is, where its mail goes, who answers for it, and how complete the inventory is.
 *
 *     // The website is at 198.51.100.80. Mail goes to mx1.post.example. ns1.saltmarsh.example and 1 more answer for the domain. …
 */
export function standingWords({
  zone,
  found,
  website,
  dnsHost,
  nameservers,
  grade,
}: {
  readonly zone: Name;
  readonly found: readonly RRset[];
  readonly website: readonly string[];
  /** The DNS host's name, where somebody described it. */
  readonly dnsHost: string | undefined;
  readonly nameservers: readonly string[];
  readonly grade: 'whole' | 'likely whole' | 'partial';
}): string {
  if (nameservers.length === 0) return 'The domain was never used: nothing is delegated yet, so nothing can be lost.';
  const mail = mailHosts(zone, found);
  const mailWords = mail.length > 0 ? `Mail goes to ${some(mail)}.` : found.some((set) => isMx(zone, set)) ? 'It takes no mail.' : 'It has no MX record.';
  const site = website.length > 0 ? `The website is at ${some(website.map(plain))}.` : 'Neither the domain nor www leads anywhere.';
  const servers = nameservers.map(plain);
  const answers = dnsHost ? `${dnsHost} answers for the domain.` : `${some(servers)} ${servers.length === 1 ? 'answers' : 'answer'} for the domain.`;
  return `${site} ${mailWords} ${answers} ${GRADES[grade]}`;
}

const isMx = (zone: Name, { owner, type }: RRset): boolean => type === TYPE_CODES.MX && owner.equals(zone);

/** Where mail to a domain goes, without final dots; none where it takes no mail (RFC 7505) or has no MX record. */
export function mailHosts(zone: Name, found: readonly RRset[]): string[] {
  const targets = found.filter((set) => isMx(zone, set)).flatMap(({ data }) => data.flatMap((one) => namesIn(TYPE_CODES.MX, one)));
  return targets.filter((name) => !name.isRoot).map((name) => plain(name.toString()));
}

const GRADES = {
  whole: 'The inventory is complete.',
  'likely whole': 'The inventory is probably complete.',
  partial: 'The inventory is incomplete: there may be records that nobody found.',
};

/** `a and b`; `a, b and 3 more` */
function some(values: readonly string[]): string {
  return values.length <= TOLD ? listWords(values) : `${values.slice(0, TOLD).join(', ')} and ${values.length - TOLD} more`;
}
