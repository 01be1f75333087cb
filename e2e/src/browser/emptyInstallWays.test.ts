import { Page } from 'puppeteer-core';
import { until } from '../../../command/src/api';
import { FIRST_MAIL } from '../../../command/src/demoData';
import { CHANGED, SUBMITTED, chapter, goesTo, paste, press, pressUntil, words } from '../support/browser';
import { DemoUnderTest } from '../support/demoUnderTest';
import { AT_THE_GATE, LEADS, Shown, WAYS_ON, deleteThere, sheetRows, takeWays, typeSheet } from '../support/hands';

const DOMAIN = 'ferry-timetable.example';
const ZONE = `${DOMAIN}.`;
const isWebsite = ({ owner, type }: Shown): boolean => [ZONE, `www.${ZONE}`].includes(owner) && LEADS.has(type);

/** The ways that a domain goes by hand where nothing is described, one after the other with one domain: each begins where the last one ended. */
describe('an empty installation, by other ways', () => {
  const demo = new DemoUnderTest();
  let page: Page;

  beforeAll(async () => {
    await demo.open({ bare: true, empty: true });
    page = await demo.signedIn();
  });
  afterAll(() => demo.close());

  async function begun(): Promise<void> {
    await demo.speed(page, '× 1');
    await page.goto(demo.address);
    await page.locator('input[name=domain]').fill(DOMAIN);
    await press(page, 'Start');
    await surveyed();
  }

  async function surveyed(): Promise<void> {
    await words(page, 'The inventory is', 120_000);
    await page.locator('::-p-text(Choose where it goes)').click();
  }

  /** The rows of the sheet of the records, once it is there. */
  async function sheet(): Promise<Awaited<ReturnType<typeof sheetRows>>> {
    await chapter(page, 'sheet');
    await page.waitForSelector('tr[aria-current=true]');
    return sheetRows(page);
  }

  /** The same for Fernlight: what its panel shows beside the field for targets is asked once in each move, and noted. */
  async function sheetOfFernlight(): Promise<Awaited<ReturnType<typeof sheetRows>>> {
    await sheet();
    await press(page, 'mx1.brinepost.example.');
    await words(page, 'Noted for fernlight.example.');
    await until('targets are written with their dot', async () => (await sheetRows(page)).some(({ typed }) => typed.value === 'mx1.brinepost.example.'));
    return sheetRows(page);
  }

  /** `decides`: what is pressed in the timetable; undefined where what was typed has a short TTL already. */
  async function throughGate(decides: 'Do not lower' | 'Save the times' | undefined): Promise<void> {
    if (decides !== undefined) {
      await chapter(page, 'timetable');
      await press(page, decides);
    }
    await chapter(page, 'switch');
    await demo.speed(page, '× 3600');
    await takeWays(page, AT_THE_GATE, /Everything is ready/);
    await demo.speed(page, '× 1');
  }

  async function closed(): Promise<void> {
    await demo.speed(page, '× 3600');
    await chapter(page, 'watch');
    await takeWays(page, WAYS_ON, /The move is closed/);
    expect(demo.chromium.complaints).toEqual([]);
  }

  /** The website's records are changed in a panel, by the sheet, and seen at every nameserver. */
  async function changedAt(panel: string): Promise<void> {
    await pressUntil(page, 'I am changing them now', CHANGED);
    const rows = await sheet();
    await deleteThere(demo, panel, ZONE, isWebsite);
    await typeSheet(
      demo,
      panel,
      ZONE,
      rows.filter(({ act }) => act !== 'delete'),
    );
    await demo.speed(page, '× 600');
    await chapter(page, 'switch');
    await words(page, 'Every nameserver gives the new values since');
  }

  it('the whole website where its records are', async () => {
    await begun();
    await paste(page, 'What the new place gave you', 'Your site is at 203.0.113.90, for www please use a CNAME to sites.larkspur.example.');
    await words(page, 'The website goes to larkspur.example.');
    await goesTo(page, {});
    await words(page, /stay, \d changed/);
    await throughGate('Do not lower');
    await changedAt('hollowell');
    await closed();
  });

  it('the nameservers first, and the website after', async () => {
    await begun();
    await paste(page, 'What the new place gave you', FIRST_MAIL);
    await words(page, 'The website goes to fernlight.example.');
    await goesTo(page, { way: 'nameservers first' });
    await press(page, 'I am typing it by hand');
    await demo.at('/panel/fernlight/domain', { name: DOMAIN });
    await typeSheet(demo, 'fernlight', ZONE, await sheetOfFernlight());
    await demo.speed(page, '× 600');
    await chapter(page, 'rebuild');
    await words(page, 'All 2 new servers serve the plan', 120_000);
    await throughGate('Do not lower');
    await demo.at('/registrar/domain', { name: ZONE, ns: ['one.fernlight.example', 'two.fernlight.example'] });
    await pressUntil(page, 'It is saved at the registrar', SUBMITTED);
    await demo.speed(page, '× 3600');
    await chapter(page, 'watch');
    await takeWays(page, [...WAYS_ON, /^Begin the second stage$/], /What is watched is known once the way is chosen/);

    await demo.speed(page, '× 600');
    await chapter(page, 'survey');
    await surveyed();
    await words(page, 'The website goes to fernlight.example');
    await goesTo(page, { way: 'repoint' });
    await words(page, /stay, \d changed/);
    await throughGate(undefined);
    await changedAt('fernlight');
    await closed();
  });

  it('into another account behind the same nameservers', async () => {
    await begun();
    await goesTo(page, { way: 'another account' });
    await words(page, 'The zone is planned for the other account');
    await press(page, 'It is typed there');
    await throughGate('Save the times');
    await pressUntil(page, 'The other account takes over now', /every nameserver gives the whole plan/i);
    const rows = await sheetOfFernlight();
    // What the other account begins with is nothing.
    await deleteThere(demo, 'fernlight', ZONE, () => true);
    await typeSheet(demo, 'fernlight', ZONE, rows);
    await demo.speed(page, '× 600');
    await chapter(page, 'switch');
    await words(page, 'Every nameserver gives the whole plan since', 120_000);
    await closed();
  });
});
