import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { Browser, ElementHandle, HTTPRequest, KeyInput, Page } from 'puppeteer-core';
import { until } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { codeWordsIn } from './plainWords';

/** With SCREENSHOTS=1 the pictures of docs/screenshots are taken anew. */
const PICTURES = process.env['SCREENSHOTS'] ? join(__dirname, '../../../docs/screenshots') : undefined;

/** The page as it stands, for the documentation; nothing where no pictures are wanted. */
export async function picture(page: Page, name: string): Promise<void> {
  if (!PICTURES) return;
  mkdirSync(PICTURES, { recursive: true });
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({ path: join(PICTURES, `${name}.png`) as `${string}.png` });
}

/** Debian's Chromium, in the form that never had a window and takes a fifth less of the processors; one profile a run. */
export class Chromium {
  private readonly profile = mkdtempSync(join(tmpdir(), 'wanderon-chromium-'));
  /** What went wrong on any page: errors thrown, and complaints of the console. */
  readonly complaints: string[] = [];
  private browser!: Browser;

  async open(): Promise<this> {
    this.browser = await puppeteer.launch({
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium-headless-shell',
      userDataDir: this.profile,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--lang=en-GB',
      ],
    });
    return this;
  }

  async page(width = 1280, height = 800): Promise<Page> {
    return this.listened(await this.browser.newPage(), width, height);
  }

  /** A page of somebody else: in a window of its own, since one that is hidden behind another is not drawn, and is waited for in vain. */
  async theirs(width = 1280, height = 800): Promise<Page> {
    return this.listened(await (await this.browser.createBrowserContext()).newPage(), width, height);
  }

  private async listened(page: Page, width: number, height: number): Promise<Page> {
    page.setDefaultTimeout(120_000);
    pressesElements(page);
    // Keys reach it, and it is drawn, whatever other window was opened last.
    await (await page.createCDPSession()).send('Emulation.setFocusEmulationEnabled', { enabled: true });
    await page.setViewport({ width, height });
    page.on('pageerror', (error) => this.complaints.push(String(error)));
    page.on('console', (message) => {
      // Chromium itself reports a refused request; the page shows it in words.
      if (message.type() === 'error' && !message.text().startsWith('Failed to load resource')) this.complaints.push(message.text());
    });
    return page;
  }

  async close(): Promise<void> {
    await this.browser?.close();
    rmSync(this.profile, { recursive: true, force: true, maxRetries: 5 });
  }
}

/** Puts a text, an empty one too, into a field in the place of what stands there, as the page notices it. */
async function filled(page: Page, selector: string, value: string): Promise<void> {
  const field = await page.waitForSelector(selector);
  await field!.focus();
  await field!.evaluate((element, text) => {
    const box = element as HTMLInputElement | HTMLTextAreaElement;
    const kind = box instanceof HTMLTextAreaElement ? HTMLTextAreaElement : HTMLInputElement;
    Object.getOwnPropertyDescriptor(kind.prototype, 'value')!.set!.call(box, text);
    box.dispatchEvent(new Event('input', { bubbles: true }));
    box.dispatchEvent(new Event('change', { bubbles: true }));
  }, value);
}

/**
 * Sends the form of somebody else's page and waits for the page that follows. Where the browser got none, as when this machine's network
 * changed meanwhile, the form is sent again, as a person would; what the browser said of it is printed.
 */
export async function sendForm(page: Page): Promise<void> {
  const failed: string[] = [];
  const note = (request: HTTPRequest): void => void failed.push(`${request.method()} ${request.url()}: ${request.failure()?.errorText}`);
  page.on('requestfailed', note);
  await Promise.all([page.waitForNavigation(), page.locator('button').click()]);
  for (let again = 0; again < 3 && page.url().startsWith('chrome-error:'); again++) await page.reload();
  page.off('requestfailed', note);
  if (failed.length > 0) console.warn(failed.join('\n'));
}

/** What is pressed is the element and not its place: on a busy machine a page can be drawn late, and a place is waited for in vain. */
function pressesElements(page: Page): void {
  const locate = page.locator.bind(page);
  const pressed = async (selector: string): Promise<void> => {
    await until(
      () => `${selector} can be pressed at ${page.url()}`,
      async () => {
        const element = await page.$(selector);
        return element?.evaluate((one) => {
          if (one.closest(':disabled')) return false;
          (one as HTMLElement).click();
          return true;
        });
      },
      120,
    );
  };
  page.locator = ((selector: string) => {
    const locator = locate(selector).setEnsureElementIsInTheViewport(false).setWaitForStableBoundingBox(false);
    locator.click = () => pressed(selector);
    locator.fill = (value) => filled(page, selector, String(value));
    return locator;
  }) as Page['locator'];
}

/** Presses a key, again if need be, until the page says so: a key that comes while the page is being made anew is lost. */
export async function pressKey(page: Page, key: KeyInput, says: RegExp): Promise<void> {
  await until(
    () => `after ${key} the page says ${says.source}`,
    async () => {
      await page.keyboard.press(key);
      const end = performance.now() + 2000;
      while (performance.now() < end) if (says.test(await page.evaluate(() => document.body.innerText))) return true;
      return undefined;
    },
  );
}

/** Closes what is open over the page; the first key may have closed a word at its foot instead. */
export async function closeDialog(page: Page): Promise<void> {
  await until('no dialog is open', async () => {
    await page.keyboard.press('Escape');
    return (await page.$('[role=dialog]')) === null || undefined;
  });
}

