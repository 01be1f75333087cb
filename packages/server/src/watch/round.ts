import { Instant, Message, Name, RCODE, Verdict, combineVerdicts, parseRdata, printRdata, rcodeName, typeCode, verdictOf } from '@wanderon/core';
import { limited } from '@wanderon/net';
import { Network, observed } from '../network/network';
import { WatchedQuestion } from '../timetable/times';
import { Look } from './run.store';

/** Looks at one name per question within a round: enough to see that several caches answer behind one address. */
const LOOKS = 3;

/** Asks every lookout every question, and says of each what it is. */
export async function lookRound(network: Network, questions: readonly WatchedQuestion[]): Promise<Look[]> {
  const pairs = network.lookouts.flatMap((lookout) => questions.map((question) => ({ lookout, question })));
  return limited(pairs, 16, async ({ lookout, question }) => {
    const type = typeCode(question.type)!;
    const name = Name.parse(question.owner);
    const before = question.before.map((data) => parseRdata(type, data));
    const after = question.after.map((data) => parseRdata(type, data));
    const verdicts: Verdict[] = [];
    const answers: Message[] = [];
    for (let look = 0; look < LOOKS; look++) {
      const asked = await observed(network.client.ask({ address: lookout.address }, name, type, { recursive: true, timeout: 4000 }));
      if (!asked.ok) continue;
      answers.push(asked.value);
      verdicts.push(verdictOf(type, { rcode: asked.value.rcode, data: dataOf(asked.value, name, type) }, before, after));
    }
    const base = { subject: lookout.name, owner: question.owner, type: question.type };
    if (answers.length === 0) return { ...base, verdict: 'none', rcode: 'no answer', answer: [], remainingTtl: null, silent: true };
    const shown = [...new Set(answers.flatMap((answer) => dataOf(answer, name, type).map((data) => printRdata(type, data))))].sort();
    return {
      ...base,
      verdict: combineVerdicts(verdicts),
      rcode: rcodeName(answers[0]!.rcode),
      answer: shown,
      remainingTtl: Math.min(...answers.map(remaining)),
      silent: false,
    };
  });
}

/** When to look again: just after the first answer that is not new runs out, not more than every 20 s, at least every 15 min. */
export function nextLook(looks: readonly Look[], now: Instant): Instant {
  const waits = looks.filter((look) => look.verdict !== 'new' && look.remainingTtl !== null).map((look) => look.remainingTtl! + 1);
  return now + Math.min(900, Math.max(20, Math.min(900, ...waits)));
}

function dataOf(answer: Message, name: Name, type: number): Uint8Array[] {
  return answer.answers.filter((record) => record.type === type && record.owner.equals(name)).map((record) => record.data);
}

function remaining(answer: Message): number {
  const all = [...answer.answers, ...(answer.rcode === RCODE.NXDOMAIN || answer.answers.length === 0 ? answer.authorities : [])];
  return all.length === 0 ? 0 : Math.min(...all.map((record) => record.ttl));
}
