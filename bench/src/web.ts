import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LedgerPage } from '@wanderon/contract';
import { Name, Ruling, checkRulings, planFile } from '@wanderon/core';
import { KeyInput, Page, launch } from 'puppeteer-core';
import { PASSWORD, startApp } from './support/app';
import { SETS, fill } from './support/fill';
import { median, spread } from './support/measure';

/** Of a hundred, five may be slower than what is said of 95. */
const TIMES = 100;
const CHECK_ROUNDS = 12;
const WARMING = 4;
const OPENINGS = 15;
/** Milliseconds that a long task may take at most. */
const LONG = 100;

/** What the ledger of 5,000 sets costs in Chromium, from key to painted, against a frame; and its checks against named-checkzone. */
async function main(): Promise<void> {
  const app = await startApp();
  // What it fetches is not told to the driver meanwhile: that costs the page a tenth of its time.
  const browser = await launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox'],
    networkEnabled: false,
    defaultViewport: { width: 1280, height: 800 },
  });
  try {
    const leg = await fill(app.database);
    const { id: move } = await app.database('legs').where({ id: leg }).first<{ id: string }>('move_id as id');
    await checks(await rowsOf(app.api.call.bind(app.api), leg));
    const page = await browser.newPage();
    page.setDefaultTimeout(120_000);
    await page.goto(app.address);
    await page.locator('input[autocomplete=username]').fill('admin');
    await page.locator('input[type=password]').fill(PASSWORD);
    await page.keyboard.press('Enter');
    await page.waitForSelector('nav[aria-label="Places"]');
    await opening(page, `${app.address}/moves/${move}/rebuild`);
    await page.goto(`${app.address}/moves/${move}/rebuild`);
    await page.waitForSelector('[data-row]');
    await settled(page);
    await page.evaluate(watchKeys);
    const frame = await page.evaluate(frameTime);
    const report = (what: string, times: readonly number[]): void => {
      const sorted = [...times].sort((a, b) => a - b);
      const late = sorted[Math.ceil(sorted.length * 0.95) - 1]!;
      console.log(
        `${what}, ${SETS} sets: ${(median(times) / frame).toFixed(2)} frames from key to painted, 95 of 100 within ${(late / frame).toFixed(2)} (a frame: ${frame.toFixed(1)} ms; ${median(times).toFixed(0)} ms, ${late.toFixed(0)} ms)`,
      );
    };
    const repeated = async (act: (index: number) => Promise<number>): Promise<number[]> => {
      const times: number[] = [];
      for (let i = 0; i < TIMES; i++) times.push(await act(i));
      return times;
    };
    await page.evaluate(() => document.querySelector<HTMLElement>('[data-row]')!.click());
    report('to the next row, which unfolds', await repeated(() => key(page, 'j', CURRENT)));
    report('ruling one row, and on to the next', await repeated((index) => key(page, index % 2 === 0 ? 'd' : 'c', index % 2 === 0 ? '^drop' : '^carry')));
    await settled(page);
    for (const one of ['d', 'k'] as const) await page.keyboard.press(one);
    await settled(page);
    report('undoing it, and doing it again', await repeated((index) => key(page, index % 2 === 0 ? 'u' : 'U', index % 2 === 0 ? '^(carry|repoint)' : '^drop')));
    await settled(page);
    report('filtering', await repeated((index) => filter(page, `name-${100 + index}`)));
    await filter(page, 'name-4');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press('X');
    const marked = await marks(page);
    const many: number[] = [];
    for (let i = 0; i < 6; i++) {
      if (i > 0) await page.keyboard.press('X');
      await marks(page);
      many.push(await key(page, i % 2 === 0 ? 'd' : 'c', i % 2 === 0 ? '^drop' : '^carry'));
      await settled(page);
    }
    report(`ruling ${marked}`, many);
    const longest = await page.evaluate(() => (window as unknown as Watched).longest);
    console.log(`longest task on the page's thread meanwhile: ${longest.toFixed(0)} ms (${(longest / frame).toFixed(1)} frames; at most ${LONG} ms wanted)`);
  } finally {
    await browser.close();
    await app.stop();
  }
}

interface Watched {
  longest: number;
  /** When the last key came, by the page's own clock. */
  pressed: number;
}

/** The row under the cursor, so that a move is seen: its name changes. */
const CURRENT = 'another row';

function watchKeys(): void {
  const watched = window as unknown as Watched;
  watched.longest = 0;
  performance.setResourceTimingBufferSize(100_000);
  new PerformanceObserver((list) => list.getEntries().forEach((entry) => (watched.longest = Math.max(watched.longest, entry.duration)))).observe({
    type: 'longtask',
  });
  for (const event of ['keydown', 'input'] as const) window.addEventListener(event, (one) => (watched.pressed = one.timeStamp), true);
}

