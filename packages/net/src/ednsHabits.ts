import { Message, RCODE } from '@wanderon/core';

/** Milliseconds for which a server that took no EDNS is asked without: one lost packet is forgotten soon. */
const REMEMBERED = 600_000;
/** Servers that are remembered. */
const MOST = 10_000;

/** Whether servers take EDNS (RFC 6891 §7): one that refuses it, or says nothing to it and answers without, is asked without for a while. */
export class EdnsHabits {
  private readonly without = new Map<string, number>();
  private readonly known = new Set<string>();

  /** `now` in milliseconds of any clock that does not go back. */
  constructor(private readonly now: () => number) {}

  /** The question as this server is to be asked. One that needs EDNS, for signatures, goes with it whatever happens. */
  asked(server: string, request: Message): Message {
    const until = this.without.get(server);
    if (until === undefined || !mayLose(request)) return request;
    if (until > this.now()) return bare(request);
    this.without.delete(server);
    return request;
  }

  /** The question once more without EDNS, where that may be what the server stumbles over; undefined where it is not. */
  again(server: string, request: Message, answer: Message | undefined): Message | undefined {
    if (!mayLose(request)) return undefined;
    if (answer ? !REFUSES.has(answer.rcode) || answer.edns !== undefined : this.known.has(server)) return undefined;
    return bare(request);
  }

  /** What came of a question that went out with EDNS, or of one `again` without. */
  learn(server: string, answer: Message, wasAgain: boolean): void {
    if (this.without.size + this.known.size >= MOST) {
      this.without.clear();
      this.known.clear();
    }
    if (wasAgain && !REFUSES.has(answer.rcode)) this.without.set(server, this.now() + REMEMBERED);
    else if (answer.edns !== undefined) this.known.add(server);
  }
}

/** Answers of servers that know nothing of EDNS. */
const REFUSES: ReadonlySet<number> = new Set([RCODE.FORMERR, RCODE.NOTIMP, RCODE.SERVFAIL]);

function mayLose(request: Message): boolean {
  return request.edns !== undefined && !request.edns.dnssecOk;
}

function bare(request: Message): Message {
  return { ...request, edns: undefined };
}
