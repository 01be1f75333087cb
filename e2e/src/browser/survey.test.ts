import { MoveSurvey, MoveView } from '@wanderon/contract';
import { ScenarioDomain } from '@wanderon/lab';
import { Page } from 'puppeteer-core';
import { until } from '../../../command/src/api';
import { Chromium, button, field, link, paste, signIn, words } from '../support/browser';
import { World, openWorld } from '../support/world';

const LARGE: ScenarioDomain = {
  zone: 'tidal-atlas.example.',
  client: 'Tidal atlas',
  extra: Array.from({ length: 5000 }, (_, i) => `gauge-${String(i).padStart(4, '0')}.station A 192.0.2.${i % 250}`),
};
/** What somebody might put into a zone to do harm where it is shown. */
const HOSTILE: ScenarioDomain = {
  zone: 'wrecker.example.',
  client: 'Wrecker',
  extra: [
    'evil TXT "<img src=x onerror=window.harmed=1><script>window.harmed=1</script>"',
    '\\<script\\>window.harmed=1\\</script\\> TXT x',
    'formula TXT "=HYPERLINK(\\"https://away.test\\")"',
    'long TXT "' + 'a'.repeat(255) + '" "' + 'b'.repeat(255) + '"',
    'turned TXT "\\226\\128\\174 backwards"',
  ],
};

