import { join } from 'node:path';
import { ServerClient } from '@mailbag/demo/dist/server-client.js';
import type { Browser, Locator, Page } from 'playwright-core';
import { chromium } from 'playwright-core';
import { mailingOf, tenancySetting } from './batch.js';
import type { Loaded } from './counting-line.js';
import { CountingLine } from './counting-line.js';
import { fillLedger } from './ledger.js';
import { option } from './option.js';
import { startMailbag } from './server-process.js';

const person = { name: 'Bench', email: 'bench@larkmere.example', password: 'a long enough password' };

/** What fills and draws pages beside the screens: the threads of the engine and of the reader, and faces. */
const ENGINE = /preview-worker|pdf\.worker|pdf-reader|harfbuzz|openjpeg|jbig2|qcms|\.ttf$|\.bcmap$/;
const kilobytes = (loaded: Loaded, isMeant: (path: string) => boolean): number =>
  Math.round([...loaded].filter(([path]) => isMeant(path)).reduce((sum, [, bytes]) => sum + bytes, 0) / 100) / 10;

/** In kB as they come over the line: the screen itself, what fills and draws pages, and the answers to its questions. */
const parts = (loaded: Loaded): Record<string, number> => ({
  screen: kilobytes(loaded, (path) => !path.startsWith('/api/') && !ENGINE.test(path)),
  engine: kilobytes(loaded, (path) => ENGINE.test(path)),
  answers: kilobytes(loaded, (path) => path.startsWith('/api/')),
});

async function signIn(page: Page, address: string): Promise<void> {
  await page.goto(`${address}/`);
  await page.locator('input[type=email]').fill(person.email);
  await page.locator('input[type=password]').fill(person.password);
  await page.keyboard.press('Enter');
  await page.locator('nav').first().waitFor();
}

/** What a first visit to every screen loads, one after the other as a person goes. */
async function loads(browser: Browser, address: string, locale: string, mailing: number): Promise<Record<string, Record<string, number>>> {
  const line = await CountingLine.to(address);
  const context = await browser.newContext({ locale, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const told: Record<string, Record<string, number>> = {};
  await page.goto(line.address);
  await page.locator('input[type=email]').waitFor();
  told['before sign-in'] = parts(await line.taken());
  await signIn(page, line.address);
  await page.getByRole('heading', { level: 1 }).waitFor();
  told['desk'] = parts(await line.taken());
  const paths = ['/mailings', ...['map', 'checks', 'packet', 'records', 'output', 'start', 'contact'].map((part) => `/mailings/${mailing}/${part}`), '/templates', '/templates/1', '/sources', '/sources/1', '/intakes', '/ledger', '/paper', '/wastebasket', '/settings/you']; // prettier-ignore
  for (const path of paths) {
    // As a link does it: the page stays.
    await page.evaluate((to) => {
      history.pushState({}, '', to);
      dispatchEvent(new PopStateEvent('popstate', { state: {} }));
    }, path);
    await page.getByRole('heading', { level: 1 }).waitFor();
    told[path.replace(/\/\d+/, '')] = parts(await line.taken());
  }
  await context.close();
  line.close();
  return told;
}

/** The longest time that the screen's thread is held while something goes on, in ms; tasks below 50 ms are not told by browsers (W3C, Long Tasks API). */
async function longestTask(page: Page, act: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const tasks: number[] = [];
    const observer = new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration)));
    observer.observe({ type: 'longtask' });
    Object.assign(window, { tasks });
  });
  await act();
  await page.waitForTimeout(300);
  return page.evaluate(() => Math.round(Math.max(0, ...(window as unknown as { tasks: number[] }).tasks)));
}

/** Ms from an act to what it changes on the screen, the question to the server and its answer within. */
async function until(page: Page, act: () => Promise<void>, seen: () => Promise<void>): Promise<number> {
  const from = performance.now();
  await act();
  await seen();
  return Math.round(performance.now() - from);
}

/** Waits until another row is the first of the grid that the screen shows. */
async function otherFirstRow(page: Page, before: string): Promise<void> {
  await page.waitForFunction(
    (text) => document.querySelectorAll<HTMLElement>('[role=grid] [role=rowgroup] [role=row]')[0]?.innerText !== text,
    before,
  );
}
const firstRow = (page: Page): Promise<string> => page.locator('[role=grid] [role=rowgroup] [role=row]').first().innerText();

/** Waits until the grid shows a text in a cell, looked for in the page itself: going through roles takes seconds in large grids. */
async function cellShown(page: Page, text: string): Promise<void> {
  await page.waitForFunction(
    (wanted) => [...document.querySelectorAll<HTMLElement>('[role=gridcell]')].some((cell) => cell.innerText.endsWith(wanted)),
    text,
  );
}

/** Ms of ordering by a heading, one way and the other. */
async function sorted(page: Page, heading: Locator): Promise<number[]> {
  const times: number[] = [];
  for (let turn = 0; turn < 2; turn++) {
    const before = await firstRow(page);
    const act = (): Promise<void> => heading.click();
    times.push(await until(page, act, () => otherFirstRow(page, before)));
  }
  return times;
}

