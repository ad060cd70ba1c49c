import { shedPermit } from '@mailbag/demo/dist/forms/shed-permit.js';
import { ServerClient } from '@mailbag/demo/dist/server-client.js';
import { chromium } from 'playwright-core';
import { percentile } from './batch.js';
import { option } from './option.js';
import { startMailbag } from './server-process.js';

const [PHONE, DESK] = [
  { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, locale: 'en-GB' },
  { viewport: { width: 1280, height: 800 }, locale: 'en-GB' },
];
/** A line of 1.6 Mbit/s with 150 ms to the server and back, in bytes per second, and a processor slowed four times. */
const LINE = { offline: false, latency: 150, downloadThroughput: 200_000, uploadThroughput: 94_000 };
const SLOWER = 4;

/** What a visitor waits for: the first question on a slow phone, and the filled form after a changed answer on a desk. `--runs 5` */
export async function pageBench(): Promise<void> {
  const runs = Number(option('runs', '5'));
  const mailbag = await startMailbag({ MAILBAG_VISITOR_LIMITS: '1000000' });
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const client = new ServerClient(mailbag.address);
    await client.send('POST', '/api/account/set-up', {
      name: 'Bench',
      email: 'bench@larkmere.example',
      password: 'a long enough password',
    });
    const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'Permits.pdf', shedPermit());
    const { id, word } = await client.send<{ id: number; word: string }>('POST', '/api/intakes', {
      name: 'Permits',
      templates: [template.id],
    });
    await client.send('POST', `/api/intakes/${id}/publish`);
    const address = `${mailbag.address}/in/${word}`;
    const [first, filled]: number[][] = [[], []];
    for (let run = 0; run < runs; run++) {
      const context = await browser.newContext(PHONE);
      const page = await context.newPage();
      const session = await context.newCDPSession(page);
      await session.send('Network.enable');
      await session.send('Network.emulateNetworkConditions', LINE);
      await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
      const from = performance.now();
      await page.goto(address, { waitUntil: 'commit' });
      await page.getByRole('button', { name: 'Start' }).tap();
      await page.getByLabel(/^Plot number/).waitFor();
      first!.push(performance.now() - from);
      await context.close();
    }
    const page = await (await browser.newContext(DESK)).newPage();
    await page.goto(address);
    await page.getByRole('button', { name: 'Start' }).click();
    for (let run = 0; run <= runs; run++) {
      await page.getByLabel(/^Plot number/).fill(`B-${run}`);
      const from = performance.now();
      await page.getByRole('button', { name: /^See the form/ }).click();
      await page.locator('canvas').waitFor();
      // The first one fetches what draws pages.
      if (run > 0) filled!.push(performance.now() - from);
      await page.getByRole('button', { name: 'Back to the questions' }).click();
    }
    const told = (waits: number[]) => ({ median: percentile(waits, 0.5), longest: Math.round(Math.max(...waits)) });
    console.log(JSON.stringify({ runs, firstQuestionOnASlowPhone: told(first!), filledFormAfterAChange: told(filled!) }));
  } finally {
    await browser.close();
    mailbag.stop();
  }
}
