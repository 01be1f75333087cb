import {
  Message,
  Name,
  RCODE,
  Verdict,
  WatchedQuestion,
  combineVerdicts,
  frontVerdict,
  nextLook,
  parseRdata,
  printRdata,
  rcodeName,
  typeCode,
  verdictOf,
} from '@wanderon/core';
import { Walker, limited } from '@wanderon/net';
import { askLookout } from '../../network/askLookout';
import { Lookout } from '../../network/lookout';
import { Network, observed } from '../../network/network';
import { Sighted } from '../../moves/observation.store';
import { WorkContext } from '../context';

/** Looks at one name within a round: enough to see that several caches answer behind one address. */
const LOOKS = 3;
const AT_ONCE = 16;
/** Rounds of lookouts in the time of one look at an authority, at the most. */
const ROUNDS = 3;

interface Look {
  readonly verdict: Verdict;
  readonly rcode: string;
  readonly answer: readonly string[];
  readonly remainingTtl: number | null;
  readonly silent: boolean;
}

/** Asks every lookout every question, says of each what it is, and when to ask again. */
export async function askLookouts(context: WorkContext, network: Network, now: number): Promise<{ sights: Sighted[]; next: number }> {
  const walker = network.walker();
  const pairs = network.lookouts.flatMap((lookout) => context.leg.questions.map((question) => ({ lookout, question })));
  const looks = await limited(pairs, AT_ONCE, async ({ lookout, question }) => ({
    lookout,
    question,
    look: await lookAt(network, lookout, walker, question),
  }));
  const sights = looks.map(({ lookout, question, look }): Sighted => {
    const { verdict, rcode, answer, silent, remainingTtl } = look;
    return {
      kind: 'lookout',
      subject: lookout.name,
      item: question.key,
      server: lookout.address,
      value: { verdict, rcode, answer, silent },
      note: { remainingTtl },
    };
  });
  return {
    sights,
    next: nextLook(
      looks.map((one) => one.look),
      now,
      context.every / ROUNDS,
    ),
  };
}

async function lookAt(network: Network, lookout: Lookout, walker: Walker, question: WatchedQuestion): Promise<Look> {
  const type = typeCode(question.type)!;
  const name = Name.parse(question.owner);
  const before = question.before.map((data) => parseRdata(type, data));
  const after = question.after.map((data) => parseRdata(type, data));
  const answers: Message[] = [];
  const verdicts: Verdict[] = [];
  for (let look = 0; look < LOOKS; look++) {
    const asked = await observed(askLookout(network, lookout, walker, { name, type, turn: look }));
    if (!asked.ok) continue;
    answers.push(asked.value);
    const answer = { rcode: asked.value.rcode, data: dataOf(asked.value, name, type) };
    verdicts.push(question.front ? frontVerdict(type, answer, before, question.front) : verdictOf(type, answer, before, after));
  }
  if (answers.length === 0) return { verdict: 'none', rcode: 'no answer', answer: [], remainingTtl: null, silent: true };
  const shown = [...new Set(answers.flatMap((answer) => dataOf(answer, name, type).map((data) => printRdata(type, data))))].sort();
  return {
    verdict: combineVerdicts(verdicts),
    rcode: rcodeName(answers[0]!.rcode),
    answer: shown,
    remainingTtl: Math.min(...answers.map(remaining)),
    silent: false,
  };
}

function dataOf(answer: Message, name: Name, type: number): Uint8Array[] {
  return answer.answers.filter((record) => record.type === type && record.owner.equals(name)).map((record) => record.data);
}

function remaining(answer: Message): number {
  const all = [...answer.answers, ...(answer.rcode === RCODE.NXDOMAIN || answer.answers.length === 0 ? answer.authorities : [])];
  return all.length === 0 ? 0 : Math.min(...all.map((record) => record.ttl));
}
