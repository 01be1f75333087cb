import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MoveView } from '@wanderon/contract';
import { ElementHandle, Page } from 'puppeteer-core';
import { Chromium, button, paste, picture, signIn, words } from '../support/browser';
import { World, openWorld } from '../support/world';

/** A table as a panel might show it; one row is no longer true, one cannot be read. */
const TABLE = `Type\tName\tTTL\tPriority\tContent
A\tcanoe-yard.example\t1 hour\t\t198.51.100.80
A\t*.boats\t1 hour\t\t198.51.100.80
MX\t@\t1 hour\t10\tmail.canoe-yard.example
TXT\twinter-store\t4 hours\t\tkept at the north shed
A\told-office\t1 hour\t\t198.51.100.800
`;

describe('what a technician has in hand', () => {
  const chromium = new Chromium();
  let world: World;
  let page: Page;
  let move: MoveView;

  beforeAll(async () => {
    world = await openWorld();
    const { hosts } = await world.api.call<{ hosts: { id: string; name: string; keyName: string | null }[] }>('GET', '/api/hosts');
    const { id, keyName, ...input } = hosts.find((host) => host.name === 'Oldquay DNS')!;
    expect(keyName).not.toBeNull();
    await world.api.call('PUT', `/api/hosts/${id}`, { ...input, key: null });
    move = await world.api.call<MoveView>('POST', '/api/moves', { domain: 'canoe-yard.example', scope: 'whole' });
    await chromium.open();
    page = await chromium.page();
    await signIn(page, world.server.address, 'technician');
  });
  afterAll(async () => {
    await chromium.close();
    await world.close();
  });

  it('is read, shown with its guesses, asked for, and held against what is served', async () => {
    await page.goto(`${world.server.address}/moves/${move.id}/survey`);
    await words(page, 'The inventory is incomplete');
    await words(page, /questions were put to ns1\.oldquay\.example/);
    expect(await page.evaluate(() => document.body.innerText)).not.toContain('*.boats');

    await page.locator(button('Give what you have')).click();
    // A file is taken as if it was pasted, and what proves nothing is said to.
    const folder = await mkdtemp(join(tmpdir(), 'wanderon-in-hand-'));
    const [good, garbled, large] = ['good.zone', 'garbled.zone', 'large.zone'].map((name) => join(folder, name));
    const zoneFile = '$TTL 1h\n@ SOA ns1.oldquay.example. host 1 1 1 1 1\nwww A 192.0.2.1\n';
    await writeFile(good!, zoneFile);
    await writeFile(garbled!, `${zoneFile}odd A 192.0.2\n`);
    await writeFile(large!, `${zoneFile};${'x'.repeat(2_000_000)}\n`);
    const input = (await page.waitForSelector('input[type=file]'))! as ElementHandle<HTMLInputElement>;
    await input.uploadFile(large!);
    await words(page, 'large.zone is larger than 2000 kB; nothing was read of it.');
    await input.uploadFile(garbled!);
    await words(page, '2 records from a zone file');
    await words(page, '192.0.2 is not an IPv4 address');
    await words(page, 'this file does not show that the inventory is whole');
    await paste(page, 'What you have in hand', '');
    await ((await page.waitForSelector('input[type=file]'))! as ElementHandle<HTMLInputElement>).uploadFile(good!);
    await words(page, '2 records from a zone file');
    await page.waitForFunction(() => !document.body.innerText.includes('this file does not show'));
    await paste(page, 'What you have in hand', TABLE);
    await words(page, '4 records from a table');
    await words(page, '1 line cannot be read');
    await words(page, '198.51.100.800 is not an IPv4 address');
    // What is pasted below is read with it; what could be two things is asked, and one key answers.
    await paste(page, 'What you have in hand', `${TABLE}\n\nMX\tkiosk\tmail.canoe-yard.example\n`);
    await words(page, 'No priority stands there: 10 is taken.');
    // What is served decides: a row that is no longer true is told.
    await words(page, 'The server gives something else:');
    await page.locator('[data-line="9"]').hover();
    await picture(page, 'paste');
    const row = (await page.waitForSelector('aria/Take kiosk MX of line 9'))!;
    expect(await row.evaluate((one) => (one as HTMLInputElement).checked)).toBe(false);
    await row.focus();
    await page.keyboard.press('y');
    await page.waitForFunction((one) => (one as HTMLInputElement).checked, {}, row);
    await page.keyboard.press('n');
    await page.waitForFunction((one) => !(one as HTMLInputElement).checked, {}, row);

    await page.locator(button('Ask for these 4 names and take the survey again')).click();
    await words(page, /3 signs open/);
    await page.select('select[aria-label="Which names are shown"]', 'hints');
    await words(page, 'TXT "kept at the north shed" is in what you have in hand, and is not served');
    await page.select('select[aria-label="Which names are shown"]', 'everything');
    await words(page, '*.boats');
    await words(page, /3 signs open/);
    // What a person knows of a hint is kept, and can be taken back.
    const [retired] = await page.$$(button('Retired'));
    await retired!.click();
    await words(page, /2 signs open/);
    await page.reload();
    await words(page, /2 signs open/);
    await page.locator(button('Open it again')).click();
    await words(page, /3 signs open/);
    expect(chromium.complaints).toEqual([]);
  });

  it('can be a server that has the zone: it is asked for it, and what came of that is said', async () => {
    await page.locator(button('Give what you have')).click();
    const field = page.locator('aria/Or a server that has the zone');
    await field.fill('two..dots');
    await page.locator(button('Ask this server and take the survey again')).click();
    await words(page, 'Type the name of a server, or its address.');
    await field.fill('ns1.quillmere.example');
    await page.locator(button('Ask this server and take the survey again')).click();
    await words(page, /ns1\.quillmere\.example \([\d.]+\), which you named, does not have the zone\./);
    // What was pasted before is not forgotten for it.
    await words(page, '*.boats');
    expect(chromium.complaints.filter((one) => !/status of 4\d\d/.test(one))).toEqual([]);
  });
});
