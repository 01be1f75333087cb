import { Name, TYPE_CODES, printRdata } from '@wanderon/core';
import { Page } from 'puppeteer-core';
import { until } from '../../../command/src/api';
import { CHANGED, chapter, CURRENT_ROW, goesTo, link, paste, press, pressUntil, skipCheck, SUBMITTED, words } from '../support/browser';
import { DemoUnderTest } from '../support/demoUnderTest';

const QUILLMERE = ['203.0.113.51', '203.0.113.52', '203.0.113.53'];
const NAMES = ['ns1.quillmere.example', 'ns2.quillmere.example', 'ns3.quillmere.example'];

/** Ways a domain moves besides the usual one, each from beginning to end in a browser, with the lab's own servers asked afterwards. */
describe('other ways a domain moves', () => {
  const demo = new DemoUnderTest();
  let page: Page;

  beforeAll(async () => {
    await demo.open({ bare: true });
    page = await demo.signedIn();
  });
  afterAll(() => demo.close());
  beforeEach(async () => {
    await page.goto(demo.address);
    await page.waitForSelector('input[name=domain]');
    await speed('× 1');
  });

  const speed = (name: string): Promise<void> => demo.speed(page, name);

  async function started(domain: string): Promise<void> {
    await page.locator('input[name=domain]').fill(domain);
    await press(page, 'Start');
    await words(page, 'The inventory is complete');
    await page.locator('::-p-text(Choose where it goes)').click();
  }

  /** The zone is added in Quillmere's panel, pushed and read back. */
  async function pushed(domain: string): Promise<void> {
    await demo.at('/quillmere', { name: domain });
    await press(page, 'Push');
    await press(page, 'Push the zone');
    await speed('× 600');
    await words(page, 'All 3 new servers serve the plan');
  }

  /** In real time, or the parent is seen to publish the change before the person says so. */
  async function switched(zone: string, names = NAMES): Promise<void> {
    await speed('× 1');
    await demo.at('/registrar/domain', { name: zone, ns: names });
    await pressUntil(page, 'It is saved at the registrar', SUBMITTED);
    await speed('× 600');
    await words(page, 'The registry publishes the new nameservers since');
  }

  async function settled(): Promise<void> {
    await chapter(page, 'watch');
    await speed('× 3600');
    await words(page, 'Finished everywhere', 120_000);
  }

  async function closed(): Promise<void> {
    await settled();
    await press(page, 'Close the move');
    await words(page, 'The move is closed');
    expect(demo.chromium.complaints).toEqual([]);
  }

  async function answers(name: string, type: keyof typeof TYPE_CODES): Promise<string[]> {
    const all = await Promise.all(
      QUILLMERE.map(async (address) => {
        const message = await demo.client.ask({ address }, Name.parse(name), TYPE_CODES[type]);
        return message.answers
          .filter((record) => record.type === TYPE_CODES[type])
          .map((record) => printRdata(record.type, record.data))
          .sort();
      }),
    );
    // Every server of the host says the same.
    expect(all).toEqual(all.map(() => all[0]));
    return all[0]!;
  }

  it('one that was never used', async () => {
    await page.locator('input[name=domain]').fill('samphire-kitchen.example');
    await press(page, 'Start');
    await words(page, 'is not delegated');
    await press(page, 'It was never used: begin it');
    await words(page, 'Survey');
    await chapter(page, 'rebuild');
    await words(page, 'The domain was never used: nothing is delegated yet');
    await words(page, 'Delegate it for the first time');
    await goesTo(page, { dns: 'Quillmere DNS', web: 'Thornwick Web' });
    await words(page, '0 kept, 0 changed, 0 left out, 6 added');
    await pushed('samphire-kitchen.example');
    await chapter(page, 'timetable');
    await words(page, 'Nobody is told that there is no such domain after');
    await press(page, 'Approve');
    await chapter(page, 'switch');
    await words(page, 'Everything is ready: change the nameservers');
    // Nobody has asked a lookout about the domain: their first answers are the new ones, or somebody else's denial.
    await switched('samphire-kitchen.example.');
    await closed();
    expect(await answers('samphire-kitchen.example.', 'A')).toEqual(['203.0.113.80']);
    expect(await answers('www.samphire-kitchen.example.', 'CNAME')).toEqual(['edge.thornwick.example.']);
    expect(await answers('samphire-kitchen.example.', 'MX')).toEqual(['0 .']);
    expect(await answers('samphire-kitchen.example.', 'TXT')).toEqual(['"v=spf1 -all"']);
  });

  it('the nameservers first, and the website a week later', async () => {
    await started('tidewater-choir.example');
    await goesTo(page, { way: 'nameservers first', dns: 'Quillmere DNS', web: 'Thornwick Web' });
    await words(page, /\d+ kept, 0 changed, 0 left out, 0 added|\d+ kept, 0 changed, 2 left out, 0 added/);
    await pushed('tidewater-choir.example');
    await chapter(page, 'timetable');
    await press(page, 'Approve, lower now');
    await chapter(page, 'switch');
    await speed('× 3600');
    await words(page, /Everything is ready: change the (?:nameservers|records)/, 120_000);
    await switched('tidewater-choir.example.');
    await settled();
    expect(await answers('www.tidewater-choir.example.', 'CNAME')).toEqual(['sites.saltmarsh.example.']);

    // A week passes; the website is led elsewhere where the zone is now.
    await demo.at('/clock', { jump: String(7 * 86_400) });
    await press(page, 'Begin the second stage');
    await chapter(page, 'survey');
    await words(page, 'The inventory is complete', 120_000);
    await page.locator('::-p-text(Choose where it goes)').click();
    await words(page, 'Quillmere DNS answers for the domain.');
    await goesTo(page, {});
    await words(page, /\d+ stay, 4 changed/);
    await chapter(page, 'timetable');
    await press(page, 'Approve, lower now');
    await chapter(page, 'switch');
    await words(page, 'Everything is ready: change the records', 120_000);
    await speed('× 1');
    await pressUntil(page, 'Change the records now', CHANGED);
    await speed('× 600');
    await words(page, 'Every nameserver gives the new values since');
    await closed();
    expect(await answers('www.tidewater-choir.example.', 'CNAME')).toEqual(['edge.thornwick.example.']);
    expect(await answers('tidewater-choir.example.', 'A')).toEqual(['203.0.113.80']);
    expect(await answers('scores.tidewater-choir.example.', 'A')).toEqual(['203.0.113.80']);
    expect(await answers('tidewater-choir.example.', 'MX')).toEqual(['10 mx1.brinepost.example.', '20 mx2.brinepost.example.']);
  });

  it('to a host that holds no zone before it is delegated', async () => {
    await started('gull-radio.example');
    await goesTo(page, { way: 'nameservers', dns: 'Latchford DNS' });
    await words(page, /\d+ kept/);
    await press(page, 'Push');
    await press(page, 'Push the zone');
    await words(page, 'Latchford DNS takes the zone once the domain is delegated to it: it is pushed then.');
    await chapter(page, 'timetable');
    await press(page, 'Approve, lower now');
    await chapter(page, 'switch');
    await speed('× 3600');
    await words(page, 'Every answer with an old TTL has run out.', 120_000);
    await words(page, /whoever asks anew then finds nothing for about \d+ min/);
    await speed('× 1');
    await skipCheck(page, 'served', 'at night, as agreed');
    await words(page, /Everything is ready: change the (?:nameservers|records)/);
    await switched('gull-radio.example.', ['east.latchford.example', 'west.latchford.example']);
    await chapter(page, 'rebuild');
    await words(page, 'All 2 new servers serve the plan');
    await closed();
    for (const address of ['203.0.113.61', '203.0.113.62']) {
      const { answers: all } = await demo.client.ask({ address }, Name.parse('stream.gull-radio.example.'), TYPE_CODES.AAAA);
      expect(all.map((record) => printRdata(record.type, record.data))).toEqual(['2001:db8:90::1']);
    }
  });

  it('to a host that fronts names, by key, from what its panel shows', async () => {
    await started('lighthouse-museum.example');
    await goesTo(page, { way: 'nameservers', dns: 'Brackenfold', web: 'Thornwick Web' });
    await words(page, 'f own addresses');
    const current = (): Promise<string> => page.$eval(CURRENT_ROW, (row) => (row as HTMLElement).innerText);
    await page.locator('input[aria-label="Filter the plan"]').fill('www');
    await page.keyboard.press('Escape');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await until('the cursor stands on www', async () => /www/.test(await current()));
    // Off, off until verified, on, and round again; each is a decision that undo takes back.
    for (const note of [/answered by the host once verified/, /answered by the host(?! once)/]) {
      await page.keyboard.press('f');
      await until(`the row is ${note}`, async () => note.test(await current()));
    }
    await page.keyboard.press('u');
    await until('it is fronted once verified again', async () => /answered by the host once verified/.test(await current()));
    await page.locator(link('Handover sheet')).click();
    await words(page, 'Every field is written as this panel wants it.');
    const rows = (): Promise<number> => page.$$eval('table[aria-label="Handover sheet"] tbody tr', (all) => all.length);
    const all = await rows();
    // Two sets stand there already, one of them otherwise, one with a slip, and one that nobody planned.
    await press(page, 'Paste what the panel shows');
    await paste(
      page,
      'What the panel shows',
      'lighthouse-museum.example. 300 IN A 203.0.113.80\nlighthouse-museum.example. 300 IN AAAA 2001:db8:7403::8\nlighthouse-museum.example. 300 IN MX 5 mail.elsewhere.example.\nleft.lighthouse-museum.example. 300 IN TXT "x"\n',
    );
    await words(page, 'One record is typed wrongly there');
    await words(page, '2001:db8:7403::8 differs in one character: it is 2001:db8:7403::80.');
    await press(page, 'Begin the sheet from these 4 record sets');
    await words(page, 'From what the panel showed: 4 record sets.');
    const acts = await page.$$eval('table[aria-label="Handover sheet"] tbody tr', (each) =>
      each.map((row) => (row as HTMLElement).innerText.replace(/\s+/g, ' ')),
    );
    expect(acts.filter((act) => /delete/i.test(act) && /left/.test(act))).toHaveLength(1);
    expect(acts.filter((act) => /brinepost|mail\.elsewhere/.test(act) && /edit|delete|add/i.test(act)).length).toBeGreaterThan(0);
    expect(acts.filter((act) => /\bA\b/.test(act) && / 203\.0\.113\.80 /.test(act) && /add (lighthouse|@)/i.test(act))).toEqual([]);
    await press(page, 'Forget what it showed');
    await until('the sheet is as it was', async () => (await rows()) === all);
    expect(demo.chromium.complaints).toEqual([]);
  });

  it('into another account behind the same nameservers', async () => {
    await started('canoe-yard.example');
    await goesTo(page, { way: 'another account' });
    await words(page, 'The zone is planned for the other account, and seen once that is live');
    await chapter(page, 'timetable');
    // No value changes: no TTL is lowered.
    await words(page, /Nothing that stands there changes, so there is no TTL to lower/);
    await press(page, 'Save the times');
    await chapter(page, 'switch');
    await words(page, /Whether .* can hold the domain in two accounts at once is not known/);
  });
});
