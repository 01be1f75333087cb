import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MoveSummary } from '@wanderon/contract';
import { Page } from 'puppeteer-core';
import { Api } from '../../../command/src/api';
import { Demo, openDemo } from '../../../command/src/demo';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { CURRENT_ROW, Chromium, button, picture, signIn, words } from '../support/browser';

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

/** Every main view of the demo, by day and night, looked at by axe and by its own words. */
describe('the views', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-views-'));
  chmodSync(folder, 0o711);
  const chromium = new Chromium();
  let demo: Demo;
  let page: Page;
  let moves: MoveSummary[];

  beforeAll(async () => {
    demo = await openDemo({ data: folder, quiet: true, port: 0 }, () => undefined);
    const api = await new Api(demo.address).signIn('technician', DEMO_PASSWORD);
    moves = (await api.call<{ moves: MoveSummary[] }>('GET', '/api/moves')).moves;
    sweep = `/moves/sweeps/${(await api.call<{ sweeps: { id: string }[] }>('GET', '/api/sweeps')).sweeps[0]!.id}`;
    await chromium.open();
    page = await chromium.page();
  });
  afterAll(async () => {
    await chromium.close();
    await demo?.stop();
    rmSync(folder, { recursive: true, force: true });
  });

  let sweep = '';
  const moveOf = (start: string): string => `/moves/${moves.find((move) => move.shown.startsWith(start))!.id}`;

  async function faults(): Promise<string[]> {
    await page.evaluate(AXE);
    return page.evaluate(async () => {
      const { axe } = window as unknown as {
        axe: { run(options: object): Promise<{ violations: { id: string; nodes: { html: string; failureSummary?: string }[] }[] }> };
      };
      const { violations } = await axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] });
      return violations.flatMap((violation) =>
        violation.nodes.slice(0, 3).map((node) => `${violation.id}: ${node.html.slice(0, 160)} ${node.failureSummary ?? ''}`),
      );
    });
  }

  it('sign-in takes nobody with a wrong password', async () => {
    await page.goto(demo.address);
    await words(page, 'Sign in');
    await picture(page, 'sign-in');
    expect(await faults()).toEqual([]);
    await page.locator(button('Sign in')).click();
    await words(page, 'Type your login.');
    await page.locator('input[autocomplete=username]').fill('technician');
    await page.locator('input[type=password]').fill('wrong');
    await page.locator(button('Sign in')).click();
    await words(page, 'Login or password is wrong.');
    await signIn(page, demo.address, 'technician');
  });

  it.each<[string, () => string, string | RegExp]>([
    ['desk', () => '/', 'Choose where it goes'],
    ['moves', () => '/moves', 'allotment-society.example'],
    ['hosts', () => '/hosts', 'Quillmere DNS'],
    ['sweeps', () => '/moves/sweeps', 'Before the spring moves'],
    ['sweep', () => sweep, 'is not delegated'],
    ['survey', () => `${moveOf('crèm')}/survey`, 'The inventory is whole'],
    ['survey-closed', () => `${moveOf('seed')}/survey`, 'nameservers cannot be changed'],
    ['choose', () => `${moveOf('allot')}/rebuild`, 'Choose the way allotment-society.example goes'],
    ['rebuild', () => `${moveOf('canoe')}/rebuild`, /carried, \d+ repointed/],
    ['timetable', () => `${moveOf('gull')}/timetable`, 'Earliest sound switch'],
    ['switch', () => `${moveOf('gull')}/switch`, 'to exactly these 3'],
    ['sheet', () => `${moveOf('scores')}/sheet`, 'of 2 rows are ticked'],
    ['in-place', () => `${moveOf('scores')}/switch`, 'Change the records now'],
    ['watch', () => `${moveOf('crèm')}/watch`, /answers are new/],
    ['trail', () => `${moveOf('crèm')}/trail`, 'The nameservers were changed|The change of nameservers was submitted'],
  ])('%s holds what it should and nothing that axe objects to, by day and by night', async (name, path, text) => {
    await page.evaluate(() => localStorage.setItem('wanderon.theme', 'day'));
    await page.goto(`${demo.address}${path()}`);
    await words(page, text instanceof RegExp ? text : new RegExp(text));
    // The sheet's picture is the one with a slip, of the path.
    if (name !== 'sweeps' && name !== 'sheet') await picture(page, name);
    expect(await faults()).toEqual([]);
    await page.evaluate(() => localStorage.setItem('wanderon.theme', 'night'));
    await page.reload();
    await words(page, text instanceof RegExp ? text : new RegExp(text));
    if (name === 'rebuild') await picture(page, 'rebuild-night');
    expect(await faults()).toEqual([]);
  });

  it('a zone of 300 record sets is chosen for and scrolled to its end', async () => {
    await page.evaluate(() => localStorage.setItem('wanderon.theme', 'day'));
    await page.goto(`${demo.address}${moveOf('allot')}/rebuild`);
    await page.locator('::-p-text(Quillmere DNS)').click();
    await page.locator('::-p-text(Thornwick Web)').click();
    await page.locator(button('Propose the rulings')).click();
    await words(page, /\d{3} carried/);
    const rows = (): Promise<number> => page.evaluate(() => document.querySelectorAll('[data-index]').length);
    expect(await rows()).toBeLessThan(80);
    await page.locator('input[aria-label="Filter the ledger"]').fill('plot-290');
    await words(page, 'plot-290');
    expect(await rows()).toBe(1);
    await page.locator('input[aria-label="Filter the ledger"]').fill('');
    for (let i = 0; i < 400 && !(await page.evaluate(() => /plot-290/.test(document.body.innerText))); i++) {
      await page.keyboard.press('Escape');
      await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
      await page.keyboard.press('j');
    }
    await words(page, 'plot-290');
    expect(await rows()).toBeLessThan(80);
  });

  it('a viewer sees everything and is offered no change', async () => {
    await page.goto(demo.address);
    await page.evaluate(async () => {
      const me = (await (await fetch('/api/me')).json()) as { csrf: string };
      await fetch('/api/sign-out', { method: 'POST', headers: { 'x-csrf-token': me.csrf } });
    });
    await signIn(page, demo.address, 'viewer');
    await words(page, 'canoe-yard.example');
    expect(await page.$('input[name=domain]')).toBeNull();
    await page.goto(`${demo.address}${moveOf('canoe')}/rebuild`);
    await words(page, /carried, \d+ repointed/);
    expect(await page.$(button('Push'))).toBeNull();
    await page.waitForSelector(CURRENT_ROW);
    await page.keyboard.press('d');
    await page.goto(`${demo.address}${moveOf('canoe')}/timetable`);
    await words(page, 'Earliest sound switch');
    expect(await page.$(button('Approve, lower now'))).toBeNull();
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

  it('had nothing to complain of', () => expect(chromium.complaints).toEqual([]));
});