describe('the survey chapter', () => {
  const chromium = new Chromium();
  let world: World;
  let page: Page;

  beforeAll(async () => {
    // Slow enough for a survey by questions to be watched.
    world = await openWorld({ more: [LARGE, HOSTILE] }, { WANDERON_QUESTIONS_PER_SECOND: '250' });
    await chromium.open();
    page = await chromium.page();
    await signIn(page, world.server.address, 'technician');
  });
  afterAll(async () => {
    await chromium.close();
    await world.close();
  });

  const begin = async (domain: string): Promise<string> => (await world.api.call<MoveView>('POST', '/api/moves', { domain, scope: 'whole' })).id;
  const surveyOf = async (id: string): Promise<MoveSurvey | null> => {
    const { legs } = await world.api.call<MoveView>('GET', `/api/moves/${id}`);
    return (await world.api.call<{ survey: MoveSurvey | null }>('GET', `/api/legs/${legs[0]!.id}/survey`)).survey;
  };
  const surveyed = (id: string): Promise<MoveSurvey> => until('the survey is taken', async () => (await surveyOf(id)) ?? undefined, 120);
  const lines = (): Promise<number> => page.evaluate(() => document.querySelectorAll('[data-index]').length);
  const text = (): Promise<string> => page.evaluate(() => document.body.innerText);
  const press = async (...keys: string[]): Promise<void> => {
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    for (const key of keys) await page.keyboard.press(key as 'j');
  };

  it('shows what is being asked, and stops when told to; then it is taken again', async () => {
    const id = await begin('seed-library.example');
    await page.goto(`${world.server.address}/moves/${id}/survey`);
    await words(page, /Asking dns-a\.pebbledock\.example\.: \S+\.seed-library\.example/);
    await words(page, /\d+ asked, \d+ known to be left/);
    await page.locator(button('Stop')).click();
    await words(page, 'It was stopped');
    expect(await surveyOf(id)).toBeNull();
    await page.locator(button('Try again')).click();
    await words(page, /The survey is being taken/);
  });

  it('tells what is stored from what is answered, takes the value from the panel and a purpose from the person', async () => {
    const id = await begin('regatta-club.example');
    await surveyed(id);
    await page.goto(`${world.server.address}/moves/${id}/survey`);
    await words(page, /what it stores is not known/);
    await words(page, 'answered by the host: what is stored is not known');
    await press('j', 'Enter');
    await words(page, /is an address of Brackenfold DNS's own front/);
    await page.locator(field('The panel of its host shows')).fill('not-an-address');
    await page.locator(button('Save')).click();
    await words(page, /"not-an-address" is not an IPv4 address|not-an-address/);
    await page.locator(field('The panel of its host shows')).fill('198.51.100.80');
    await page.locator(button('Save')).click();
    await words(page, /stored: 198\.51\.100\.80/);
    await page.select('select[aria-label="What regatta-club.example. A is for"]', 'infrastructure');
    await words(page, 'as you said');
    await page.select('select[aria-label="Which names are shown"]', 'what needs a look');
    await until('only what varies or is unknown is shown', async () => !(await text()).includes('mx1.brinepost.example'));
  });

  it('draws a zone of 5,000 record sets a screen at a time, folds, filters, and reaches its end', async () => {
    const id = await begin('tidal-atlas.example');
    await surveyed(id);
    await page.goto(`${world.server.address}/moves/${id}/survey`);
    await words(page, /501\d record sets/);
    expect(await lines()).toBeLessThan(80);
    for (const part of [0.25, 0.5, 0.75, 1]) {
      await page.evaluate((to) => {
        const box = document.querySelector('[data-scrolls]')!;
        box.scrollTop = to * box.scrollHeight;
      }, part);
      await until('the rows are drawn', async () => /gauge-\d{4}/.test(await text()));
      expect(await lines()).toBeLessThan(80);
    }
    await words(page, 'gauge-4999');
    const filter = await page.waitForSelector('input[aria-label="Filter names"]');
    await press('/');
    await filter!.type('gauge-2500');
    await words(page, 'gauge-2500');
    await until('one is left', async () => !(await text()).includes('gauge-2501'));
    await page.keyboard.press('Escape');
    await until('the filter is empty', () => filter!.evaluate((one) => (one as HTMLInputElement).value === ''));
    // Only what is on the screen is drawn, and what folds stands at the top.
    await page.evaluate(() => (document.querySelector('[data-scrolls]')!.scrollTop = 0));
    await page.locator('button[aria-label="Hide the names below station"]').click();
    await until('they are folded away', async () => !(await text()).includes('gauge-0001'));
    await page.locator('button[aria-label="Show the names below station"]').click();
    await words(page, 'gauge-0001');
  });

  it('shows hostile names and data as text', async () => {
    const id = await begin('wrecker.example');
    await surveyed(id);
    await page.goto(`${world.server.address}/moves/${id}/survey`);
    await words(page, /onerror=window\.harmed=1/);
    expect(
      await page.evaluate(() => [
        (window as unknown as { harmed?: number }).harmed ?? null,
        document.querySelector('img[src=x]'),
        document.querySelectorAll('main script').length,
      ]),
    ).toEqual([null, null, 0]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  });

  it('sweeps many domains: a pasted list, what is asked now, a pause, the riskiest first, and on to a move', async () => {
    await page.goto(`${world.server.address}/moves`);
    await page.locator(link('Survey many domains')).click();
    await paste(page, 'Survey many domains', 'canoe-yard.example\nhttps://www.gull-radio.example/\n192.0.2.1\nmislaid-lantern.example\nregatta-club.example\n');
    await words(page, /4 domains · 1 line cannot be read and is left out/);
    await page.locator(button('Survey these 4')).click();
    await words(page, /Surveying: \d of 4 done/);
    await words(page, /regatta-club\.example Asking/);
    await page.locator(button('Pause')).click();
    await words(page, 'Paused');
    await page.locator(button('Go on')).click();
    await until('it is done', async () => /Done: 4 surveyed/.test(await text()), 180);
    const order = await page.evaluate(() => Array.from(document.querySelectorAll('[data-index] [role=cell]:first-child'), (cell) => cell.textContent));
    expect(order).toEqual(['mislaid-lantern.example', 'regatta-club.example', 'canoe-yard.example', 'gull-radio.example']);
    await page.locator(link('canoe-yard.example')).click();
    await words(page, 'The inventory is complete');
    await page.locator(button('Move this domain')).click();
    await words(page, 'Choose where it goes');
    expect(page.url()).toMatch(/\/moves\/[0-9a-f-]{36}\/survey$/);
  });

  it('had nothing to complain of', () => expect(chromium.complaints).toEqual([]));
});
