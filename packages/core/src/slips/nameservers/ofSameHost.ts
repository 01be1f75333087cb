import { plain } from '../../survey/words';
import { domainOf } from '../names';
import { NameSlip, SetContext } from './slip';

/**
 * Another name of the host: of the set that it gave to another client, or of one of its services. Which of the two, nobody can tell from the
 * name.
 */
export const ofSameHost: NameSlip = ({ typed, wanted, context }) =>
  typed.includes('.') && wanted.split('.').length > 2 && isOfSameHost(domainOf(typed).toLowerCase(), domainOf(wanted).toLowerCase(), context)
    ? { code: 'same host', cost: 2.4, text: `${typed} is another name of the same host, and none of those that it gave for this domain: here it is ${wanted}.` }
    : undefined;

/** The same domain, or one of the series of domains over which the host spreads the names that it gives: `host-dns.example`, `host-names.example`. */
function isOfSameHost(typed: string, wanted: string, context: SetContext): boolean {
  if (typed === wanted) return true;
  const series = seriesOf(wanted);
  const spread = new Set(context.wanted.map((name) => domainOf(plain(name)).toLowerCase()).filter((domain) => seriesOf(domain) === series));
  return series !== undefined && spread.size > 1 && seriesOf(typed) === series;
}

/** What domains of a series have in common: `driftwood-dns.example` → `driftwood*`, whatever the ending; undefined where there is no series. */
function seriesOf(domain: string): string | undefined {
  const stem = /^(\p{L}{4,}?)-?\d*(?:-[\p{L}\d]+)?\./u.exec(domain)?.[1];
  return stem && `${stem}*`;
}