/** Turns the wheel over a list as hands do, then goes to its end and back by keys. */
const scrolled = (page: Page, list: string) => async (): Promise<void> => {
  const box = (await page.getByRole('grid', { name: list }).boundingBox())!;
  await page.mouse.move(box.x + 300, box.y + 200);
  for (let turn = 0; turn < 60; turn++) {
    await page.mouse.wheel(0, turn % 10 === 9 ? 20_000 : 700);
    await page.waitForTimeout(30);
  }
  for (const key of ['End', 'PageUp', 'PageUp', 'Home', 'PageDown']) {
    await page.keyboard.press(key === 'End' || key === 'Home' ? `Control+${key}` : key);
    await page.waitForTimeout(150);
  }
};

/** The screens with very many rows, and what they load. `--records 100000` */
export async function screensBench(): Promise<void> {
  const count = Number(option('records', '100000'));
  const mailbag = await startMailbag();
  const browser = await chromium.launch({ executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium', args: ['--no-sandbox'] });
  try {
    const client = new ServerClient(mailbag.address);
    await client.send('POST', '/api/account/set-up', person);
    const mailing = await mailingOf(client, tenancySetting(count), false);
    const { plan } = await client.get<{ plan: { sourceId: number } }>(`/api/mailings/${mailing}`);
    await client.until<{ current: boolean }>(`/api/mailings/${mailing}/checks`, ({ current }) => current, 900);
    fillLedger(join(mailbag.data, 'mailbag.sqlite'), count);
    for (const locale of ['en-GB', 'de-DE'])
      console.log(JSON.stringify({ loads: locale, kB: await loads(browser, mailbag.address, locale, mailing) }));

    const context = await browser.newContext({ locale: 'en-GB', viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await signIn(page, mailbag.address);

    const cell = (text: string) => page.getByRole('gridcell', { name: text, exact: true }).first();
    const answered = page.waitForResponse((response) => /\/records\?/.test(response.url()));
    await page.goto(`${mailbag.address}/sources/${plan.sourceId}`);
    await (await answered).finished();
    const first = await until(
      page,
      async () => {},
      () => cell('P-1').waitFor(),
    );
    const grid = page.getByRole('grid', { name: 'Records' });
    await grid.focus();
    const scroll = await longestTask(page, scrolled(page, 'Records'));
    const head = page.getByRole('button', { name: 'Order by First name' });
    await grid.focus();
    await page.keyboard.press('Control+Home');
    await cell('P-1').waitFor();
    const sorts = await sorted(page, head);
    const filters: number[] = [];
    const box = page.getByLabel('Find in the records');
    // The first question of its kind reads all values, the next ones of it do too.
    for (const [text, found] of [
      [`P-${count - 3}`, `P-${count - 3}`],
      [`tenant.${count - 7}@`, `P-${count - 7}`],
    ] as const) {
      const act = (): Promise<void> => box.fill(text);
      filters.push(await until(page, act, () => cellShown(page, found)));
    }
    await page.goto(`${mailbag.address}/sources/${plan.sourceId}`);
    await cell('P-1').click();
    const pasteTask: { ms: number } = { ms: 0 };
    const paste = await longestTask(page, async () => {
      pasteTask.ms = await until(
        page,
        () =>
          grid.evaluate((element) => {
            const clipboardData = new DataTransfer();
            const lines = Array.from({ length: 1000 }, (_, row) => [`X-${row}`, 'Mill', '100', 'Ada', `Quist ${row}`].join('\t'));
            clipboardData.setData('text/plain', lines.join('\r\n'));
            element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
          }),
        async () => {
          await page
            .getByText(/values pasted\./)
            .first()
            .waitFor();
          await cellShown(page, 'X-0');
        },
      );
    });
    console.log(JSON.stringify({ records: count, firstRowsMs: first, longestTaskScrollingMs: scroll, sortMs: sorts, filterMs: filters, paste5000Ms: pasteTask.ms, longestTaskPastingMs: paste })); // prettier-ignore

    const list = page.waitForResponse((response) => /\/api\/copies\?/.test(response.url()));
    await page.goto(`${mailbag.address}/ledger`);
    await (await list).finished();
    const ledger = page.getByRole('grid').first();
    const rows = await until(
      page,
      async () => {},
      () => ledger.getByRole('row').nth(5).waitFor(),
    );
    const name = (await ledger.getAttribute('aria-label'))!;
    const ledgerScroll = await longestTask(page, scrolled(page, name));
    const byRecipient = page
      .getByRole('columnheader', { name: /^Recipient/ })
      .getByRole('button')
      .first();
    await page.keyboard.press('Control+Home');
    const ledgerSorts = await sorted(page, byRecipient);
    const wanted = (count - 5).toString(36);
    const search = await until(
      page,
      () => page.getByLabel('Search the ledger').fill(`T${wanted.padStart(7, '0')}`),
      () => cellShown(page, ` ${wanted}`),
    );
    console.log(JSON.stringify({ ledger: count, firstRowsMs: rows, longestTaskScrollingMs: ledgerScroll, sortMs: ledgerSorts, filterMs: search })); // prettier-ignore
  } finally {
    await browser.close();
    mailbag.stop();
  }
}
