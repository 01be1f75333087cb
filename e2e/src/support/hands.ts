import { Page } from 'puppeteer-core';
import { until } from '../../../command/src/api';
import { near } from './browser';
import { DemoUnderTest } from './demoUnderTest';

/** What is typed for a row of a sheet, as the panel's fields are called. */
export type Typed = Record<'name' | 'type' | 'priority' | 'value' | 'ttl', string>;

export interface SheetRow {
  readonly act: string;
  readonly typed: Typed;
}

/** Types of records that lead a name somewhere. */
export const LEADS: ReadonlySet<string> = new Set(['A', 'AAAA', 'CNAME']);

/** What a technician takes at the gate, */
export const AT_THE_GATE = [/^Skip this check$/, /^Stop waiting for .*$/, /^Do not wait for the old TTLs$/];
/** and while waiting for the end. */
export const WAYS_ON = [
  /^Stop waiting for .*$/,
  /^Go on without (?:it|resolvers)$/,
  /^Go on although .*$/,
  /^They are raised, or stay low$/,
  /^Close the move$/,
];

/** The rows of the sheet as they stand on the screen. */
export async function sheetRows(page: Page): Promise<SheetRow[]> {
  return page.evaluate(() => {
    const heads = Array.from(document.querySelectorAll('table[aria-label="Handover sheet"] thead th')).map((head) => head.textContent.trim());
    return Array.from(document.querySelectorAll('table[aria-label="Handover sheet"] tbody tr')).map((row) => {
      // What is copied from a cell is typed: in its plain form, and not what stood there before.
      const cells = Array.from(row.querySelectorAll('td')).map((cell) =>
        (cell.querySelector<HTMLElement>('button[title^="Copy the "]:not([title^="Copy the whole"])') ?? (cell as HTMLElement)).innerText.trim(),
      );
      const field = (head: string): string => {
        const cell = cells[heads.indexOf(head)] ?? '';
        return cell === '—' || cell === 'empty' ? '' : cell;
      };
      return { act: field('Do'), typed: { name: field('Name'), type: field('Type'), priority: field('Priority'), value: field('Value'), ttl: field('TTL') } };
    });
  });
}

/** Takes whichever of these ways on is offered, over and over, until the page says what is waited for. */
export async function takeWays(page: Page, labels: readonly RegExp[], says: RegExp, rounds = 120): Promise<void> {
  let last = '';
  await until(
    () => `${says.source}: ${last}`,
    async () => {
      last = (await page.evaluate(() => document.body.innerText)).slice(0, 3000);
      if (says.test(last)) return true;
      for (const one of await page.$$('button')) {
        const label = await one.evaluate((element) => (element as HTMLButtonElement).innerText);
        if (!labels.some((wanted) => wanted.test(label))) continue;
        await near(one);
        await one.click().catch(() => undefined);
        const reason = await page.$('input[aria-label="Why it may be skipped"]');
        if (reason) {
          await reason.type('the client knows');
          await page.keyboard.press('Enter');
        }
        break;
      }
      return undefined;
    },
    rounds,
  );
}

/** Types the rows of a sheet into a panel of the lab: what is to be deleted goes first, as a person would. */
export async function typeSheet(demo: DemoUnderTest, panel: string, zone: string, rows: readonly SheetRow[]): Promise<void> {
  for (const { typed } of rows) await demo.at(`/panel/${panel}/add`, { zone, ...typed });
}

/** A record as a panel of the lab shows it, absolute and in presentation form. */
export interface Shown {
  readonly owner: string;
  readonly type: string;
  readonly data: string;
}

/** Whoever stands before a panel of the lab deletes those records of a zone that are to go. */
export async function deleteThere(demo: DemoUnderTest, panel: string, zone: string, goes: (record: Shown) => boolean): Promise<void> {
  const tab = await demo.chromium.page();
  await tab.goto(`${demo.lab}/panel/${panel}?zone=${encodeURIComponent(zone)}`);
  const shown = await tab.$$eval('form[action$="/delete"]', (forms) =>
    forms.map((form) => Object.fromEntries(Array.from(new FormData(form as HTMLFormElement)).map(([name, value]) => [name, String(value)]))),
  );
  await tab.close();
  for (const record of shown) if (goes(record as unknown as Shown)) await demo.at(`/panel/${panel}/delete`, record);
}
