import { WebPanel } from './webPanel';

const AT = ['203.0.113.90'];

describe('a web host that asks for a token', () => {
  const world = { now: 0, texts: [] as string[], addresses: [] as string[] };
  const panel = new WebPanel(
    'seed',
    () => world.now,
    (_owner, type) => Promise.resolve(type === 'TXT' ? world.texts : world.addresses),
  );

  it('knows no domain that was not added, and has a token for each', async () => {
    expect(panel.stateOf('choir.example.')).toBe('unknown');
    await expect(panel.check('choir.example.', AT)).rejects.toThrow('choir.example. was not added');
    panel.add('choir.example.');
    expect(panel.stateOf('choir.example.')).toBe('waiting');
    expect(panel.tokenOf('choir.example.')).not.toBe(panel.tokenOf('canoe.example.'));
  });

  it('takes it for proved once its own token is there, and says “connected” late', async () => {
    world.texts = [`"${panel.tokenOf('canoe.example.')}"`];
    await panel.check('choir.example.', AT);
    expect(panel.stateOf('choir.example.')).toBe('waiting');
    world.texts.push(`"${panel.tokenOf('choir.example.')}"`);
    await panel.check('choir.example.', AT);
    expect(panel.stateOf('choir.example.')).toBe('not connected');
    world.addresses = AT;
    await panel.check('choir.example.', AT);
    world.now = 899;
    expect(panel.stateOf('choir.example.')).toBe('not connected');
    world.now = 900;
    expect(panel.stateOf('choir.example.')).toBe('connected');
    world.addresses = ['192.0.2.1'];
    await panel.check('choir.example.', AT);
    expect(panel.stateOf('choir.example.')).toBe('not connected');
  });

  it('is the same after a start', () => {
    const again = new WebPanel(
      'seed',
      () => world.now,
      () => Promise.resolve([]),
    );
    again.load(JSON.parse(JSON.stringify(panel.saved())) as ReturnType<WebPanel['saved']>);
    expect([again.knows('choir.example.'), again.stateOf('choir.example.')]).toEqual([true, 'not connected']);
    expect(again.page('choir.example.', AT)).toContain(again.tokenOf('choir.example.'));
  });
});
