type Arrival = typeof import('./arrival').arrival;

describe('when an answer came', () => {
  let arrival: Arrival;
  /** When the browser noted answers, in milliseconds. */
  let noted: number[];
  let now: number;
  beforeEach(() => {
    jest.isolateModules(() => ({ arrival } = jest.requireActual<{ arrival: Arrival }>('./arrival')));
    noted = [];
    Object.assign(globalThis, { window: { location: { href: 'https://wanderon.example/moves/1' } } });
    jest.spyOn(performance, 'now').mockImplementation(() => now);
    jest
      .spyOn(performance, 'getEntriesByName')
      .mockImplementation((name) => (name === 'https://wanderon.example/api/clock' ? noted.map((responseEnd) => ({ responseEnd }) as never) : []));
  });
  afterEach(() => jest.restoreAllMocks());

  it('is when the browser had it, not when the page came to read it', () => {
    noted = [60];
    now = 150;
    expect(arrival('/api/clock', 90)).toBe(60);
    [noted, now] = [[60, 30_020], 30_300];
    expect(arrival('/api/clock', 30_000)).toBe(30_020);
  });

  it('is now where the browser notes no more answers', () => {
    noted = [60];
    now = 150;
    arrival('/api/clock', 90);
    now = 30_300;
    expect(arrival('/api/clock', 30_000)).toBe(30_300);
  });

  it('is now where the browser notes it late', () => {
    now = 150;
    expect(arrival('/api/clock', 90)).toBe(150);
  });
});
