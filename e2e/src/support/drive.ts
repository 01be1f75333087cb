import { MoveView, StepView } from '@wanderon/contract';
import { Api, ApiError, until } from '../../../command/src/api';

export type StepKind = StepView['kind'];

export function stepOf(move: MoveView, kind: StepKind): StepView {
  return move.legs[0]!.steps.find((step) => step.kind === kind)!;
}

/** Drives one move through the API as a person would; `look` is called between any two things. */
export class Driver {
  constructor(
    readonly api: Api,
    readonly id: string,
    private readonly look: () => Promise<void> = () => Promise.resolve(),
  ) {}

  static async begin(api: Api, domain: string, look?: () => Promise<void>): Promise<Driver> {
    const { id } = await api.call<MoveView>('POST', '/api/moves', { domain, scope: 'whole' });
    return new Driver(api, id, look);
  }

  /** Calls again while the server is away; what was done already is not an error. */
  async call<T = MoveView>(method: string, path: string, body?: unknown): Promise<T> {
    return until(`${method} ${path} is answered`, async () => {
      await this.look();
      try {
        return await this.api.call<T>(method, path, body);
      } catch (error) {
        if (error instanceof ApiError) throw error;
        return undefined; // The server is away: a connection was refused or cut.
      }
    });
  }

  move(): Promise<MoveView> {
    return this.call('GET', `/api/moves/${this.id}`);
  }

  act(path: string, body?: unknown): Promise<MoveView> {
    return this.call(path === '/hosts' ? 'PUT' : 'POST', `/api/moves/${this.id}${path}`, body);
  }

  /** Waits for a step; `nudge` moves time on between two looks. Throws with the step's problem where it failed. */
  async done(kind: StepKind, nudge: () => Promise<void> = () => Promise.resolve(), seconds = 90): Promise<MoveView> {
    let problem = '';
    return until(
      () => `${kind} is done (${problem})`,
      async () => {
        const move = await this.move();
        const step = stepOf(move, kind);
        problem = step.problem ?? step.state;
        if (step.state === 'failed') throw new Error(`${kind} failed: ${step.problem}`);
        if (step.state === 'done') return move;
        await nudge();
        return undefined;
      },
      seconds,
    );
  }
}
