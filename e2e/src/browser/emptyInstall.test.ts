import { Page } from 'puppeteer-core';
import { until } from '../../../command/src/api';
import { FIRST_MAIL } from '../../../command/src/demoData';
import { CHANGED, CURRENT_ROW, SUBMITTED, chapter, goesTo, paste, press, pressUntil, words } from '../support/browser';
import { DemoUnderTest } from '../support/demoUnderTest';
import { AT_THE_GATE, LEADS, WAYS_ON, deleteThere, sheetRows, takeWays, typeSheet } from '../support/hands';

const ZONE = 'seed-library.example.';
/** What the new host writes: its nameservers, and where the site is. */
const MAIL = `Hallo,

Ihr neues Paket ist eingerichtet.

Nameserver:
one.tollgate.example
two.tollgate.example

Ihre Seite hat die IP-Adresse 203.0.113.80 und 2001:db8:7403::80.
Für www setzen Sie bitte einen CNAME auf edge.thornwick.example.

Mit freundlichen Grüßen
`;

/**
 * An installation in which nothing is described: no host, no key, no transfer, no resolver, no registry's data. What is known of the new place
 * is its mail; everything is typed into panels.
 */
describe('an empty installation', () => {
  const demo = new DemoUnderTest();
  let page: Page;

  beforeAll(async () => {
    await demo.open({ bare: true, empty: true });
    page = await demo.signedIn();
  });
  afterAll(() => demo.close());

  it('moves a domain from its name and a mail to closed', async () => {
    let acts = 0;
    const act = async (doing: Promise<unknown>): Promise<void> => {
      acts += 1;
      await doing;
    };
    await act(page.locator('input[name=domain]').fill('seed-library.example'));
    await act(press(page, 'Start'));
    await words(page, 'The inventory is');
    await act(page.locator('::-p-text(Choose where it goes)').click());
    await words(page, 'Nothing was given yet.');
    await act(paste(page, 'What the new place gave you', MAIL));
    await words(page, 'The domain goes to tollgate.example: its records are typed there from a sheet.');
    await words(page, 'The website goes to thornwick.example.');
    await act(goesTo(page, {}));
    await words(page, 'The new zone is planned');
    // From a typed domain to a plan that can be carried out.
    expect(acts).toBeLessThanOrEqual(8);

    // Its panel has no TLSA records: that one is left out.
    await page.locator('input[aria-label="Filter the plan"]').fill('TLSA');
    await page.keyboard.press('Escape');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await until('the cursor stands on it', () => page.$eval(CURRENT_ROW, (row) => /_25/.test((row as HTMLElement).innerText)));
    await page.keyboard.press('d');
    await words(page, /, 3 left out,/);
    await press(page, 'I am typing it by hand');
    await chapter(page, 'sheet');
    await page.waitForSelector('tr[aria-current=true]');
    const rows = await sheetRows(page);
    await demo.at('/panel/tollgate/domain', { name: 'seed-library.example' });
    await typeSheet(demo, 'tollgate', ZONE, rows);
    await demo.speed(page, '× 600');
    await chapter(page, 'rebuild');
    await words(page, 'All 2 new servers serve the plan', 120_000);
    await chapter(page, 'timetable');
    await press(page, 'Do not lower');
    await chapter(page, 'switch');
    await demo.speed(page, '× 3600');
    await takeWays(page, AT_THE_GATE, /Everything is ready: change the (?:nameservers|records)/);
    await demo.speed(page, '× 1');
    await demo.at('/registrar/domain', { name: ZONE, ns: 'one.tollgate.example.\ntwo.tollgate.example.' });
    await demo.at('/registrar/mail', { name: ZONE });
    await pressUntil(page, 'It is saved at the registrar', SUBMITTED);
    await demo.speed(page, '× 3600');
    await takeWays(page, [/^Stop waiting for .*$/, /^Go on without it$/, /^Go on although .*$/], /Switch\s+4\s+done/);
    await chapter(page, 'watch');
    await takeWays(page, WAYS_ON, /The move is closed/);
    // The place is kept: the next mail of it is known.
    await page.locator('::-p-text(Save as a host)').click();
    await page.locator('input[aria-label="Name of the host"]').fill('Tollgate');
    await press(page, 'Save');
    await words(page, 'Tollgate is one of your hosts now.');
    expect(demo.chromium.complaints).toEqual([]);
  });

  it('changes one name where it is, by what a chat says, typed into the panel that the domain is at', async () => {
    await page.goto(demo.address);
    await page.locator('input[name=domain]').fill('www.seed-library.example');
    await page.locator('::-p-text(that name alone)').click();
    await press(page, 'Start');
    await words(page, 'The inventory is');
    await page.locator('::-p-text(Choose where it goes)').click();
    await paste(page, 'What the new place gave you', 'www.seed-library.example should be a CNAME to sites.larkspur.example; leave everything else alone.');
    await words(page, 'The website goes to larkspur.example.');
    await goesTo(page, {});
    await words(page, /1 changed, 0 left out, 0 added/);
    // It was typed with five minutes, so that nothing is to be lowered any more.
    await chapter(page, 'switch');
    await demo.speed(page, '× 3600');
    await takeWays(page, AT_THE_GATE, /Everything is ready: change the records/);
    await demo.speed(page, '× 1');
    await pressUntil(page, 'I am changing them now', CHANGED);
    const owner = 'www.seed-library.example.';
    await chapter(page, 'sheet');
    await page.waitForSelector('tr[aria-current=true]');
    const rows = await sheetRows(page);
    expect(rows.map(({ typed }) => `${typed.name} ${typed.type} ${typed.value}`)).toEqual(['www CNAME sites.larkspur.example']);
    await demo.at('/panel/tollgate/delete', { zone: ZONE, owner, type: 'CNAME', data: 'edge.thornwick.example.' });
    await typeSheet(demo, 'tollgate', ZONE, rows);
    await demo.speed(page, '× 600');
    await chapter(page, 'switch');
    await words(page, 'Every nameserver gives the new values since');
    await demo.speed(page, '× 3600');
    await chapter(page, 'watch');
    await takeWays(page, WAYS_ON, /The move is closed/);
    expect(demo.chromium.complaints).toEqual([]);
  });

  it('begins a domain that was never used', async () => {
    await page.goto(demo.address);
    await page.locator('input[name=domain]').fill('samphire-kitchen.example');
    await press(page, 'Start');
    await words(page, 'is not delegated');
    await press(page, 'It was never used: begin it');
    await chapter(page, 'rebuild');
    await words(page, 'The domain was never used: nothing is delegated yet');
    await paste(
      page,
      'What the new place gave you',
      'Nameservers: one.tollgate.example and two.tollgate.example\nYour site has the IP address 203.0.113.80.\n',
    );
    await words(page, 'The domain goes to Tollgate');
    await goesTo(page, {});
    await words(page, '0 kept, 0 changed, 0 left out,');
    await press(page, 'I am typing it by hand');
    await chapter(page, 'sheet');
    await page.waitForSelector('tr[aria-current=true]');
    await demo.at('/panel/tollgate/domain', { name: 'samphire-kitchen.example' });
    await typeSheet(demo, 'tollgate', 'samphire-kitchen.example.', await sheetRows(page));
    await demo.speed(page, '× 600');
    await chapter(page, 'timetable');
    await words(page, 'Nobody is told that there is no such domain after');
    await press(page, 'Save the times');
    await chapter(page, 'switch');
    await takeWays(page, [/^Skip this check$/, /^Stop waiting for .*$/], /Everything is ready: change the nameservers/);
    await demo.speed(page, '× 1');
    await demo.at('/registrar/domain', { name: 'samphire-kitchen.example.', ns: ['one.tollgate.example', 'two.tollgate.example'] });
    await pressUntil(page, 'It is saved at the registrar', SUBMITTED);
    await demo.speed(page, '× 3600');
    await chapter(page, 'watch');
    await takeWays(page, WAYS_ON, /The move is closed/);
    expect(demo.chromium.complaints).toEqual([]);
  });

  it('moves the website first and the nameservers after, all of it by sheets', async () => {
    const ferry = 'ferry-timetable.example.';
    await demo.speed(page, '× 1');
    await page.goto(demo.address);
    await page.locator('input[name=domain]').fill('ferry-timetable.example');
    await press(page, 'Start');
    await words(page, 'The inventory is');
    // The mail came to somebody else, who left it with the move.
    await chapter(page, 'notes');
    await page.locator('textarea[aria-label="Notes on this move"]').fill(FIRST_MAIL);
    await press(page, 'Save the note');
    await words(page, 'The note is saved.');
    await chapter(page, 'rebuild');
    await press(page, 'Read the note of this move');
    await words(page, 'The website goes to fernlight.example.');
    await goesTo(page, { way: 'website first' });
    await words(page, /3 changed, 0 left out, 0 added/);
    // The sheet of what is lowered is there before anything is changed.
    await chapter(page, 'timetable');
    await page.locator('::-p-text(Sheet of the TTLs to lower)').click();
    await words(page, 'TTLs to lower: ferry-timetable.example at the present DNS host');
    expect((await sheetRows(page)).map(({ act, typed }) => `${act} ${typed.type} ${typed.ttl}`)).toEqual(['edit A 300', 'edit AAAA 300', 'edit CNAME 300']);
    await press(page, 'Do not lower');
    await chapter(page, 'switch');
    await demo.speed(page, '× 3600');
    await takeWays(page, AT_THE_GATE, /Everything is ready: change the records/);
    await demo.speed(page, '× 1');
    await pressUntil(page, 'I am changing them now', CHANGED);
    await chapter(page, 'sheet');
    await page.waitForSelector('tr[aria-current=true]');
    const rows = await sheetRows(page);
    await deleteThere(demo, 'hollowell', ferry, ({ owner, type }) => [ferry, `www.${ferry}`].includes(owner) && LEADS.has(type));
    await typeSheet(demo, 'hollowell', ferry, rows);
    await demo.speed(page, '× 600');
    await chapter(page, 'switch');
    await words(page, 'Every nameserver gives the new values since');
    await demo.speed(page, '× 3600');
    await chapter(page, 'watch');
    await takeWays(page, [...WAYS_ON, /^Begin the second stage$/], /What is watched is known once the way is chosen/);

    await demo.speed(page, '× 600');
    await chapter(page, 'survey');
    await words(page, 'The inventory is', 120_000);
    await page.locator('::-p-text(Choose where it goes)').click();
    // What was given for the first stage stands here as well.
    await words(page, 'The domain goes to fernlight.example');
    await goesTo(page, { way: 'nameservers' });
    await press(page, 'I am typing it by hand');
    await chapter(page, 'sheet');
    await page.waitForSelector('tr[aria-current=true]');
    await demo.at('/panel/fernlight/domain', { name: 'ferry-timetable.example' });
    await words(page, /The zone begins empty there/);
    await press(page, 'mx1.brinepost.example.');
    await words(page, 'Noted for fernlight.example.');
    await until('targets are written with their dot', async () => (await sheetRows(page)).some(({ typed }) => typed.value === 'mx1.brinepost.example.'));
    await typeSheet(demo, 'fernlight', ferry, await sheetRows(page));
    // Nobody waits for the next look.
    await demo.speed(page, '× 1');
    await chapter(page, 'rebuild');
    await demo.at('/clock', { jump: '15' });
    await pressUntil(page, 'Look now', /All 2 new servers serve the plan/);
    await chapter(page, 'timetable');
    await press(page, 'Do not lower');
    await chapter(page, 'switch');
    await demo.speed(page, '× 3600');
    await takeWays(page, AT_THE_GATE, /Everything is ready: change the nameservers/);
    await demo.speed(page, '× 1');
    await demo.at('/registrar/domain', { name: ferry, ns: ['one.fernlight.example', 'two.fernlight.example'] });
    await pressUntil(page, 'It is saved at the registrar', SUBMITTED);
    await demo.speed(page, '× 3600');
    await chapter(page, 'watch');
    await takeWays(page, WAYS_ON, /The move is closed/);
    expect(demo.chromium.complaints).toEqual([]);
  });
});
