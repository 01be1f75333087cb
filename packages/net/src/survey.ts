import { Exploration, Message, Name, NsecWalk, RCODE, RRset, SurveyQuestion, TYPE_CODES, Unanswered, groupRecords, query, readSoa } from '@wanderon/core';
import { AskOptions, DnsClient } from './client';
import { limited } from './limited';
import { NetError } from './netError';
import { SIGNED } from './signed';
import { ServerAddress } from './server';

export interface SurveyOptions extends AskOptions {
  /** What the server answered before to a question: it is not asked again. */
  readonly known?: (question: SurveyQuestion) => Message | undefined;
  /** Questions in flight to the server. */
  readonly inFlight?: number;
  /** True once no more is to be asked: what was found so far stands. */
  readonly isEnough?: (() => boolean) | undefined;
  /** Told now and then what is being asked, and how much is known to be left. */
  readonly onProgress?: (asked: number, now: SurveyQuestion, left?: number) => void;
}

const IN_FLIGHT = 16;

export interface WalkedZone {
  readonly sets: readonly RRset[];
  /** The chain closed, every set that it names was fetched, and the serial stayed the same. */
  readonly whole: boolean;
  readonly serial: number | undefined;
  /** What keeps it from being whole, in words. */
  readonly problems: readonly string[];
  readonly names: number;
  readonly asked: number;
}

/** Walks a signed zone along its NSEC chain and fetches every set that it names. Throws a NetError only where cancelled. */
export async function walkZone(client: DnsClient, server: ServerAddress, zone: Name, options: SurveyOptions = {}): Promise<WalkedZone> {
  const walk = new NsecWalk(zone);
  const problems: string[] = [];
  let asked = 0;
  const put = (question: SurveyQuestion, signed: boolean): Promise<Message | undefined> => {
    asked += 1;
    if (asked % 25 === 1) options.onProgress?.(asked, question);
    return answered(client.exchange(server, signed ? query(question.name, question.type, { edns: SIGNED }) : query(question.name, question.type), options));
  };
  const serialNow = async (known?: Message): Promise<number | undefined> => {
    const soa = (known ?? (await put({ name: zone, type: TYPE_CODES.SOA }, false)))?.answers.find(
      (record) => record.type === TYPE_CODES.SOA && record.owner.equals(zone),
    );
    return soa && readSoa(soa.data).serial;
  };
  const serial = await serialNow(options.known?.({ name: zone, type: TYPE_CODES.SOA }));
  for (let question = walk.next(); question && !options.isEnough?.(); question = walk.next()) walk.take(await put(question, true));
  if (walk.problem !== undefined) problems.push(walk.problem);
  if (walk.names.length === 0) return { sets: [], whole: false, serial, problems, names: 0, asked };
  const sets: RRset[] = [];
  // What nobody asked for was not refused.
  let left = 0;
  await limited(walk.questions(), options.inFlight ?? IN_FLIGHT, async (question) => {
    if (options.isEnough?.()) {
      left += 1;
      return;
    }
    const answer = await put(question, false);
    const got = answer ? walk.setsIn(question, answer) : [];
    if (got.length === 0) problems.push(`${question.name.toString()} has a type ${question.type} that was not given.`);
    sets.push(...got);
  });
  const after = await serialNow();
  if (serial === undefined || after !== serial) problems.push(`The serial went from ${serial ?? 'none'} to ${after ?? 'none'} during the walk.`);
  const whole = walk.closed && left === 0 && problems.length === 0;
  // Glue stands in the answer for each delegation that uses it.
  const records = sets.flatMap((set) => set.data.map((data) => ({ owner: set.owner, type: set.type, cls: 1, ttl: set.ttl, data })));
  return { sets: groupRecords(records), whole, serial, problems, names: walk.names.length, asked };
}

/** Asks all that an exploration wants to know, or until it is enough. Throws a NetError only where cancelled. */
export async function exploreZone(client: DnsClient, server: ServerAddress, exploration: Exploration, options: SurveyOptions = {}): Promise<void> {
  const most = options.inFlight ?? IN_FLIGHT;
  let asked = 0;
  const running = new Set<Promise<void>>();
  while (!exploration.done && !options.isEnough?.()) {
    for (const question of exploration.next(most - running.size)) {
      asked += 1;
      if (asked % 25 === 1) options.onProgress?.(asked, question, exploration.waiting);
      const one: Promise<void> = persistent(client, server, question, options).then(({ answer, why }) => {
        exploration.take(question, answer, why);
        running.delete(one);
      });
      running.add(one);
    }
    if (running.size > 0) await Promise.race(running);
  }
  await Promise.all(running);
}

/** Over UDP, and where nothing comes over TCP: servers that hold back answers to a busy asker do not hold those back. */
async function persistent(client: DnsClient, server: ServerAddress, { name, type }: SurveyQuestion, options: SurveyOptions): Promise<Told> {
  const before = options.known?.({ name, type });
  if (before) return { answer: before };
  const first = await told(client.ask(server, name, type, options));
  if (first.answer) return first;
  const again = await told(client.ask(server, name, type, { ...options, over: 'tcp', tries: 1 }));
  return again.answer || first.why !== 'truncated' ? again : first;
}

/** What came of a question: an answer that says something, or why there is none. */
type Told = { readonly answer: Message; readonly why?: undefined } | { readonly answer?: undefined; readonly why: Unanswered };

async function told(asking: Promise<Message>): Promise<Told> {
  try {
    const answer = await asking;
    return answer.rcode === RCODE.NOERROR || answer.rcode === RCODE.NXDOMAIN ? { answer } : { why: 'refused' };
  } catch (error) {
    if (error instanceof NetError && error.kind !== 'cancelled') return { why: error.kind === 'truncated' ? 'truncated' : 'silent' };
    throw error;
  }
}

/** An answer that says something, or undefined: that nothing came is an observation too. */
async function answered(asking: Promise<Message>): Promise<Message | undefined> {
  return (await told(asking)).answer;
}
