import { Acted, LedgerPage, LedgerView, LegView, MoveSurvey, MoveView, StepView, WatchView, joinedLedger } from '@wanderon/contract';
import { Api, ApiError, until } from '../../../command/src/api';
import { codeWordsOf } from './plainWords';

export function stepOf(move: MoveView, id: string): StepView {
  return move.legs.at(-1)!.steps.find((step) => step.id === id)!;
}

/** Drives one move through the API as a person would; `look` is called between any two things. */
export class Driver {
  constructor(
    readonly api: Api,
    readonly id: string,
    private readonly look: () => Promise<void> = () => Promise.resolve(),
  ) {}

  static async begin(api: Api, domain: string, look?: () => Promise<void>, scope: 'whole' | 'name' = 'whole'): Promise<Driver> {
    const { id } = await api.call<Acted>('POST', '/api/moves', { domain, scope });
    return new Driver(api, id, look);
  }

  /** Calls again while the server is away; what was done already is not an error. */
  async call<T = MoveView>(method: string, path: string, body?: unknown): Promise<T> {
    return until(`${method} ${path} is answered`, async () => {
      await this.look();
      try {
        return await this.api.call<T>(method, path, body);
      } catch (error) {
        if (error instanceof ApiError && error.status !== 503) throw error;
        return undefined; // The server is away, or its database is: a connection was refused or cut.
      }
    });
  }

  /** The move as it stands; throws an Error where it says anything in words of the code: so every state that is driven to is read. */
  async move(): Promise<MoveView> {
    const move = await this.call<MoveView>('GET', `/api/moves/${this.id}`);
    const [found] = codeWordsOf(move);
    if (found !== undefined) throw new Error(`said in words of the code: ${found}`);
    return move;
  }

  /** Something done to the move's current leg, or to the move itself; gives the move's head as it is afterwards. */
  async act(path: string, body?: unknown): Promise<MoveView> {
    if (path === '/close') await this.call('POST', `/api/moves/${this.id}/close`);
    else await this.call(path === '/hosts' ? 'PUT' : 'POST', `${await this.leg()}${path}`, body);
    return this.move();
  }

  /** Nobody looks at it any more; one that has ended is left as it is. */
  async abandoned(): Promise<void> {
    if ((await this.move()).state === 'open') await this.call('DELETE', `/api/moves/${this.id}`);
  }

  /** An act whose time may not have come; undefined where it is refused for now. */
  async tried(path: string, body?: unknown): Promise<MoveView | undefined> {
    try {
      return await this.act(path, body);
    } catch (error) {
      if (!(error instanceof ApiError && error.status === 409)) throw error;
      return undefined;
    }
  }

  /** Lets lines of the gate pass that may be: those of `keys`, or all. Where something else is in the way by now, another time. */
  async letPass(keys?: readonly string[]): Promise<void> {
    const { lines } = (await this.move()).legs.at(-1)!.gate;
    for (const line of lines.filter((one) => one.waivable && !one.passes && (keys?.includes(one.key) ?? true)))
      await this.tried('/waive', { line: line.key, facts: line.facts, reason: 'not the matter of this test' });
  }

  /** Through the gate once it is open, whatever may be let pass: the change is decided. `before`: what is done as the gate stands, each time. */
  async throughGate(before: (gate: LegView['gate']) => void = () => undefined): Promise<void> {
    await this.until(
      'it is decided',
      (move) => move.legs.at(-1)!.seen.ts !== null,
      async () => {
        await this.letPass();
        const { gate } = (await this.move()).legs.at(-1)!;
        before(gate);
        if (gate.open) await this.tried('/submitted');
      },
    );
  }

  /** The id of a host by the beginning of its name. */
  async hostId(name: string): Promise<string> {
    const { hosts } = await this.call<{ hosts: { id: string; name: string }[] }>('GET', '/api/hosts');
    return hosts.find((host) => host.name.startsWith(name))!.id;
  }

  async leg(): Promise<string> {
    return `/api/legs/${(await this.move()).legs.at(-1)!.id}`;
  }

  async survey(): Promise<MoveSurvey> {
    return (await this.call<{ survey: MoveSurvey }>('GET', `${await this.leg()}/survey`)).survey;
  }

  async ledger(): Promise<LedgerView> {
    const leg = await this.leg();
    const pages: LedgerPage[] = [];
    do pages.push(await this.call<LedgerPage>('GET', `${leg}/ledger${pages.length > 0 ? `?after=${pages.at(-1)!.next}` : ''}`));
    while (pages.at(-1)!.next !== null);
    return joinedLedger(pages);
  }

  async watch(): Promise<WatchView> {
    return this.call('GET', `${await this.leg()}/watch`);
  }

  /** Takes a way that a step or a line offers now. */
  async way(step: string, act: string): Promise<MoveView> {
    const leg = (await this.move()).legs.at(-1)!;
    const ways = [...(leg.steps.find((one) => one.id === step)?.ways ?? []), ...(leg.gate.lines.find((one) => one.key === step)?.ways ?? [])];
    const way = ways.find((one) => one.act === act);
    if (!way) throw new Error(`${step} offers no ${act}: ${JSON.stringify(ways)}`);
    return this.act('/ways', { step, act, subject: way.subject });
  }

  /** Waits until the move is as wanted. */
  async until(what: string, holds: (move: MoveView) => boolean, nudge: () => Promise<void> = () => Promise.resolve(), seconds = 180): Promise<MoveView> {
    let last: MoveView | undefined;
    return until(
      () =>
        `${what} (${
          last
            ? JSON.stringify(
                last.legs
                  .at(-1)!
                  .gate.lines.filter((line) => !line.holds)
                  .map((line) => line.text),
              )
            : ''
        })`,
      async () => {
        last = await this.move();
        if (holds(last)) return last;
        await nudge();
        return undefined;
      },
      seconds,
    );
  }

  /** Waits for a step; `nudge` moves time on between two looks. Throws with the step's problem where it failed. */
  async done(kind: string, nudge: () => Promise<void> = () => Promise.resolve(), seconds = 180): Promise<MoveView> {
    let problem = '';
    return until(
      () => `${kind} is done (${problem})`,
      async () => {
        const move = await this.move();
        const step = stepOf(move, kind);
        problem = `${step.state}: ${step.text ?? ''}`;
        // What the registry publishes may be set right yet; an act that stopped is tried again by a person only.
        if (step.state === 'stopped' && step.ways.some((way) => way.act === 'retry')) throw new Error(`${kind} stopped: ${step.text}`);
        if (step.state === 'done' || step.state === 'left') return move;
        await nudge();
        return undefined;
      },
      seconds,
    );
  }
}

/** A condition that itself has to be asked for; what was heard last counts. */
export function asked(ask: () => Promise<boolean>): () => boolean {
  let last = false;
  let asking = false;
  let failed: { readonly error: unknown } | undefined;
  return () => {
    // Whoever asks again hears of it; once the test is over nobody does, and no other file is blamed.
    if (failed) throw failed.error;
    if (!asking) {
      asking = true;
      void ask()
        .then((heard) => (last = heard))
        .catch((error: unknown) => (failed = { error }))
        .finally(() => (asking = false));
    }
    return last;
  };
}