/** Milliseconds between two frames while nothing is done. */
function frameTime(): Promise<number> {
  return new Promise((resolve) => {
    const gaps: number[] = [];
    let last = performance.now();
    const next = (now: number): void => {
      gaps.push(now - last);
      last = now;
      if (gaps.length < 60) requestAnimationFrame(next);
      else resolve(gaps.sort((a, b) => a - b)[30]!);
    };
    requestAnimationFrame(next);
  });
}

/** Presses a key; gives the milliseconds until the row that was under the cursor says what it is to say, or another one is, and is painted. */
async function key(page: Page, name: KeyInput, says: string): Promise<number> {
  const before = await page.evaluate(() => {
    (window as unknown as Watched).pressed = 0;
    return /name-\d+/.exec(document.querySelector<HTMLElement>('[aria-current=true]')?.innerText ?? '')?.[0] ?? '';
  });
  const painted = page.evaluate(paintedWhen, says === CURRENT ? null : says, before);
  await page.keyboard.press(name);
  return painted;
}

function paintedWhen(says: string | null, before: string): Promise<number> {
  const watched = window as unknown as Watched;
  const began = performance.now();
  return new Promise((resolve, reject) => {
    const look = (): void => {
      const nameOf = (text: string): string => /name-\d+/.exec(text)?.[0] ?? '';
      const current = document.querySelector<HTMLElement>('[aria-current=true]')?.innerText ?? '';
      const row = [...document.querySelectorAll<HTMLElement>('[data-row]')].map((one) => one.innerText).find((text) => nameOf(text) === before) ?? '';
      const holds = says === null ? nameOf(current) !== before : new RegExp(says, 'i').test(row.trim().replace(/^●\s*/, ''));
      // What was set before this frame is painted with it: the next one tells when that was over.
      if (holds && watched.pressed > 0) requestAnimationFrame(() => resolve(performance.now() - watched.pressed));
      else if (performance.now() - began > 30_000) reject(new Error(`the row never said ${says}: ${row}`));
      else requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
}

/** Puts a text into the filter; gives the milliseconds until only such rows are painted. */
async function filter(page: Page, text: string): Promise<number> {
  return page.evaluate((label) => {
    const box = document.querySelector<HTMLInputElement>('input[aria-label="Filter the plan"]')!;
    const began = performance.now();
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(box, label);
    box.dispatchEvent(new Event('input', { bubbles: true }));
    return new Promise<number>((resolve, reject) => {
      const look = (): void => {
        const rows = [...document.querySelectorAll<HTMLElement>('[data-row]')];
        if (rows.length > 0 && rows.every((row) => row.innerText.includes(label))) requestAnimationFrame(() => resolve(performance.now() - began));
        else if (performance.now() - began > 30_000) reject(new Error('the filter never took'));
        else requestAnimationFrame(look);
      };
      requestAnimationFrame(look);
    });
  }, text);
}

async function marks(page: Page): Promise<number> {
  await page.waitForFunction(() => /\d+ marked/.test(document.body.innerText));
  return page.evaluate(() => Number(/(\d+) marked/.exec(document.body.innerText)![1]));
}

/** Until what was decided is read back, and nothing more is asked for. */
async function settled(page: Page): Promise<void> {
  await page.evaluate(async () => {
    const asked = (): number => performance.getEntriesByType('resource').length;
    for (let before = -1, still = 0; still < 8;) {
      await new Promise((resolve) => setTimeout(resolve, 100));
      still = asked() === before ? still + 1 : 0;
      before = asked();
    }
  });
}

/** Milliseconds after which the server works a move out anew (packages/server/src/moves/loadedMoves.ts), as it does for most who open one. */
const UNSEEN = 2500;

/** What is there already when the ledger is opened, and how that is said. */
const OPENED = [
  { words: 'where the browser has nothing of it', cached: false, rest: 0 },
  { words: 'where the browser has its program already, and nobody looked at the move just before', cached: true, rest: UNSEEN },
  { words: 'where the browser has its program already, and the server has worked the move out just before', cached: true, rest: 0 },
] as const;

/** A page of the same server that does nothing: an answer that the browser shows as it is. */
const EMPTY = '/api/clock';

/**
 * From the address to all rows read, by the page's own clock, which begins with the navigation; against an empty page that fetches and parses
 * the same bytes at once: program, styles, fonts, and every answer of the server.
 */
async function opening(page: Page, address: string): Promise<void> {
  const cache = await page.createCDPSession();
  for (const { words, cached, rest } of OPENED) {
    const ratios: number[] = [];
    for (let round = 0; round < OPENINGS; round++) {
      const begin = async (): Promise<void> => {
        if (!cached) await cache.send('Network.clearBrowserCache');
        await new Promise((resolve) => setTimeout(resolve, rest));
      };
      await begin();
      await page.goto(address);
      // Its text alone is read, which lays nothing out.
      const opened = await page.evaluate(
        (count) =>
          new Promise<number>((resolve) => {
            const look = (): void => {
              const text = document.getElementById('root')?.textContent ?? '';
              if (text.includes(`${count} carried`) && !text.includes('rows are read')) resolve(performance.now());
              else requestAnimationFrame(look);
            };
            look();
          }),
        SETS / 2,
      );
      const read = await page.evaluate(() => [window.location.href, ...performance.getEntriesByType('resource').map((one) => one.name)]);
      await begin();
      await page.goto(new URL(EMPTY, address).href);
      ratios.push(opened / (await page.evaluate(parseAll, [...new Set(read)].filter(isWhole))));
    }
    console.log(`opening the ledger until all ${SETS} rows are there, ${words}: ${spread(ratios)} times an empty page that fetches and parses the same bytes`);
  }
}

/** What the page reads to its end: changes are told without one, and where the cursor stands is only told. */
const isWhole = (address: string): boolean => !/\/api\/live$|\/cursor$/.test(address);

/** Milliseconds from the navigation to this page until it has fetched and parsed all of that, runs in the page. */
async function parseAll(addresses: readonly string[]): Promise<number> {
  const [{ domInteractive }] = performance.getEntriesByType('navigation') as [PerformanceNavigationTiming];
  const from = performance.now();
  const module = (href: string): Promise<unknown> =>
    new Promise((resolve, reject) => {
      const link = document.createElementNS('http://www.w3.org/1999/xhtml', 'link') as HTMLLinkElement;
      link.rel = 'modulepreload';
      link.href = href;
      link.onload = resolve;
      link.onerror = () => reject(new Error(`${href} is not to be had.`));
      document.documentElement.append(link);
    });
  const read = async (address: string): Promise<unknown> => {
    if (address.endsWith('.js')) return module(address);
    const answer = await fetch(address);
    if (!answer.ok) throw new Error(`${address} answers ${answer.status}.`);
    if (address.includes('/api/')) return answer.json();
    return address.endsWith('.css') ? new CSSStyleSheet().replace(await answer.text()) : answer.arrayBuffer();
  };
  await Promise.all(addresses.map(read));
  // Without what passed between the two, which is the driver's.
  return domInteractive + performance.now() - from;
}

async function rowsOf(call: (method: string, path: string) => Promise<unknown>, leg: string): Promise<LedgerPage['rulings']> {
  const rows: LedgerPage['rulings'] = [];
  for (let next: string | null = ''; next !== null;) {
    const page = (await call('GET', `/api/legs/${leg}/ledger${next ? `?after=${next}` : ''}`)) as LedgerPage;
    rows.push(...page.rulings);
    next = page.next;
  }
  return rows;
}

/** All checks over the plan, against the checks that a real server makes of the same zone. */
async function checks(rows: LedgerPage['rulings']): Promise<void> {
  const rulings = rows.map((row): Ruling => ({ ...row, found: row.found ?? undefined, planned: row.planned ?? undefined }));
  const apex = rulings[0]!.owner.split('.').slice(1).join('.');
  const zone = Name.parse(apex);
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-bench-'));
  const file = join(folder, 'plan.zone');
  writeFileSync(
    file,
    `$TTL 300\n${apex} SOA ns1.new.example. h.new.example. 1 2 3 4 5\n${apex} NS ns1.new.example.\n${planFile(zone, rulings, { entry: null }, 'settled')}`,
  );
  const ratios: number[] = [];
  for (let round = 0; round < CHECK_ROUNDS; round++) {
    const began = performance.now();
    const apexAlias = { host: 'New DNS', takes: false, known: true };
    // A plan of its own each time: what is worked out of one is held.
    checkRulings({
      zone,
      rulings: [...rulings],
      oldWeb: [],
      newWeb: undefined,
      fronted: [],
      outside: null,
      lacks: [],
      most: null,
      ttls: null,
      redirects: [],
      faults: [],
      sharedServers: [],
      leaves: undefined,
      edge: undefined,
      apexAlias,
    });
    const ours = performance.now() - began;
    const from = performance.now();
    const checked = spawnSync('named-checkzone', ['-i', 'local', '-q', apex, file]);
    if (checked.status !== 0) throw new Error(`named-checkzone: ${checked.stderr?.toString() ?? checked.error?.message}`);
    // What runs for the first time is not what people meet while they type.
    if (round >= WARMING) ratios.push(ours / (performance.now() - from));
  }
  rmSync(folder, { recursive: true, force: true });
  console.log(`every check over ${SETS} sets: ${spread(ratios)} times named-checkzone -i local`);
}

void main();
