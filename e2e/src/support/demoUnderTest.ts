import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DnsClient } from '@wanderon/net';
import { Page } from 'puppeteer-core';
import { until } from '../../../command/src/api';
import { Demo, openDemo } from '../../../command/src/demo';
import { Chromium, signIn } from './browser';
import { LabZones } from './labZones';

/** The demo with its lab, a browser to drive it, and a client to ask the lab's own servers. */
export class DemoUnderTest {
  readonly chromium = new Chromium();
  private readonly folder = mkdtempSync(join(tmpdir(), 'wanderon-demo-'));
  private demo: Demo | undefined;
  zones!: LabZones;

  /** `bare`: without moves that are under way; `empty`: with nothing described. */
  async open(options: { readonly bare: boolean; readonly empty?: boolean }): Promise<this> {
    chmodSync(this.folder, 0o711);
    this.demo = await openDemo({ data: this.folder, quiet: true, ...options, port: 0 }, () => undefined);
    this.zones = await LabZones.of(this.lab);
    await this.chromium.open();
    return this;
  }

  /** A page on which the technician is signed in. */
  async signedIn(): Promise<Page> {
    const page = await this.chromium.page();
    await signIn(page, this.address, 'technician');
    return page;
  }

  /** Asks the lab's own servers. */
  get client(): DnsClient {
    return this.zones.client;
  }

  get address(): string {
    return this.demo!.address;
  }
  get lab(): string {
    return this.demo!.lab;
  }

  /** What somebody does on a page of the lab's companies; gives the page that follows. Throws with what it says where it refuses. */
  async at(path: string, fields: Readonly<Record<string, string | readonly string[]>>): Promise<string> {
    const pairs = Object.entries(fields).flatMap(([name, value]) => [value].flat().map((one): [string, string] => [name, one as string]));
    const answer = await fetch(`${this.lab}${path}`, { method: 'POST', body: new URLSearchParams(pairs) });
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${path} ${JSON.stringify(fields)}: ${text.replace(/<[^>]*>/g, ' ')}`);
    return text;
  }

  /** How fast the lab's clock goes, by its name on the page. A dialog that is about to close is waited for; the clock's own may be open. */
  async speed(page: Page, name: string): Promise<void> {
    let open: string | null = null;
    const dialog = async (): Promise<string | null> =>
      (open = await page.evaluate(() => document.querySelector<HTMLElement>('[role=dialog]')?.innerText ?? null));
    // It closes where somebody presses elsewhere, as a page does that a test has just left something open on.
    const pressed = (): Promise<boolean> =>
      page.evaluate((wanted) => {
        const button = Array.from(document.querySelectorAll<HTMLButtonElement>('[role=dialog] button')).find((one) => one.innerText.trim() === wanted);
        button?.click();
        return button !== undefined;
      }, name);
    await until(
      () => `the clock is open, and no other dialog: ${open}`,
      async () => {
        if (/^SPEED/i.test((await dialog()) ?? '')) return pressed();
        if (open === null) await (await page.$('::-p-text(lab clock)'))?.evaluate((one) => (one.closest('button') ?? (one as HTMLElement)).click());
        return undefined;
      },
    );
    await until(
      () => `the clock is closed: ${open}`,
      async () => {
        await page.keyboard.press('Escape');
        return (await dialog()) === null;
      },
    );
  }

  async close(): Promise<void> {
    await this.chromium.close();
    await this.demo?.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
