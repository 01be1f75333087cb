import { Name, printRdata, typeCode } from '@wanderon/core';
import { Page } from 'puppeteer-core';
import { until } from '../../../command/src/api';
import { chapter, goesTo, paste, press, pressUntil, SUBMITTED, words } from '../support/browser';
import { DemoUnderTest } from '../support/demoUnderTest';
import { sheetRows, takeWays, typeSheet } from '../support/hands';

const ZONE = 'seed-library.example.';
/**
 * A move in which everything is typed by people: both DNS hosts have panels only, the registrar takes a list and writes to the owner,
 * and the web host asks for a token and for things to be done.
 */
describe('a domain moves by hand', () => {
  const demo = new DemoUnderTest();
  let page: Page;

  beforeAll(async () => {
    await demo.open({ bare: true });
    page = await demo.signedIn();
  });
  afterAll(() => demo.close());

  const lab: DemoUnderTest['at'] = (path, fields) => demo.at(path, fields);
  const speed = (name: string): Promise<void> => demo.speed(page, name);
  const place = (name: Parameters<typeof chapter>[1]): Promise<void> => chapter(page, name);
  const shown = (): Promise<string> => page.evaluate(() => document.body.innerText);

  it('from typing its name to closing the move, with every word of it typed', async () => {
    await page.locator('input[name=domain]').fill('seed-library.example');
    await press(page, 'Start');
    await words(page, 'The inventory is incomplete');
    await page.locator('::-p-text(Choose where it goes)').click();
    await goesTo(page, { way: 'nameservers', dns: 'Driftwood Zones', web: 'Larkspur Sites' });
    await words(page, /\d+ kept, \d+ changed/);

    // What the web host asks for: the domain is added there, its token comes into the plan and into the zone that is live now.
    await words(page, 'Larkspur Sites asks for: the record _larkspur.seed-library.example TXT');
    await place('asked');
    await words(page, 'Larkspur Sites still asks for 4 things before the cutover');
    const token = /larkspur-site=[0-9a-f]+/.exec(await lab('/larkspur/domain', { name: 'seed-library.example' }))![0];
    const tick = (title: string): Promise<void> => page.locator(`input[aria-label="${title}"]:not([disabled])`).click();
    await tick('Add the domain');
    // The page of the host, pasted: what it gives is shown before it is taken.
    await press(page, 'Paste its page or mail');
    await paste(
      page,
      'A table, a list, fields or sentences, as they stand there. Nothing is sent.',
      await (await fetch(`${demo.lab}/larkspur?zone=${ZONE}`)).text(),
    );
    await words(page, token);
    await press(page, 'Take this one');
    await words(page, 'Pebbledock DNS takes no updates from us: it is typed there.');
    await tick('Publish the site');
    await lab('/panel/pebbledock/add', { zone: ZONE, name: '_larkspur', type: 'TXT', value: token, ttl: '300' });
    await press(page, 'I put it there by hand');
    await speed('× 60');
    // Our word that it is proved waits until every server of the live zone was seen to have the token.
    await page.waitForSelector('input[aria-label="Prove that the domain is ours"]:not([disabled])');
    expect(await lab('/larkspur/check', { zone: 'seed-library.example' })).toContain('not connected');
    await tick('Prove that the domain is ours');
    await words(page, 'Larkspur Sites asks for nothing more before the cutover');

    // The new zone is typed by its sheet, to the letter.
    await place('rebuild');
    await press(page, 'I am typing it by hand');
    await place('sheet');
    await words(page, 'The zone begins empty there');
    await page.waitForSelector('tr[aria-current=true]');
    // What came into the plan last is in it too.
    await words(page, token);
    const rows = await sheetRows(page);
    expect(rows.length).toBeGreaterThan(12);
    expect(new Set(rows.map((row) => row.act))).toEqual(new Set(['add']));
    // Somebody without an account is given it, and sees the same.
    await press(page, 'Give it to somebody');
    await press(page, 'Make a link');
    await words(page, /\/sheet\/[\w-]{43}/);
    const link = /http\S+\/sheet\/[\w-]{43}/.exec(await shown())![0];
    await page.keyboard.press('Escape');
    const theirs = await demo.chromium.theirs();
    await theirs.goto(link);
    await words(theirs, 'Handover sheet: seed-library.example at Driftwood Zones');
    expect(await sheetRows(theirs)).toEqual(rows);
    expect(await theirs.$('nav')).toBeNull();
    await theirs.close();
    await lab('/panel/driftwood/domain', { name: 'seed-library.example' });
    await typeSheet(demo, 'driftwood', ZONE, rows);
    await speed('× 600');
    await place('rebuild');
    await words(page, 'All 2 new servers serve the plan', 120_000);

    // The panel does not let TTLs be chosen: whether they are lowered is a plain choice, with nothing red and nothing that stops.
    await place('timetable');
    await words(page, /set the TTLs of what changes to 5 min/);
    await press(page, 'Do not lower');
    await words(page, /The switch is safe from/);
    expect(await page.$('[role=alert]')).toBeNull();
    await place('switch');
    await speed('× 3600');
    await words(page, 'HANDOVER SHEET: CLIFFPATH DOMAINS');
    await takeWays(
      page,
      [/^Skip this check$/, /^Stop waiting for .*$/, /^Do not wait for the old TTLs$/],
      /Everything is ready: change the (?:nameservers|records)/,
    );
    await speed('× 1');
    const list = await page.evaluate(() =>
      Array.from(document.querySelectorAll('li .whitespace-pre-line')).map((one) => (one as HTMLElement).innerText.trim()),
    );
    expect(list).toEqual(['one.driftwood.example.\ntwo.driftwood.example.']);
    const saved = async (ns: string): Promise<void> => {
      expect(await lab('/registrar/domain', { name: ZONE, ns })).toContain('Nothing changes before the link');
      await lab('/registrar/mail', { name: ZONE });
    };
    // The list with each slip in turn: it is named from what the parent then publishes.
    const [one, two] = list[0]!.split('\n');
    const slips: [string[], string][] = [
      [[one!, two!, 'dns-a.pebbledock.example.'], 'dns-a.pebbledock.example is left from before: take it out'],
      [[one!, 'two.driftwod.example.'], 'two.driftwod.example is misspelt: it is two.driftwood.example'],
      [[one!, 'ns1.quillmere.example.'], 'ns1.quillmere.example is a nameserver of Quillmere DNS'],
      [[one!, 'two.driftwood.example'], `two.driftwood.example.${ZONE.replace(/\.$/, '')} has the domain appended`],
      [[one!, 'https://two.driftwood.example/'], 'is a URL: only the name is typed'],
    ];
    for (const [index, [ns, named]] of slips.entries()) {
      await saved(ns.join('\n'));
      if (index === 0) {
        await pressUntil(page, 'It is saved at the registrar', new RegExp(`${named}|${SUBMITTED.source}`));
        await speed('× 60');
      }
      await words(page, named);
    }
    await saved(list[0]!);
    await takeWays(page, [/^Stop waiting for .*$/, /^Go on without it$/, /^Go on although .*$/], /The registry publishes the new nameservers since/);

    // Afterwards: nobody turns the old zone, and what follows the cutover at the web host is ticked.
    await takeWays(page, [/^Go on without it$/, /^Go on although .*$/], /Switch\s+4\s+done/);
    await place('watch');
    await speed('× 3600');
    await words(page, 'Larkspur Sites asks for: Wait for “connected”');
    await lab('/larkspur/check', { zone: 'seed-library.example' });
    await takeWays(page, [/^Stop waiting for .*$/, /^Go on without it$/, /^Go on although .*$/, /^They are raised, or stay low$/], /^Finished everywhere$/m);
    // Its own check is late, as was noted.
    await until('it says connected', async () => (await lab('/larkspur/check', { zone: 'seed-library.example' })).includes('>connected<'));
    await place('asked');
    await tick('Wait for “connected”');
    await tick('Purge its cache');
    await tick('Take out _larkspur.seed-library.example TXT');
    await place('watch');
    await takeWays(page, [/^They are raised, or stay low$/, /^Close the move$/, /^Stop waiting for .*$/], /The move is closed/);

    // What was on the sheet is what the new servers answer.
    for (const address of ['198.51.100.71', '198.51.100.72'])
      for (const { typed } of rows) {
        const owner = Name.parse(typed.name === '@' ? ZONE : `${typed.name}.${ZONE}`);
        const type = typeCode(typed.type)!;
        const { answers } = await demo.client.ask({ address }, owner, type);
        expect(answers.filter((record) => record.type === type).map((record) => printRdata(type, record.data))).toContain(typed.value);
      }
    expect(demo.chromium.complaints).toEqual([]);
  });
});
