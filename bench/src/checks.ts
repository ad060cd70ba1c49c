import type { FieldMap } from '@mailbag/core';
import { RecordFiller, fillContext, inspectTemplate, parseRule, readTable, rowReader } from '@mailbag/core';
import { bankMandate } from '@mailbag/demo/dist/forms/bank-mandate.js';
import { shedPermit } from '@mailbag/demo/dist/forms/shed-permit.js';
import { tenancyAgreement } from '@mailbag/demo/dist/forms/tenancy-agreement.js';
import { ServerClient } from '@mailbag/demo/dist/server-client.js';
import { hasBuilding, mandateMap, permitMap, renewalMap } from '@mailbag/demo/dist/world.js';
import { nodeFonts } from '@mailbag/host';
import type { Page } from 'playwright-core';
import { chromium } from 'playwright-core';
import { denseSetting, manyTenancies, percentile } from './batch.js';
import { option } from './option.js';
import { startMailbag } from './server-process.js';

const person = { name: 'Bench', email: 'bench@larkmere.example', password: 'a long enough password' };

function tenancyTable(count: number): Uint8Array {
  const day = (value: Date | string): string => (value instanceof Date ? value.toISOString().slice(0, 10) : value);
  const headings = 'Plot,Site,Area m²,First name,Surname,Born,Street,Postal code,Town,E-mail,Telephone,Yearly rent,Concession,Water charge,To pay,Water supply,Greenhouse,Shed,Start,Until,Key deposit,IBAN,Collection day,Payment'; // prettier-ignore
  const rows = manyTenancies(count).map((one) =>
    [one.plot, one.site.trim(), one.area, one.firstName, one.surname, day(one.born), one.street, one.postalCode, one.town, one.email, one.phone, one.rent, one.concession, one.water, one.total, one.waterSupply, one.greenhouse, one.shed, day(one.start), day(one.until), one.deposit, one.iban, one.collectionDay, one.payment].join(','),
  ); // prettier-ignore
  return new TextEncoder().encode([headings, ...rows].join('\r\n'));
}

const packet = [
  { file: 'Agreement.pdf', bytes: tenancyAgreement(), map: renewalMap },
  { file: 'Mandate.pdf', bytes: bankMandate(), map: mandateMap },
  { file: 'Permit.pdf', bytes: shedPermit(), map: permitMap },
];

/** Seconds that the engine by itself takes on one core to lay out all values of the packet for so many records, nothing else being asked. */
async function engineAlone(table: Uint8Array, count: number): Promise<{ layout: number; rules: number }> {
  const records: Parameters<ReturnType<typeof rowReader>>[0][] = [];
  const { columns } = await readTable({ name: 'rows.csv', bytes: table, zip: null }, {}, (block) => void records.push(...block));
  const read = rowReader(columns);
  const context = fillContext({ batch: 1, today: '2027-01-02', locale: 'en-GB', zone: 'UTC' }, 0, 'X');
  let [layout, rules] = [0, 0];
  for (const { bytes, map } of packet) {
    const { fields } = await inspectTemplate(bytes);
    const parsed = Object.fromEntries(Object.entries(map).map(([name, rule]) => [name, parseRule(rule).rule!])) as FieldMap;
    const texts = records.flatMap(({ cells }) => cells.map(({ text }) => text)).filter((text) => /[^\u0020-\u007e]/.test(text));
    const filler = await RecordFiller.of(
      bytes,
      { fields, map: parsed },
      { ...(await nodeFonts()), characters: new Set(texts), finish: 'flattened' },
    );
    for (const record of records.slice(0, count)) {
      const from = performance.now();
      const { values } = filler.values(read(record), context);
      const between = performance.now();
      filler.measure(values);
      rules += between - from;
      layout += performance.now() - between;
    }
  }
  return { layout: layout / 1000, rules: rules / 1000 };
}

/** Milliseconds from a key press to the page drawn anew. */
async function previewTimes(page: Page): Promise<number[]> {
  await page.evaluate(() => {
    const times: number[] = [];
    let pressed = 0;
    window.addEventListener('keydown', () => (pressed = performance.now()), { capture: true });
    new MutationObserver(() => {
      if (pressed > 0) times.push(performance.now() - pressed);
      pressed = 0;
    }).observe(document.body, { subtree: true, attributes: true, attributeFilter: ['data-drawn'] });
    Object.assign(window, { times });
  });
  for (let press = 1; press <= 30; press++) {
    await page.keyboard.press('abcdefghij'[press % 10]!);
    await page.waitForFunction((count) => (window as unknown as { times: number[] }).times.length >= count, press);
  }
  return page.evaluate(() => (window as unknown as { times: number[] }).times);
}

