import { Name, Outside, RRset, TYPE_CODES, announcesMtaSts, caaQuestions, printRdata, reportQuestions, storable, takesReports, textOf } from '@wanderon/core';
import { HttpWorld, NetError, fetchOnce, limited } from '@wanderon/net';
import { SurveyWalker } from './surveyWorld';

/** Octets of a policy for mail that are read: senders read 64 KB (RFC 8461 §3.3). */
const POLICY = 64 * 1024;
/** Octets of a CAA set that are kept. */
const CAA = 16 * 1024;

/**
 * What stands outside of a zone and decides what its records mean: CAA above it, whether others take its DMARC reports, and the page of
 * its policy for mail. What could not be asked is told as not known. Throws a NetError only where cancelled.
 */
export async function askOutside(walker: SurveyWalker, http: HttpWorld, zone: Name, sets: readonly RRset[], signal: AbortSignal | undefined): Promise<Outside> {
  const reports = await limited(reportQuestions(zone, sets), 4, async ({ about, to, name }) => {
    const answer = await walker.recordsOf(name, TYPE_CODES.TXT);
    return { about, to, takes: answer && takesReports(answer.map(textOf)) };
  });
  return {
    caa: await caaAbove(walker, caaQuestions(zone, sets)),
    reports,
    mtaSts: announcesMtaSts(zone, sets) ? await policyOf(http, zone, signal) : null,
  };
}

/** The nearest set above; none as well where the way up could not be asked, since nothing is known then. */
async function caaAbove(walker: SurveyWalker, names: readonly Name[]): Promise<Outside['caa']> {
  for (const name of names) {
    const answer = await walker.recordsOf(name, TYPE_CODES.CAA);
    if (answer === null) return null;
    const data = answer.map((one) => printRdata(TYPE_CODES.CAA, one));
    if (data.length > 0) return data.join('').length > CAA ? null : { owner: name.toString(), data };
  }
  return null;
}

/** The page of the policy: over HTTPS alone, by a certificate that holds, and redirects are not followed (RFC 8461 §3.3). */
async function policyOf(http: HttpWorld, zone: Name, signal: AbortSignal | undefined): Promise<Outside['mtaSts']> {
  const url = new URL(`https://mta-sts.${zone.toString().replace(/\.$/, '')}/.well-known/mta-sts.txt`);
  try {
    const { status, body, cut, certificate } = await fetchOnce(http, url, { signal, limit: POLICY, accept: 'text/plain' });
    if (certificate?.problem !== undefined) return { text: null, problem: `${url.href}: its certificate is refused, ${certificate.problem}` };
    if (status !== 200) return { text: null, problem: `${url.href} answers ${status}` };
    if (cut) return { text: null, problem: `${url.href} is longer than senders read` };
    return { text: storable(new TextDecoder('utf-8').decode(body)), problem: null };
  } catch (error) {
    if (error instanceof NetError && error.kind !== 'cancelled') return { text: null, problem: storable(`${url.href}: ${error.message}`) };
    throw error;
  }
}
