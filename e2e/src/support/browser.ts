import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { Browser, Page } from 'puppeteer-core';
import { DEMO_PASSWORD } from '../../../command/src/demoData';

/** With SCREENSHOTS=1 the pictures of docs/screenshots are taken anew. */
const PICTURES = process.env['SCREENSHOTS'] ? join(__dirname, '../../../docs/screenshots') : undefined;

/** The page as it stands, for the documentation; nothing where no pictures are wanted. */
export async function picture(page: Page, name: string): Promise<void> {
  if (!PICTURES) return;
  mkdirSync(PICTURES, { recursive: true });
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({ path: join(PICTURES, `${name}.png`) as `${string}.png` });
}

/** Debian's Chromium without a window, one profile a run. */
export class Chromium {
  private readonly profile = mkdtempSync(join(tmpdir(), 'wanderon-chromium-'));
  /** What went wrong on any page: errors thrown, and complaints of the console. */
  readonly complaints: string[] = [];
  private browser!: Browser;

  async open(): Promise<this> {
    this.browser = await puppeteer.launch({
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
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
    const page = await this.browser.newPage();
    page.setDefaultTimeout(60_000);
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

export const button = (name: string): string => `::-p-aria([name="${name}"][role="button"])`;
export const link = (name: string): string => `::-p-aria([name="${name}"][role="link"])`;
export const field = (name: string): string => `::-p-aria([name="${name}"][role="textbox"])`;

/** Puts a text of several lines into a field, as pasting does. */
export async function paste(page: Page, name: string, text: string): Promise<void> {
  const area = await page.waitForSelector(field(name));
  await area!.evaluate((element, value) => {
    const box = element as HTMLTextAreaElement;
    Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!.call(box, value);
    box.dispatchEvent(new Event('input', { bubbles: true }));
  }, text);
}

export async function signIn(page: Page, address: string, login: string): Promise<void> {
  await page.goto(address);
  await page.locator(field('Login')).fill(login);
  await page.locator('input[type=password]').fill(DEMO_PASSWORD);
  await page.locator(button('Sign in')).click();
  await page.waitForSelector('nav[aria-label="Places"]');
}

/** Waits for words anywhere on the page. */
export async function words(page: Page, text: string | RegExp, timeout = 60_000): Promise<void> {
  const source = typeof text === 'string' ? text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&') : text.source;
  try {
    await page.waitForFunction((pattern: string) => new RegExp(pattern).test(document.body.innerText), { timeout, polling: 100 }, source);
  } catch (error) {
    throw new Error(`the page never said ${String(text)}; it says:\n${await page.evaluate(() => document.body.innerText.slice(0, 2500))}`, { cause: error });
  }
}

/** The row of the ledger that a key acts on; before it stands there, a key has nothing to act on. */
export const CURRENT_ROW = '[data-index] [aria-current=true]';

/** Opens a chapter of the move that is on the screen. */
export async function chapter(page: Page, name: 'survey' | 'rebuild' | 'timetable' | 'switch' | 'watch' | 'trail'): Promise<void> {
  await page.locator(`nav[aria-label="Chapters"] a[href$="/${name}"]`).click();
}
