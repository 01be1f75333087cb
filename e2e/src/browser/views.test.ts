import { readFileSync } from 'node:fs';
import { Host, LedgerView, MoveSummary } from '@wanderon/contract';
import { Name, ledgerGroups } from '@wanderon/core';
import { KeyInput, Page } from 'puppeteer-core';
import { Api, until } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { button, closeDialog, CURRENT_ROW, goesTo, picture, press, pressKey, signIn, words } from '../support/browser';
import { codeWordsIn } from '../support/plainWords';
import { codeAt } from '../support/totp';
import { DemoUnderTest } from '../support/demoUnderTest';

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

/** Looked at by axe, and not kept as pictures. */
const UNPICTURED: ReadonlySet<string> = new Set(['sweeps', 'two-legs', 'host-change', 'registrar-change', 'side-by-side', 'survey-closed', 'resolvers']);

/** Every main view of the demo, by day and night, looked at by axe and by its own words. */
describe('the views', () => {
  const demo = new DemoUnderTest();
  let page: Page;
  let moves: MoveSummary[];
  let api: Api;

  beforeAll(async () => {
    await demo.open({ bare: false });
    api = await new Api(demo.address).signIn('technician', DEMO_PASSWORD);
    moves = (await api.call<{ moves: MoveSummary[] }>('GET', '/api/moves')).moves;
    hosts = (await api.call<{ hosts: Host[] }>('GET', '/api/hosts')).hosts;
    sweep = `/moves/sweeps/${(await api.call<{ sweeps: { id: string }[] }>('GET', '/api/sweeps')).sweeps[0]!.id}`;
    page = await demo.chromium.page();
  });
  afterAll(() => demo.close());

  let sweep = '';
  let hosts: Host[] = [];
  const hostOf = (start: string): string => `/hosts/${hosts.find((host) => host.name.startsWith(start))!.id}`;
  const moveOf = (start: string): string => `/moves/${moves.find((move) => move.shown.startsWith(start))!.id}`;

  /** By the menu of the person; all but the colours stays as it was. */
  async function dayOrNight(): Promise<void> {
    const before = await page.evaluate(() => document.documentElement.dataset['theme']);
    await (await page.$('header [aria-haspopup=menu]'))!.press('Enter');
    await page.locator('::-p-aria([name="Day or night"][role="menuitem"])').click();
    await page.waitForFunction((theme) => document.documentElement.dataset['theme'] !== theme && !document.querySelector('[role=menu]'), {}, before);
  }

  /** Words that are for the code, formulas, ids and long counts of seconds, as far as the page shows any, each with what stands around it. */
  async function codeWords(): Promise<string[]> {
    return codeWordsIn(await page.evaluate(() => document.body.innerText));
  }

  /** What axe objects to, by these rules or by all of WCAG 2.2 AA. */
  async function faults(rules: readonly string[] = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']): Promise<string[]> {
    await page.evaluate(AXE);
    return page.evaluate(async (runOnly) => {
      const { axe } = window as unknown as {
        axe: { run(options: object): Promise<{ violations: { id: string; nodes: { html: string; failureSummary?: string }[] }[] }> };
      };
      const { violations } = await axe.run({ runOnly, preload: false });
      return violations.flatMap((violation) =>
        violation.nodes.slice(0, 3).map((node) => `${violation.id}: ${node.html.slice(0, 160)} ${node.failureSummary ?? ''}`),
      );
    }, rules);
  }

  it('sign-in takes nobody with a wrong password', async () => {
    await page.goto(demo.address);
    await words(page, 'Sign in');
    expect(await faults()).toEqual([]);
    await page.locator(button('Sign in')).click();
    await words(page, 'Type your login.');
    await page.locator('input[autocomplete=username]').fill('technician');
    await page.locator('input[type=password]').fill('wrong');
    await press(page, 'Show password');
    expect(await page.$eval('input[autocomplete=current-password]', (field) => [field.getAttribute('type'), (field as HTMLInputElement).value])).toEqual([
      'text',
      'wrong',
    ]);
    await press(page, 'Hide password');
    await page.waitForSelector('input[type=password]');
    expect(await faults()).toEqual([]);
    await page.locator(button('Sign in')).click();
    await words(page, 'Login or password is wrong.');
    await signIn(page, demo.address, 'technician');
  });

  const signOut = async (): Promise<void> => {
    await page.goto(demo.address);
    await page.evaluate(async () => {
      const me = (await (await fetch('/api/me')).json()) as { csrf: string };
      await fetch('/api/sign-out', { method: 'POST', headers: { 'x-csrf-token': me.csrf } });
    });
  };

  it.each<[string, () => string, string | RegExp]>([
    ['desk', () => '/', 'Choose where it goes'],
    ['moves', () => '/moves', 'allotment-society.example'],
    ['hosts', () => '/hosts', 'Quillmere DNS'],
    ['host', () => hostOf('Larkspur'), 'Its own check says'],
    ['host-change', () => `${hostOf('Larkspur')}/change`, 'Each becomes a step of every move'],
    ['registrar-change', () => `${hostOf('Harbourlight')}/change`, 'Names are typed'],
    ['resolvers', () => '/resolvers', /answers in \d+ ms/],
    ['sweeps', () => '/moves/sweeps', 'Before the spring moves'],
    ['sweep', () => sweep, 'is not delegated'],
    ['survey', () => `${moveOf('crèm')}/survey`, 'The inventory is complete'],
    ['survey-closed', () => `${moveOf('seed')}/survey`, 'nameservers cannot be changed'],
    ['choose', () => `${moveOf('allot')}/rebuild`, 'Nothing was given yet'],
    ['rebuild', () => `${moveOf('canoe')}/rebuild`, /kept, \d+ changed/],
    ['side-by-side', () => `${moveOf('gull')}/compare?a=found&b=plan`, /\d+ record sets of \d+ otherwise/],
    ['asked', () => `${moveOf('canoe')}/asked`, 'still asks for 3 things'],
    ['timetable', () => `${moveOf('gull')}/timetable`, 'Safe to switch from'],
    ['switch', () => `${moveOf('gull')}/switch`, 'to exactly these 3'],
    ['sheet', () => `${moveOf('seed')}/sheet`, /7 of \d+ rows are ticked[^]*the panel appended the domain to a name that was typed whole/],
    ['two-legs', () => `${moveOf('regatta')}/rebuild`, 'First of two stages'],
    ['in-place', () => `${moveOf('scores')}/switch`, 'Change the records now'],
    ['watch', () => `${moveOf('crèm')}/watch`, /answers are new/],
    ['trail', () => `${moveOf('crèm')}/trail`, 'The nameservers were changed|The change of nameservers was submitted'],
  ])('%s holds what it should and nothing that axe objects to, by day and by night', async (name, path, text) => {
    await page.evaluate(() => localStorage.setItem('wanderon.theme', 'day'));
    await page.goto(`${demo.address}${path()}`);
    await words(page, text instanceof RegExp ? text : new RegExp(text));
    if (!UNPICTURED.has(name)) await picture(page, name);
    expect(await codeWords()).toEqual([]);
    expect(await faults()).toEqual([]);
    await dayOrNight();
    if (name === 'rebuild') await picture(page, 'rebuild-night');
    expect(await faults(['color-contrast', 'link-in-text-block'])).toEqual([]);
  });

  it('a sheet is given to somebody by a link, which opens nothing else; axe objects to neither, by day and by night', async () => {
    for (const theme of ['day', 'night']) {
      await page.evaluate((name) => localStorage.setItem('wanderon.theme', name), theme);
      await page.goto(`${demo.address}${moveOf('seed')}/sheet`);
      await press(page, 'Give it to somebody');
      await press(page, 'Make a link');
      await words(page, /\/sheet\/[\w-]{43}/);
      expect(await faults()).toEqual([]);
      const link = /http\S+\/sheet\/[\w-]{43}/.exec(await page.evaluate(() => document.body.innerText))![0];
      await page.goto(link);
      await words(page, 'Handover sheet: seed-library.example at Driftwood Zones');
      expect(await faults()).toEqual([]);
    }
  });

  it('a zone of 300 record sets is chosen for and scrolled to its end', async () => {
    await page.evaluate(() => localStorage.setItem('wanderon.theme', 'day'));
    await page.goto(`${demo.address}${moveOf('allot')}/rebuild`);
    await goesTo(page, { dns: 'Quillmere DNS', web: 'Thornwick Web' });
    await words(page, /\d{3} kept/);
    const rows = (): Promise<number> => page.evaluate(() => document.querySelectorAll('[data-row]').length);
    expect(await rows()).toBeLessThan(80);
    await page.locator('input[aria-label="Filter the plan"]').fill('plot-290');
    await words(page, 'plot-290');
    expect(await rows()).toBe(1);
    await page.locator('input[aria-label="Filter the plan"]').fill('');
    await page.waitForFunction(() => !/plot-290/.test(document.body.innerText));
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await page.keyboard.press('j');
    for (let i = 0; i < 40 && !(await page.evaluate(() => /plot-290/.test(document.body.innerText))); i++) await page.keyboard.press('PageDown');
    await words(page, 'plot-290');
    expect(await rows()).toBeLessThan(80);
    // What leads to some addresses is found, marked as a whole, ruled by one key, and taken back by one.
    await page.locator('input[aria-label="Filter the plan"]').fill('192.0.2.0/24');
    await page.waitForFunction(() => !document.querySelector('[aria-label=Ledger]')!.textContent.includes('Website'));
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    const shown = (): Promise<string> => page.evaluate(() => document.body.innerText);
    // A rule for all of them, as it is previewed with what the checks would say.
    await pressKey(page, 'R', /Everything like/);
    await page.locator('[role=dialog] [role=radiogroup] label:nth-of-type(3) input').click();
    await words(page, /\d+ rows change/);
    expect(await faults()).toEqual([]);
    await closeDialog(page);
    const counted = /(\d+) kept, (\d+) changed, (\d+) left out/
      .exec(await shown())!
      .slice(1)
      .map(Number) as [number, number, number];
    await pressKey(page, 'X', /\d+ marked/);
    const many = Number(/(\d+) marked/.exec(await shown())![1]);
    expect(many).toBeGreaterThan(50);
    await page.keyboard.press('d');
    await words(page, `${counted[0] - many} kept, ${counted[1]} changed, ${counted[2] + many} left out`);
    await page.keyboard.press('u');
    await words(page, `${counted[0]} kept, ${counted[1]} changed, ${counted[2]} left out`);
  });

  it('a zone of 300 record sets goes from its proposals to pushed by keys alone, hardly more than one a set', async () => {
    await demo.at('/quillmere', { name: 'allotment-society.example' });
    await page.goto(`${demo.address}${moveOf('allot')}/rebuild`);
    await page.waitForSelector(CURRENT_ROW);
    await page.waitForFunction(() => !document.body.innerText.includes('rows are read'));
    // What is proposed to change is passed, all else is kept, row by row in the order of the page.
    const { leg, domain } = moves.find((move) => move.shown.startsWith('allot'))!;
    const { rulings, purposes } = await api.call<LedgerView>('GET', `/api/legs/${leg}/ledger`);
    const zone = Name.parse(`${domain}.`);
    const rows = ledgerGroups(zone, rulings, purposes).flatMap((group) => (group.hostsOwn ? [] : group.rows));
    const keys: KeyInput[] = [...rows.map((row): KeyInput => (row.ruling === 'carry' ? 'c' : 'j')), 'p', 'Enter'];
    for (const key of keys.slice(0, -1)) await page.keyboard.press(key);
    await words(page, /Push \d+ record sets to Quillmere DNS/);
    await page.keyboard.press('Enter');
    await words(page, /The new zone is being pushed|new servers serve the plan/);
    await until('the zone is at its new host', async () => (await demo.zones.at('quillmere', zone)).length > 300);
    expect(rows.length).toBeGreaterThanOrEqual(300);
    expect(keys.length / rows.length).toBeLessThan(1.2);
    // Each of them was decided by this person.
    const after = await api.call<LedgerView>('GET', `/api/legs/${leg}/ledger`);
    const carried = after.rulings.filter((row) => row.ruling === 'carry');
    expect([carried.length, carried.filter((row) => row.decidedBy === null).length]).toEqual([rows.filter((row) => row.ruling === 'carry').length, 0]);
  });

  it('a viewer sees everything and is offered no change', async () => {
    await signOut();
    await signIn(page, demo.address, 'viewer');
    await words(page, 'canoe-yard.example');
    expect(await page.$('input[name=domain]')).toBeNull();
    await page.goto(`${demo.address}${moveOf('canoe')}/rebuild`);
    await words(page, /kept, \d+ changed/);
    expect(await page.$(button('Push'))).toBeNull();
    await page.waitForSelector(CURRENT_ROW);
    await page.keyboard.press('d');
    await page.goto(`${demo.address}${moveOf('canoe')}/timetable`);
    await words(page, 'Safe to switch from');
    expect(await page.$(button('Approve, lower now'))).toBeNull();
  });

  it('an administrator adds a person, who chooses a password, sets up a second factor and signs in with it', async () => {
    await page.setViewport({ width: 1280, height: 800 });
    await signOut();
    await signIn(page, demo.address, 'admin');
    await page.goto(`${demo.address}/people`);
    await words(page, /Administrator \(you\)[^]*technician/);
    await picture(page, 'people');
    await press(page, 'Add a person');
    const field = (label: string) => page.locator(`::-p-aria([name="${label}"][role="textbox"])`);
    await field('Name').fill('Deckhand');
    await field('Login').fill('deckhand');
    await field('First password').fill('wanderon-2026');
    await press(page, 'Add');
    await words(page, 'hardly more than the name of this program');
    await field('First password').fill('a first password of theirs');
    expect(await faults()).toEqual([]);
    await press(page, 'Add');
    await words(page, 'Deckhand can sign in as deckhand');
    await press(page, 'Change Deckhand');
    await page.locator('::-p-text(Ask for a second factor)').click();
    expect(await faults()).toEqual([]);
    await press(page, 'Save');
    await words(page, 'asked for, not set up yet');
    await page.goto(`${demo.address}/trail`);
    await words(page, 'Deckhand (deckhand): a second factor is asked for.');
    expect(await faults()).toEqual([]);

    await signOut();
    const own = 'a tide table and a chart';
    const enter = async (password: string): Promise<void> => {
      await page.goto(demo.address);
      await page.locator('input[autocomplete=username]').fill('deckhand');
      await page.locator('input[type=password]').fill(password);
      await press(page, 'Sign in');
    };
    await enter('a first password of theirs');
    await words(page, 'Choose a password of your own');
    expect(await faults()).toEqual([]);
    await page.locator('input[autocomplete=current-password]').fill('a first password of theirs');
    for (const input of await page.$$('input[autocomplete=new-password]')) await input.type(own);
    await press(page, 'Change the password');
    await words(page, 'Set up a second factor');
    await page.locator('input[autocomplete=current-password]').fill(own);
    await press(page, 'Set one up');
    await words(page, 'Secret, if the picture cannot be taken');
    const secret = /cannot be taken\s+((?:[A-Z2-7]{4} ?){8})/.exec(await page.evaluate(() => document.body.innerText))![1]!.replaceAll(' ', '');
    // The code before the one of now, so that the next one is new: it is good until the half minute is over.
    await page.waitForFunction(() => Date.now() % 30_000 < 24_000);
    await page.locator('input[autocomplete=one-time-code]').fill(codeAt(secret, Date.now() / 1000 - 30));
    await press(page, 'Use this from now on');
    await words(page, 'each opens the account once');
    expect(await faults()).toEqual([]);
    await press(page, 'I have kept them');
    await page.waitForSelector('nav[aria-label=Places]');
    await page.goto(`${demo.address}/account`);
    await words(page, /There is one[^]*this one/);
    expect(await faults()).toEqual([]);

    await signOut();
    await enter(own);
    await words(page, 'What your app for codes shows now');
    await page.locator('input[autocomplete=one-time-code]').fill(codeAt(secret, Date.now() / 1000));
    await press(page, 'Sign in');
    await page.waitForSelector('nav[aria-label=Places]');
    await signOut();
    await signIn(page, demo.address, 'technician');
  });

  it('is readable on a phone', async () => {
    await page.setViewport({ width: 390, height: 844 });
    for (const path of ['/', `${moveOf('crèm')}/survey`, sweep, `${moveOf('crèm')}/watch`]) {
      await page.goto(`${demo.address}${path}`);
      await words(page, 'crèmerie');
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    }
    await picture(page, 'watch-phone');
  });

  it('had nothing to complain of', () => expect(demo.chromium.complaints).toEqual([]));
});
