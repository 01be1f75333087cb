import { RULED } from './clean';
import { plainWord } from './labels';
import { Line } from './lines';
import { FORBIDS, SERVERS } from './sentences';

/** Words with which a sentence leads on to what stands below it. */
const LEADS_ON = /\b(?:to|are|auf|zu|lauten|sind|vers|sont|son|sono|naar|zijn|following|folgende\w*)$/;

/**
 * Whether the nameservers of a domain stand below these lines, by the last sentence of them. `wereServers`: they stood above it as well.
 *
 *     isServersHeading(['Please change the nameservers to'], false)  // true
 *     isServersHeading(['and these are the new ones:'], true)        // true
 *     isServersHeading(['Do not set these nameservers:'], false)     // false
 */
export function isServersHeading(lines: readonly Pick<Line, 'text'>[], wereServers: boolean): boolean {
  const texts = lines.map(({ text }) => text.trim()).filter((text) => text !== '' && text !== RULED);
  const sentence = texts
    .join(' ')
    .split(/(?<=[.!?])\s+/)
    .at(-1)!;
  if (sentence === '') return wereServers;
  const plain = plainWord(sentence);
  if (FORBIDS.test(plain)) return false;
  return SERVERS.test(plain) ? sentence.endsWith(':') || LEADS_ON.test(plain) : wereServers && sentence.endsWith(':');
}
