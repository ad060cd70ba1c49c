import { ServerClient } from '@mailbag/demo/dist/server-client.js';
import { PDFDocument } from '@cantoo/pdf-lib';
import { drawnField } from '@mailbag/core';
import { chromium } from 'playwright-core';
import { percentile } from './batch.js';
import { option } from './option.js';
import { startMailbag } from './server-process.js';

const person = { name: 'Bench', email: 'bench@larkmere.example', password: 'a long enough password' };

/** Milliseconds between the frames of a browser while one field of many is dragged over a page, beside those of the same browser with nothing to do. */
export async function drawingBench(): Promise<void> {
  const count = Number(option('fields', '300'));
  const mailbag = await startMailbag();
  const browser = await chromium.launch({ executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium', args: ['--no-sandbox'] });
  try {
    const client = new ServerClient(mailbag.address);
    await client.send('POST', '/api/account/set-up', person);
    const flat = await PDFDocument.create();
    flat.addPage([595, 842]);
    const { template } = await client.upload<{ template: { id: number } }>('/api/templates?blanks=draw', 'flat.pdf', await flat.save());
    const columns = 10;
    const fields = Object.fromEntries(
      Array.from({ length: count }, (_, index) => {
        const [x, y] = [20 + (index % columns) * 56, 800 - Math.floor(index / columns) * 25];
        return [`f${index}`, drawnField({ name: `field_${index}`, kind: 'text', page: 1, rect: [x, y, x + 48, y + 16] })];
      }),
    );
    await client.send('POST', `/api/templates/${template.id}/layout/changes`, {
      changes: [
        ...Object.entries(fields).map(([key, value]) => ({ kind: 'set', place: ['fields', key], is: value })),
        { kind: 'set', place: ['order'], was: [], is: Object.keys(fields) },
      ],
    });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(mailbag.address);
    await page.getByLabel('E-mail').fill(person.email);
    await page.getByLabel('Password').fill(person.password);
    await page.keyboard.press('Enter');
    await page.getByRole('link', { name: 'Templates' }).waitFor();
    await page.goto(`${mailbag.address}/templates/${template.id}/layout`);
    const box = page.getByRole('button', { name: 'field_0, Text, page 1' });
    await box.waitFor();
    /** Frames while something goes on, as the browser itself counts them. */
    const frames = async (work: () => Promise<void>): Promise<number[]> => {
      await page.evaluate(() => {
        const seen: number[] = [];
        let last = performance.now();
        const next = (now: number): void => {
          seen.push(now - last);
          last = now;
          (window as { going?: number }).going = requestAnimationFrame(next);
        };
        Object.assign(window, { seen, going: requestAnimationFrame(next) });
      });
      await work();
      return page.evaluate(() => {
        const { going, seen } = window as unknown as { going: number; seen: number[] };
        cancelAnimationFrame(going);
        return seen.slice(2);
      });
    };
    const report = (name: string, times: number[]): void => {
      const sorted = [...times].sort((a, b) => a - b);
      const missed = times.filter((one) => one > 25).length;
      console.log(
        `${name.padEnd(24)} ${String(times.length).padStart(5)} frames, ms between: median ${percentile(sorted, 0.5).toFixed(1)}, 95 % ${percentile(sorted, 0.95).toFixed(1)}, worst ${sorted.at(-1)!.toFixed(1)}; over 25 ms: ${missed}`,
      );
    };
    const { x, y } = (await box.boundingBox())!;
    for (let round = 1; round <= 3; round++) {
      report('nothing to do', await frames(() => page.waitForTimeout(2000)));
      await page.mouse.move(x + 10, y + 6);
      await page.mouse.down();
      report(
        `dragging 1 of ${count}`,
        await frames(async () => {
          for (let step = 0; step < 240; step++) await page.mouse.move(x + 10 + 180 * Math.sin(step / 20) ** 2, y + 6 + step * 1.2);
        }),
      );
      await page.mouse.move(x + 10, y + 6);
      await page.mouse.up();
    }
  } finally {
    await browser.close();
    mailbag.stop();
  }
}
