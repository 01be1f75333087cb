import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { CHANGED_SINCE, RULING_LABELS, RulingKind } from '@wanderon/core';
import knex, { Knex } from 'knex';
import { HTTPRequest, Page } from 'puppeteer-core';
import { until } from '../../../command/src/api';
import { ROOT } from '../../../command/src/processes';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { Chromium, closeDialog, paste, press, pressKey, signIn, words } from '../support/browser';
import { ALIAS, insertLedger } from '../support/largeLedger';
import { insertMoves } from '../support/manyMoves';
import { ServerUnderTest } from '../support/world';

const MOVES = 700;
const ROWS = 2300;
/** Milliseconds without a new row after which no more is waited for. */
const PATIENCE = 30_000;

/** An agency with hundreds of open moves, and a zone with thousands of rows: what is drawn is what is in sight. */
describe('many rows', () => {
  const server = new ServerUnderTest({ WANDERON_ROOT_HINTS: join(ROOT, 'e2e/corpus/hints') });
  const chromium = new Chromium();
  let database: Knex;
  let page: Page;
  let move: string;

  beforeAll(async () => {
    await server.open();
    await server.signIn('admin');
    database = knex({ client: 'pg', connection: server.database });
    await insertMoves(database, MOVES);
    ({ move } = await insertLedger(database, ROWS));
    await chromium.open();
    page = await chromium.page();
    await signIn(page, server.address, 'admin');
  });
  afterAll(async () => {
    await chromium.close();
    await database.destroy();
    await server.close();
  });

  /** One step further down: the links that are drawn, and whether the page was at its end. A page that is drawn late is not waited for. */
  const scrollOn = (rows: string): Promise<{ texts: string[]; still: boolean }> =>
    page.evaluate(async (selector) => {
      const texts = Array.from(document.querySelectorAll<HTMLAnchorElement>(selector), (link) => link.textContent ?? '');
      const at = window.scrollY;
      window.scrollBy(0, 600);
      const drawn = new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      await Promise.race([drawn, new Promise((resolve) => setTimeout(resolve, 500))]);
      return { texts, still: window.scrollY === at };
    }, rows);

  /**
   * Scrolls on until `all` domains were drawn and nothing more comes, or nothing new for long: a page may be read late. Gives the most rows
   * that were drawn at a time.
   */
  const scrollThrough = async (rows: string, all: number): Promise<{ seen: number; most: number }> => {
    await page.bringToFront();
    const seen = new Set<string>();
    let [most, still, since] = [0, 0, performance.now()];
    while (still < 25 || (seen.size < all && performance.now() - since < PATIENCE)) {
      const { texts, still: stands } = await scrollOn(rows);
      const before = seen.size;
      for (const text of texts) seen.add(text);
      most = Math.max(most, texts.length);
      still = stands && seen.size === before ? still + 1 : 0;
      if (seen.size > before) since = performance.now();
    }
    return { seen: seen.size, most };
  };

  it('are read on while the Desk is scrolled, and few are drawn at a time', async () => {
    await words(page, 'client-0.example');
    // Those that have nothing next are not on the agenda; the one of the ledger is.
    const due = Array.from({ length: MOVES }, (_, index) => index).filter((index) => index % 7 !== 3).length + 1;
    const { seen, most } = await scrollThrough('section[aria-label="Agenda"] a.font-semibold', due);
    expect([seen, most < 150]).toEqual([due, true]);
  });

  it('are read on in the list of moves as well', async () => {
    await page.goto(`${server.address}/moves`);
    await words(page, `client-${MOVES - 1}.example`);
    const { seen, most } = await scrollThrough('tbody a', MOVES + 1);
    expect([seen, most < 150]).toEqual([MOVES + 1, true]);
  });

  it('of a ledger come in parts, and the last one can be found; nothing is asked for that the page does not show', async () => {
    const asked: string[] = [];
    const note = (request: HTTPRequest): void => void asked.push(new URL(request.url()).pathname);
    page.on('request', note);
    await page.goto(`${server.address}/moves/${move}/rebuild`);
    await words(page, `${ROWS + 1} kept`);
    await page.waitForFunction(() => !document.body.innerText.includes('rows are read'));
    page.off('request', note);
    const times = (path: string): number => asked.filter((one) => one === path).length;
    const admin = await server.signIn('admin');
    const { leg } = (await admin.call<{ moves: { leg: string }[] }>('GET', '/api/moves?text=seed-library')).moves[0]!;
    // The rows, the first and the others, are asked for with the page, when nobody knows yet which leg is the latest; none of it twice.
    expect(['/api/me', `/api/moves/${move}`, `/api/moves/${move}/ledger`, `/api/legs/${leg}/ledger`].map(times)).toEqual([1, 1, 2, 0]);
    // What Find and the lab's clock look through is read once they are opened.
    expect(['/api/moves', '/api/hosts', '/api/sweeps'].map(times)).toEqual([0, 0, 0]);
    await page.locator('input[aria-label="Filter the plan"]').fill(`name-${ROWS - 1}.`);
    await words(page, `name-${ROWS - 1}`);
    expect(await page.$$eval('[aria-label="Ledger"] [data-row]', (rows) => rows.length)).toBe(1);
  });

  it('lie below one another in every picture while the cursor goes through them', async () => {
    await page.locator('input[aria-label="Filter the plan"]').fill('');
    await page.waitForFunction(() => document.querySelectorAll('[aria-label="Ledger"] [data-row]').length > 20);
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.evaluate(() => {
      const seen = { pictures: 0, covered: 0, hidden: 0 };
      (window as unknown as { seen: typeof seen }).seen = seen;
      const look = (): void => {
        const list = document.querySelector('[aria-label="Ledger"]')!;
        const lines = Array.from(list.querySelectorAll('[data-index]'), (one) => ({
          at: Number((one as HTMLElement).dataset['index']),
          box: one.getBoundingClientRect(),
        }));
        lines.sort((a, b) => a.at - b.at);
        const isCovered = lines.some(({ at, box }, index) => lines[index + 1]?.at === at + 1 && lines[index + 1]!.box.top < box.bottom - 1);
        const current = list.querySelector('[aria-current=true]')?.getBoundingClientRect();
        const sight = list.getBoundingClientRect();
        seen.pictures += 1;
        if (isCovered) seen.covered += 1;
        if (!current || current.top < sight.top - 1 || current.bottom > sight.bottom + 1) seen.hidden += 1;
        requestAnimationFrame(look);
      };
      requestAnimationFrame(look);
    });
    // Past the foot of the list, and back.
    for (const key of ['j', 'k'] as const)
      for (let step = 0; step < 40; step++) {
        await page.keyboard.press(key);
        await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(resolve)));
      }
    const seen = await page.evaluate(() => (window as unknown as { seen: { pictures: number; covered: number; hidden: number } }).seen);
    expect(seen.pictures).toBeGreaterThan(80);
    expect([seen.covered, seen.hidden]).toEqual([0, 0]);
  });

  it('have remarks that are found, mended, taken back and let be by keys', async () => {
    await page.locator('input[aria-label="Filter the plan"]').fill('');
    await words(page, /name-0\b/);
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    // From the first row to the only one of which something is said, thousands further on.
    await pressKey(page, 'o', /An alias cannot stand beside A\./);
    await words(page, /m\s*Keep the alias, without A\.\s*name-700 A\s+taken out/);
    await pressKey(page, 'M', /1 left out/);
    await page.waitForFunction(() => !/An alias cannot stand/.test(document.body.innerText));
    await pressKey(page, 'u', /An alias cannot stand beside A\./);
    await pressKey(page, 'w', /Why it may be so/);
    await page.keyboard.type('its panel takes both');
    await page.keyboard.press('Enter');
    await words(page, /Skipped: its panel takes both/);
    await page.waitForFunction(() => !/1 remark/.test(document.body.innerText));
    await press(page, 'No longer');
    await words(page, /1 remark/);
  });

  it('tell what lies behind the row under the cursor, and keep what is written there', async () => {
    await page.locator('input[aria-label="Filter the plan"]').fill('name-1234.');
    await words(page, /name-1234\b/);
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await pressKey(page, 'd', /1 left out/);
    await pressKey(page, 'u', /0 left out/);
    await words(page, /Administrator: left out taken back/);
    await page.keyboard.press('N');
    await page.locator('textarea[aria-label="Comment on this row"]').fill('The client asks <b>first</b>.');
    await press(page, 'Write it');
    await words(page, /The client asks <b>first<\/b>\. Administrator/);
    await press(page, 'take back');
    await page.waitForFunction(() => !/The client asks/.test(document.body.innerText));
  });

  it('are given values that are cleaned as they are pasted, with what was cleaned', async () => {
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await page.keyboard.press('n');
    await page.locator('[role=dialog] input:nth-of-type(1)').wait();
    const [owner, type] = await page.$$('[role=dialog] input');
    await owner!.type('pasted');
    await type!.click({ count: 3 });
    await type!.type('CNAME');
    await page.evaluate(() => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text', 'https://sites.new.example/start');
      const field = document.querySelector('[role=dialog] textarea')!;
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    });
    await words(page, /Cleaned: .*path.* a dot ends it/s);
    expect(await page.$eval('[role=dialog] textarea', (field) => (field as HTMLTextAreaElement).value)).toBe('sites.new.example.');
    // What the plan would say of it is said while it is typed, by the same checks: of thousands of rows, beside the page.
    await owner!.click({ count: 3 });
    await owner!.type('name-5');
    await words(page, /Would stop the move: An alias cannot stand beside A\./);
    await owner!.click({ count: 3 });
    await owner!.type('pasted');
    await page.waitForFunction(() => !/Would stop the move/.test(document.body.innerText));
    await press(page, 'as it was pasted');
    expect(await page.$eval('[role=dialog] textarea', (field) => (field as HTMLTextAreaElement).value)).toBe('https://sites.new.example/start');
    await closeDialog(page);
  });

  it('are ruled by one rule, shown first as the rows that it changes, one of which is taken out', async () => {
    await page.locator('input[aria-label="Filter the plan"]').fill('name-12');
    await press(page, 'Rule all like this');
    await page.locator('[role=dialog] [role=radiogroup] label:nth-of-type(3) input').click();
    // 12, 120 to 129, 1200 to 1299.
    const all = 111;
    await words(page, new RegExp(`${all} rows change`));
    await page.locator('[role=dialog] input[aria-label="name-12 A"]').click();
    await words(page, new RegExp(`${all - 1} rows change`));
    await press(page, `Rule ${all - 1} rows`);
    await words(page, new RegExp(`${all - 1} left out`));
    await page.waitForFunction(() => !document.querySelector('[role=dialog]'));
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    // The rule stands, until it is taken back with what it ruled.
    await pressKey(page, 'R', /Everything like “name-12” is left out Administrator\s+It is over/);
    await closeDialog(page);
    await pressKey(page, 'u', /, 0 left out/);
  });

  it('show where somebody else stands, and what they do, within a moment', async () => {
    await page.locator('input[aria-label="Filter the plan"]').fill('name-5');
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    const api = await server.signIn('admin');
    await api.call('POST', '/api/people', { login: 'beside', name: 'Beside You', role: 'technician', password: DEMO_PASSWORD, mustChange: false });
    const theirs = await chromium.theirs();
    await signIn(theirs, server.address, 'beside');
    await theirs.goto(`${server.address}/moves/${move}/rebuild`);
    await words(theirs, `${ROWS + 1} kept`);
    await theirs.waitForFunction(() => !document.body.innerText.includes('rows are read'));
    await theirs.locator('input[aria-label="Filter the plan"]').fill('name-5');
    await theirs.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    const stands = (on: Page, who: string, name: string): Promise<unknown> =>
      on.waitForFunction(
        (person, row) =>
          Array.from(document.querySelectorAll<HTMLElement>('[data-row]')).some(
            (one) => one.innerText.includes(person) && new RegExp(`${row}\\b`).test(one.innerText),
          ),
        {},
        who,
        name,
      );
    await stands(page, 'Beside You', 'name-5');
    await theirs.keyboard.press('j');
    await stands(page, 'Beside You', 'name-50');
    // Who comes later is told of those who were there.
    await stands(theirs, 'Administrator', 'name-5');
    // Also while keys follow each other here so fast that no time passes between them.
    await page.evaluate(() => {
      const still = performance.now();
      performance.now = () => still;
    });
    await page.keyboard.press('d');
    await theirs.keyboard.press('d');
    await page.waitForFunction(() =>
      Array.from(document.querySelectorAll<HTMLElement>('[data-row]')).some((one) =>
        /^leave out\s+name-50\b/.test(one.innerText.replace('Beside You', '').trim()),
      ),
    );
    await page.evaluate(() => Reflect.deleteProperty(performance, 'now'));
    await pressKey(theirs, 'u', /, 1 left out/);
    await pressKey(page, 'u', /, 0 left out/);
    // Not on the row whose history names them.
    await page.keyboard.press('Home');
    await theirs.goto(`${server.address}/moves`);
    await page.waitForFunction(() => !document.body.innerText.includes('Beside You'));
    await theirs.close();
  });

  /** Every act of a page has its answer. */
  const answered = (on: Page): Promise<unknown> => on.waitForSelector('[aria-label="Ledger"][aria-busy=false]');

  it('end as the server has them, whatever two people do to them at once by their keys', async () => {
    const seed = Number(process.env['SEED'] ?? Math.floor(Math.random() * 1e6));
    let state = seed;
    const random = (below: number): number => (state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0) % below;
    const theirs = await chromium.theirs();
    await signIn(theirs, server.address, 'beside');
    const open = async (on: Page): Promise<void> => {
      await on.goto(`${server.address}/moves/${move}/rebuild`);
      await on.waitForFunction(
        (count) => document.body.innerText.includes(`kept`) && !document.body.innerText.includes('rows are read') && count > 0,
        {},
        ROWS,
      );
      await on.locator('input[aria-label="Filter the plan"]').fill('name-190');
      await on.waitForFunction(() => document.querySelectorAll('[data-row]').length === 11);
      await on.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    };
    await Promise.all([open(page), open(theirs)]);
    const [api, other] = [await server.signIn('admin'), await server.signIn('beside')];
    const { leg } = (await api.call<{ moves: { id: string; leg: string }[] }>('GET', '/api/moves?text=seed-library')).moves[0]!;
    const stored = async (): Promise<string> => {
      const { rulings } = await api.call<{ rulings: { owner: string; ruling: RulingKind }[] }>('GET', `/api/legs/${leg}/ledger?limit=5000`);
      return rulings
        .flatMap(({ owner, ruling }) => (owner.includes('name-190') ? [`${owner.split('.')[0]} ${RULING_LABELS[ruling]}`] : []))
        .sort()
        .join(', ');
    };
    const shown = (on: Page): Promise<string> =>
      on.$$eval('[data-row]', (rows) =>
        rows
          .map((row) =>
            /^(?:\u25cf )?(keep|change|leave out|add)\s+(name-\d+)/.exec((row as HTMLElement).innerText.trim().replace(/(?:Administrator|Beside You)\s+/, '')),
          )
          .map((found) => `${found?.[2]} ${found?.[1]}`)
          .sort()
          .join(', '),
      );
    const before = await stored();
    const keys = ['d', 'c', 'd', 'c', 'j', 'j', 'k', 'u', 'u', 'U', 'x', 'Escape', 'Home', 'End'] as const;
    for (let step = 0; step < 90; step++) {
      await (random(2) === 0 ? page : theirs).keyboard.press(keys[random(keys.length)]!);
      // One of them begins anew in the middle of it.
      if (step === 45) await open(theirs);
    }
    // What is compared is compared once nothing is under way.
    const same = async (): Promise<void> => {
      for (const on of [page, theirs]) await answered(on);
      let last = '';
      await until(
        () => `seed ${seed}: both pages show what is stored: ${last}`,
        async () => {
          const all = [await stored(), await shown(page), await shown(theirs)];
          last = all.join(' / ');
          return new Set(all).size === 1;
        },
        30,
      );
    };
    await same();
    // And when each has taken back what is theirs, nothing of it is left.
    for (const by of [api, other, api, other]) {
      for (let more = true; more;) {
        more = await by.call('POST', `/api/legs/${leg}/undo`).then(
          () => true,
          () => false,
        );
      }
    }
    expect([seed, await stored()]).toEqual([seed, before]);
    await same();
    await theirs.close();
  });

  it('can be worked on while the server is away: nothing is lost, and nothing done twice', async () => {
    await page.locator('input[aria-label="Filter the plan"]').fill('name-7');
    await words(page, /name-7\b/);
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await page.keyboard.press('Home');
    await answered(page);
    const before = await database('decisions').count<{ count: string }[]>('* as count');
    const decided = async (): Promise<number> =>
      Number((await database('decisions').count<{ count: string }[]>('* as count'))[0]!.count) - Number(before[0]!.count);
    const dropped = (): Promise<number> =>
      page.$$eval('[data-row]', (rows) => rows.filter((one) => /^leave out/.test((one as HTMLElement).innerText.trim())).length);
    await page.setOfflineMode(true);
    try {
      for (const key of ['d', 'd', 'd', 'u', 'd'] as const) await page.keyboard.press(key);
      await words(page, /Wanderon does not answer since .*5 acts/s);
      // What was ruled stands on the screen as it was ruled, and what was taken back is taken back.
      expect(await dropped()).toBe(3);
      expect(await decided()).toBe(0);
    } finally {
      await page.setOfflineMode(false);
    }
    await page.waitForFunction(() => !document.body.innerText.includes('does not answer'));
    await words(page, /, 3 left out/);
    expect(await decided()).toBe(5);
    // What was shown ahead of the answers gives way to what is read.
    await until('the page shows what is stored', async () => (await dropped()) === 3, 30);
    // What is taken back is shown so before anybody answers, also where nothing else is under way.
    await answered(page);
    await page.setOfflineMode(true);
    try {
      await page.keyboard.press('u');
      await until('the undo is shown', async () => (await dropped()) === 2, 30);
      expect(await decided()).toBe(5);
    } finally {
      await page.setOfflineMode(false);
    }
    await words(page, ', 2 left out');
    for (const left of [1, 0]) {
      await page.keyboard.press('u');
      await words(page, `, ${left} left out`);
    }
  });

  it('are all on paper', async () => {
    await page.emulateMediaType('print');
    await words(page, /seed-library\.example/);
    expect(await page.$$eval('table tbody td:first-child', (cells) => cells.length)).toBe(ROWS + 1);
    await page.emulateMediaType('screen');
    await words(page, /save as zone file/);
  });

  it('stand while a part of the program cannot be read, and are shown by a newer one where the server has it', async () => {
    const fresh = await chromium.page();
    await fresh.goto(`${server.address}/moves/${move}/rebuild`);
    await words(fresh, `${ROWS + 1} kept`);
    let asked = 0;
    let isNewer = false;
    await fresh.setRequestInterception(true);
    fresh.on('request', (request) => {
      const { pathname } = new URL(request.url());
      if (/\/assets\/trailPlace-[^/]*\.js$/.test(pathname)) {
        asked += 1;
        // Until the page is loaded anew.
        return void (asked <= 2 ? request.respond({ status: 404, body: '' }) : request.continue());
      }
      // The page as another program's, which a loaded page is told of once.
      if (isNewer && pathname === '/trail' && request.resourceType() === 'fetch')
        return void request.respond({ contentType: 'text/html', body: '<html></html>' });
      return void request.continue();
    });
    await fresh.evaluate(() => {
      history.pushState({}, '', '/trail');
      window.dispatchEvent(new PopStateEvent('popstate'));
    });
    await words(fresh, /This part of Wanderon could not be read\.\s+Check the connection/);
    // The rest of the page stands, and the server has no other program.
    expect(await fresh.$('nav[aria-label="Places"]')).not.toBeNull();
    isNewer = true;
    await press(fresh, 'Try again');
    await words(fresh, /What is on record/);
    expect(asked).toBe(3);
    await fresh.close();
  });

  it('of a move that is not there are not waited for', async () => {
    const fresh = await chromium.page();
    for (const [place, says] of [
      [`${randomUUID()}/rebuild`, 'There is no such move.'],
      ['gone/watch', 'There is no such move.'],
      ['..%2Fme/survey', 'There is nothing at this address.'],
    ] as const) {
      await fresh.goto(`${server.address}/moves/${place}`);
      await words(fresh, says);
    }
    await fresh.close();
  });

  it('of which some cannot be read are shown, with how many are lacking; nothing else is made of them', async () => {
    const fresh = await chromium.page();
    let isAway = true;
    await fresh.setRequestInterception(true);
    fresh.on('request', (request) => {
      const refused = { status: 503, contentType: 'application/problem+json', body: '{"type":"about:blank","title":"The rest is away.","status":503}' };
      void (isAway && /[?&]limit=5000/.test(request.url()) ? request.respond(refused) : request.continue());
    });
    await fresh.goto(`${server.address}/moves/${move}/rebuild`);
    await words(fresh, new RegExp(`500 of ${ROWS + 1} rows are read`));
    await words(fresh, /The rest is away\./);
    expect(await fresh.$('[data-row]')).not.toBeNull();
    expect(await fresh.evaluate(() => document.body.innerText)).not.toMatch(/save as|Rule all like this/);
    await fresh.emulateMediaType('print');
    await fresh.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
    await words(fresh, `without ${ROWS + 1 - 500} rows that could not be read`);
    await fresh.evaluate(() => window.dispatchEvent(new Event('afterprint')));
    await fresh.emulateMediaType('screen');
    await fresh.goto(`${server.address}/moves/${move}/compare?a=survey&b=plan`);
    await words(fresh, /The rest is away\./);
    expect(await fresh.evaluate(() => document.body.innerText)).not.toMatch(/record sets/);
    isAway = false;
    await press(fresh, 'Try again');
    // What the address names wrongly is what the plan is made from.
    await words(fresh, new RegExp(`All ${ROWS + 1} record sets have the same values`));
    await fresh.close();
  });

  it('are held against a file in hand, which the plan is made like, and made as it was by one key', async () => {
    await page.goto(`${server.address}/moves/${move}/compare?a=hand&b=plan`);
    const lines = Array.from({ length: ROWS }, (_, index) =>
      index === ALIAS ? 'name-700 60 CNAME name-1' : `name-${index} 3600 A 192.0.2.${index === 3 ? 9 : 7}`,
    );
    await paste(page, 'The file in hand', `$ORIGIN seed-library.example.\n${lines.join('\n')}\nextra 60 TXT "more"\n`);
    // Another value, one more in the file, one less; another TTL.
    await words(page, new RegExp(`3 record sets of ${ROWS + 2} otherwise · 1 with another TTL alone`));
    await words(page, /name-3\s+A\s+192\.0\.2\.9\s+192\.0\.2\.7\s+other values/);
    await press(page, 'Make the plan like the file: 4 rows');
    await words(page, new RegExp(`All ${ROWS + 1} record sets have the same values`));
    await page.goto(`${server.address}/moves/${move}/rebuild`);
    await words(page, /2 changed, 1 left out, 1 added/);
    await page.waitForFunction(() => !document.body.innerText.includes('rows are read'));
    await pressKey(page, 'u', new RegExp(`${ROWS + 1} kept, 0 changed, 0 left out, 0 added`));
  });

  it('that come after a rule was made are offered to it, with what would become of them, and ruled only where somebody says so', async () => {
    await page.goto(`${server.address}/moves/${move}/rebuild`);
    await words(page, `${ROWS + 1} kept`);
    await page.locator('input[aria-label="Filter the plan"]').fill('name-12');
    await press(page, 'Rule all like this');
    await page.locator('[role=dialog] [role=radiogroup] label:nth-of-type(3) input').click();
    await press(page, 'Rule 111 rows');
    await words(page, /, 111 left out/);
    // As one that appeared at the old host and was taken into the plan.
    const later = randomUUID();
    const set = { owner: 'name-12-later.seed-library.example.', type: 'A', ttl: 3600, data: ['192.0.2.7'] };
    const row = { owner: set.owner, type: 'A', ruling: 'carry', found: set, planned: set, reason: CHANGED_SINCE };
    const { id: leg } = await database('legs').where({ move_id: move }).first<{ id: string }>('id');
    await database('decisions').insert({ leg_id: leg, kind: 'ruling', subject: later, value: JSON.stringify({ row }), at: 1e9 });
    await database('moves').where({ id: move }).increment('version', 1);
    await page.reload();
    const offer = /“Everything like “name-12” is left out” \(Administrator\): 1 row came later, name-12-later A\./;
    await words(page, offer);
    await words(page, new RegExp(`${ROWS + 2 - 111} kept, 0 changed, 111 left out`));
    await press(page, 'Look at it');
    await words(page, /It counts for them only if you say so[^]*name-12-later A[^]*192\.0\.2\.7[^]*Rule 1 row so/);
    await press(page, 'Leave it');
    await words(page, offer);
    await press(page, 'Look at it');
    await page.locator('[role=dialog] input[aria-label="name-12-later A"]').click();
    await page.waitForSelector('xpath/.//button[contains(., "Rule 0 rows so") and @disabled]');
    await page.locator('[role=dialog] input[aria-label="name-12-later A"]').click();
    // These words stand there for four seconds, which a busy machine can take to come back.
    await Promise.all([words(page, /1 row is decided; u takes it back\./), press(page, 'Rule 1 row so')]);
    await words(page, /112 left out/);
    await page.waitForFunction(() => !document.body.innerText.includes('came later'));
    await pressKey(page, 'u', /111 left out/);
    await words(page, offer);
    await press(page, 'Look at it');
    await press(page, 'The rule is over');
    await page.waitForFunction(() => !document.body.innerText.includes('came later'));
    // Its end is taken back like anything else, and so is the rule with all that it ruled.
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await pressKey(page, 'u', offer);
    await pressKey(page, 'u', /, 0 left out/);
    await page.waitForFunction(() => !document.body.innerText.includes('came later'));
  });
});