/** Checks of many records on a real server beside the engine alone, and how soon the screens that look at all of them are there. */
export async function checksBench(): Promise<void> {
  const count = Number(option('records', '100000'));
  const table = tenancyTable(count);
  const sample = Math.min(count, 5000);
  const alone = await engineAlone(tenancyTable(sample), sample);
  const scale = count / sample;
  const mailbag = await startMailbag();
  const browser = await chromium.launch({ executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium', args: ['--no-sandbox'] });
  try {
    const client = new ServerClient(mailbag.address);
    await client.send('POST', '/api/account/set-up', person);
    const upload = async (file: string, bytes: Uint8Array): Promise<number> =>
      (await client.upload<{ template: { id: number } }>('/api/templates', file, bytes)).template.id;
    const source = async (bytes: Uint8Array): Promise<number> => {
      const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', 'rows.csv', bytes);
      const { id } = await client.send<{ id: number }>('POST', '/api/sources', {
        fileIds: [fileId],
        name: 'rows.csv',
        reading: { headingRow: 1 },
      });
      await client.until<{ state: string }>(`/api/sources/${id}`, ({ state }) => state === 'ready', 300);
      return id;
    };
    const mailing = async (sourceId: number, keyColumn: string, maps: Record<number, object>, more: object = {}): Promise<number> => {
      const { id, version, plan } = await client.send<{ id: number; version: number; plan: object }>('POST', '/api/mailings', {
        name: 'Bench',
      });
      const packetIds = Object.keys(maps).map(Number);
      await client.send('PUT', `/api/mailings/${id}`, {
        version,
        plan: { ...plan, packet: packetIds, sourceId, keyColumn, maps, ...more },
      });
      return id;
    };
    const ids = await Promise.all(packet.map(({ file, bytes }) => upload(file, bytes)));
    const sourceId = await source(table);
    let from = performance.now();
    const id = await mailing(sourceId, 'Plot', Object.fromEntries(ids.map((one, at) => [one, packet[at]!.map])), {
      conditions: { [ids[2]!]: hasBuilding },
    });
    await client.until<{ current: boolean }>(`/api/mailings/${id}/checks`, ({ current }) => current, 900);
    const checked = (performance.now() - from) / 1000;
    from = performance.now();
    await client.get(`/api/mailings/${id}/survey`);
    const surveyed = (performance.now() - from) / 1000;
    const seconds = (value: number): string => `${value.toFixed(1)} s`;
    console.log(`${count} records, 43 fields on three templates`);
    console.log(`  checked on the server, written down      ${seconds(checked)}`);
    console.log(
      `  layout by the engine alone, one core      ${seconds(alone.layout * scale)} (from ${sample}); rules alone ${seconds(alone.rules * scale)}`,
    );
    console.log(`  checks over layout and rules alone        ${(checked / ((alone.layout + alone.rules) * scale)).toFixed(2)}`);
    console.log(`  what each field takes, over all records   ${seconds(surveyed)}`);

    const dense = denseSetting(200);
    const denseId = await upload('Dense.pdf', dense.form);
    const denseMailing = await mailing(await source(await dense.sheet()), 'Key', {
      [denseId]: { ...dense.map, 'p0.f0': { kind: 'text', text: '' } },
    });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(mailbag.address);
    await page.getByLabel('E-mail').fill(person.email);
    await page.getByLabel('Password').fill(person.password);
    await page.keyboard.press('Enter');
    await page.getByRole('link', { name: 'Mailings' }).waitFor();
    await page.goto(`${mailbag.address}/mailings/${denseMailing}/map`);
    await page.locator('canvas[data-drawn]').first().waitFor();
    await page.locator('[data-row-field="p0.f0"]').click();
    await page.getByRole('textbox', { name: 'Fixed text' }).click();
    await client.until<{ current: boolean }>(`/api/mailings/${denseMailing}/checks`, ({ current }) => current, 300);
    const times = await previewTimes(page);
    console.log(`preview of a dense page after a key press: median ${percentile(times, 0.5)} ms, 95 % ${percentile(times, 0.95)} ms`);
    for (const [name, one] of [
      ['Larkmere agreement', id],
      ['dense form', denseMailing],
    ] as const) {
      await client.until<{ current: boolean }>(`/api/mailings/${one}/checks`, ({ current }) => current, 900);
      const sheet = page.getByRole('region', { name: 'Contact sheet' });
      const drawn = (): Promise<void> =>
        sheet
          .getByText(/^\d+ cop/)
          .first()
          .waitFor({ timeout: 120_000 });
      await page.goto(`${mailbag.address}/mailings/${one}/contact?random=21`);
      await drawn();
      const picked = page.waitForResponse((response) => response.url().includes('/picks'));
      await sheet.getByRole('button', { name: 'Others' }).click();
      await picked;
      const begun = performance.now();
      await sheet
        .getByText(/^drawing/)
        .first()
        .waitFor();
      await drawn();
      const pages = await sheet.locator('img').count();
      const took = performance.now() - begun;
      console.log(
        `contact sheet, ${name}: ${pages} pages drawn ${Math.round(took)} ms after the records are picked, ${Math.round((took / pages) * 24)} ms for 24`,
      );
    }
  } finally {
    await browser.close();
    mailbag.stop();
  }
}