export const button = (name: string): string => `::-p-aria([name="${name}"][role="button"])`;
/** Skips one check of the gate, by its key, with a reason. */
export async function skipCheck(page: Page, line: string, reason: string): Promise<void> {
  await page.locator(`[data-line="${line}"] ::-p-aria([name="Skip this check"][role="button"])`).click();
  await page.locator(`[data-line="${line}"] input[aria-label="Why it may be skipped"]`).fill(reason);
  await page.keyboard.press('Enter');
}

/** Screens from the top of a chapter at which an act that comes next may stand: it is in sight, or one screen further. */
const SCREENS = 2;

/** Throws an Error where somebody would have to look for it further down a chapter than that. */
export async function near(element: ElementHandle): Promise<void> {
  const screens = await element.evaluate((one) => {
    const box = one.closest('[data-scrolls]');
    if (!box || one.closest('[role=dialog]')) return 0;
    return (one.getBoundingClientRect().bottom - box.getBoundingClientRect().top + box.scrollTop) / box.clientHeight;
  });
  if (screens > SCREENS) throw new Error(`${await element.evaluate((one) => one.textContent)} stands ${screens.toFixed(1)} screens down its page`);
}

/** Presses a button once it can be pressed, wherever it stands by then: pages go on changing while a clock hurries. */
export async function press(page: Page, name: string): Promise<void> {
  const element = await page.waitForSelector(button(name));
  await near(element!);
  await page.locator(button(name)).click();
}

/** Where a change has been decided; a quick look sees it take effect before the page has said that it waits. */
export const SUBMITTED = /Waiting for the registry to publish the change|The registry publishes the new nameservers since/;
export const CHANGED = /Waiting until every nameserver gives the new values|Every nameserver gives the new values since/;

/** Presses a button, again if need be, until the page says so: an act that looks first may find that a look came late, and refuse. */
export async function pressUntil(page: Page, name: string, says: RegExp): Promise<void> {
  let shown = '';
  await until(
    () => `pressed ${name}, the page says ${says.source}: ${shown}`,
    async () => {
      shown = await page.evaluate(() => document.body.innerText.slice(0, 2500));
      if (says.test(shown)) return true;
      const element = await page.$(button(name));
      if (element) await near(element);
      await element?.evaluate((one) => (one as HTMLButtonElement).click());
      return undefined;
    },
  );
}

export const link = (name: string): string => `::-p-aria([name="${name}"][role="link"])`;
export const field = (name: string): string => `::-p-aria([name="${name}"][role="textbox"])`;

/** Puts a text of several lines into a field, as pasting does. */
export async function paste(page: Page, name: string, text: string): Promise<void> {
  await filled(page, field(name), text);
}

export async function signIn(page: Page, address: string, login: string): Promise<void> {
  await page.goto(address);
  await page.locator(field('Login')).fill(login);
  await page.locator('input[type=password]').fill(DEMO_PASSWORD);
  await page.locator(button('Sign in')).click();
  await page.waitForSelector('nav[aria-label="Places"]');
}

/** Waits for words anywhere on the page. */
export async function words(page: Page, text: string | RegExp, timeout = 120_000): Promise<void> {
  const source = typeof text === 'string' ? text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&') : text.source;
  try {
    await page.waitForFunction((pattern: string) => new RegExp(pattern).test(document.body.innerText), { timeout, polling: 100 }, source);
  } catch (error) {
    throw new Error(`the page never said ${String(text)}; it says:\n${await page.evaluate(() => document.body.innerText.slice(0, 2500))}`, { cause: error });
  }
}

/** Throws an Error where the page says anything in words of the code: every page is read before it is left. */
async function plain(page: Page): Promise<void> {
  const [found] = codeWordsIn(await page.evaluate(() => document.body.innerText));
  if (found !== undefined) throw new Error(`${page.url()} is said in words of the code: ${found}`);
}

/** The row of the ledger that a key acts on; before it stands there, a key has nothing to act on. */
export const CURRENT_ROW = '[data-index] [aria-current=true]';

/**
 * Opens a chapter of the move that is on the screen, or one of the pages beside them. What they still lack changes while they are
 * aimed at: the link itself is pressed, not the place where it stood.
 */
export async function chapter(
  page: Page,
  name: 'survey' | 'rebuild' | 'timetable' | 'switch' | 'watch' | 'notes' | 'trail' | 'asked' | 'sheet',
): Promise<void> {
  const link = await page.waitForSelector(`nav[aria-label="Chapters"] a[href$="/${name}"]`);
  await plain(page);
  await link!.evaluate((element) => (element as HTMLAnchorElement).click());
}

/** At the front door of a leg: hosts that are known already, by how their names begin, and a way; then the plan is made. */
export async function goesTo(page: Page, { way, dns, web }: { way?: string; dns?: string; web?: string }): Promise<void> {
  const settled = (): Promise<boolean> => page.evaluate(() => document.querySelector('[aria-busy=false]') !== null);
  await page.waitForSelector('textarea[aria-label="What the new place gave you"]');
  for (const [label, name] of [
    ['New DNS host', dns],
    ['New web host', web],
  ] as const) {
    if (name === undefined) continue;
    const select = `select[aria-label="${label}"]`;
    const value = await page.$eval(
      select,
      (element, start) => [...(element as HTMLSelectElement).options].find((one) => one.text.startsWith(start))?.value,
      name,
    );
    if (value === undefined) throw new Error(`${label}: there is no ${name} to choose.`);
    await page.select(select, value);
  }
  await until('what follows is known', settled);
  if (way !== undefined) {
    await page.evaluate(() => document.querySelectorAll('fieldset details').forEach((fold) => fold.setAttribute('open', '')));
    await page.locator(`input[name=way][value="${way}"]`).click();
    await until('what follows is known', settled);
  }
  await press(page, 'Make the plan');
}
