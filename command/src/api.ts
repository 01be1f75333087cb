/** A signed-in person of Wanderon's API, for the demo's data and the tests. */
export class Api {
  private cookie = '';
  private csrf = '';

  constructor(readonly address: string) {}

  async signIn(login: string, password: string): Promise<this> {
    const response = await fetch(`${this.address}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ login, password }),
    });
    if (!response.ok) throw new Error(`sign-in failed: ${await response.text()}`);
    this.cookie = response.headers.getSetCookie()[0]!.split(';')[0]!;
    this.csrf = ((await this.call('GET', '/api/me')) as { csrf: string }).csrf;
    return this;
  }

  /** The first sign-in of the first administrator, who changes the password that was given. */
  async firstSignIn(login: string, given: string, chosen: string): Promise<this> {
    await this.signIn(login, given);
    await this.call('PUT', '/api/me/password', { current: given, password: chosen });
    return this;
  }

  /** What makes a request this person's. */
  get headers(): Readonly<Record<string, string>> {
    return { cookie: this.cookie, 'x-csrf-token': this.csrf };
  }

  /** Throws an Error with the problem's title where the answer is not good. */
  async call<T = unknown>(method: string, path: string, body?: unknown): Promise<T> {
    const response = await fetch(`${this.address}${path}`, {
      method,
      headers: { ...this.headers, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const text = await response.text();
    if (!response.ok) throw new ApiError(response.status, text);
    return JSON.parse(text) as T;
  }
}

export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly body: string,
  ) {
    super(`${status}: ${body}`);
  }
}

/** Milliseconds between two askings at first and at most: what comes soon is seen soon, and what takes long is not slowed by being asked. */
const PAUSE = { first: 40, most: 400, growth: 1.3 };

/** Asks until the answer is good. `what` is said when it takes too long; `seconds` of real time. */
export async function until<T>(what: string | (() => string), ask: () => Promise<T | undefined | false>, seconds = 120): Promise<T> {
  const end = performance.now() + seconds * 1000;
  for (let pause = PAUSE.first; ; pause = Math.min(PAUSE.most, pause * PAUSE.growth)) {
    const answer = await ask();
    if (answer !== undefined && answer !== false) return answer;
    if (performance.now() > end) throw new Error(`waited ${seconds} s in vain until ${typeof what === 'string' ? what : what()}`);
    await new Promise((resolve) => setTimeout(resolve, pause));
  }
}
