import { addMailing, addSheet, uploadForms } from './begin.js';
import type { StandIns } from './office.js';
import { officeOf } from './office.js';
import type { ServerClient } from './server-client.js';
import { startBatch } from './start-batch.js';
import type { Tenancy } from './tenancies.js';
import { tenancies } from './tenancies.js';
import { permitList, tenancyWorkbook } from './workbooks.js';
import { agreementMap, mandateMap, permitMap } from './world.js';

/** Something that the office did on a day of the past. */
export interface PastDay {
  daysAgo: number;
  happen: (base: string, standIns: StandIns) => Promise<void>;
}

const mailable = ({ surname, email, concession }: Tenancy): boolean =>
  surname.length < 30 && /^(?!later|full|gone)[^@\s]+@[^@\s]+\.\w+$/.test(email) && concession !== 'Student';
const column = (name: string) => ({ kind: 'column', column: name });
const letter = (subject: string, first: string) => ({
  mailed: true,
  addressColumn: 'E-mail',
  recipient: '{{ first_name }} {{ surname }}',
  subject,
  body: `Dear {{ first_name }} {{ surname }},\n\n${first}\n\nLarkmere Allotment Office`,
});

/** A batch over all that have no copy yet, waited for until its messages have gone out or come back. @param bounces how many come back at least @param rows of those who are meant; left out: all */
async function runBatch(server: ServerClient, mailing: number, bounces: number, rows?: number[]): Promise<void> {
  const { id } = await startBatch(server, mailing, rows ? 'selection' : 'new', rows);
  await server.until<{ counts: Record<string, number>; copies: number }>(
    `/api/batches/${id}`,
    ({ counts, copies }) =>
      copies > 0 &&
      (counts.bounced ?? 0) >= bounces &&
      ['sent', 'bounced', 'made'].reduce((sum, state) => sum + (counts[state] ?? 0), 0) === copies,
    90,
  );
}

const sheetOf = async (server: ServerClient, file: string, rows: Tenancy[]): Promise<number> =>
  addSheet(server, file, await tenancyWorkbook(rows));
const ofSite = (site: string, limit: number): Tenancy[] =>
  tenancies()
    .filter((one) => one.site === site && mailable(one))
    .slice(0, limit);

/** Who could not be reached by mail got a letter. */
async function printBounced(server: ServerClient, mailingId: number, name: string): Promise<void> {
  const { copies } = await server.get<{ copies: number }>(`/api/print-runs/waiting?mailing=${mailingId}`);
  if (copies === 0) return;
  const { id } = await server.send<{ id: number }>('POST', '/api/print-runs', {
    mailing: mailingId,
    reasons: ['bounced', 'no-address', 'asked'],
    duplex: false,
    addressSheets: true,
    name: `Letters: ${name}`,
  });
  await server.until<{ state: string }>(`/api/print-runs/${id}`, ({ state }) => state === 'ready', 30);
  await server.send('POST', `/api/print-runs/${id}/printed`);
}

/** A mailing of the past over some rows: made, run and put away. */
async function runAndArchive(server: ServerClient, name: string, plan: object, bounces = 0): Promise<void> {
  const mailing = await addMailing(server, name, { keyColumn: 'Plot', ...plan });
  await runBatch(server, mailing, bounces);
  await printBounced(server, mailing, name);
  await server.send('POST', `/api/mailings/${mailing}/archive`, { isArchived: true });
}

const renewalOf = (site: string, maximum: number): PastDay['happen'] =>
  async function renew(base, standIns) {
    const server = await officeOf(base, standIns);
    const { agreement } = await uploadForms(server);
    await runAndArchive(server, `Plot renewals 2026, ${site}`, {
      packet: [agreement],
      sourceId: await sheetOf(server, `tenancies 2026, ${site}.xlsx`, ofSite(site, maximum)),
      maps: { [agreement]: agreementMap },
      output: { folder: '2026/{{ site }}', file: '{{ plot }} {{ surname }} {{ template }}.pdf' },
      message: letter(
        'Your plot {{ plot }} in 2026',
        'your tenancy of plot {{ plot }} is renewed for 2026. Please send the signed agreement back.',
      ),
    });
  };

const NEW_TENANTS = 'New tenants, November 2026';

/** Some of the new tenants get their agreement. @param from the first of their rows, from 0 */
const welcome = (from: number, to: number, isLast = false): PastDay['happen'] =>
  async function greet(base, standIns) {
    const server = await officeOf(base, standIns);
    const { agreement } = await uploadForms(server);
    const known = (await server.get<{ id: number; name: string }[]>('/api/mailings')).find(({ name }) => name === NEW_TENANTS);
    const mailing =
      known?.id ??
      (await addMailing(server, NEW_TENANTS, {
        packet: [agreement],
        sourceId: await sheetOf(server, 'new tenants, November 2026.xlsx', ofSite('Mill Lane', 125).slice(60)),
        keyColumn: 'Plot',
        maps: { [agreement]: agreementMap },
        output: { folder: '2026/New tenants', file: '{{ plot }} {{ surname }}.pdf' },
        message: letter('Welcome to plot {{ plot }}', 'the agreement for plot {{ plot }} is attached. Please send it back signed.'),
      }));
    const source = (await server.get<{ plan: { sourceId: number } }>(`/api/mailings/${mailing}`)).plan.sourceId;
    const { records } = await server.get<{ records: { row: number }[] }>(`/api/sources/${source}/records?from=0&count=200`);
    await runBatch(
      server,
      mailing,
      0,
      records.slice(from, to).map(({ row }) => row),
    );
    if (isLast) await server.send('POST', `/api/mailings/${mailing}/archive`, { isArchived: true });
  };

/** The last year of the office, the earliest day first: renewals by sites, permits in spring, mandates in autumn, and of late the new tenants. The mailings are put away. */
export const lastYear: readonly PastDay[] = [
  { daysAgo: 341, happen: renewalOf('Mill Lane', 110) },
  { daysAgo: 332, happen: renewalOf('Canal Side', 80) },
  {
    daysAgo: 236,
    async happen(base, standIns) {
      const server = await officeOf(base, standIns);
      const { permit } = await uploadForms(server);
      await runAndArchive(
        server,
        'Shed permits, spring 2026',
        {
          packet: [permit],
          sourceId: await addSheet(server, 'permits, spring 2026.csv', permitList(ofSite('Canal Side', 70).slice(30))),
          maps: { [permit]: { ...permitMap, 'permit.name': column('Tenant') } },
          output: { folder: '2026/Permits, spring', file: '{{ plot }}.pdf' },
          message: {
            ...letter('Permit for plot {{ plot }}', 'your permit for plot {{ plot }} is attached.'),
            recipient: '{{ tenant }}',
            body: 'Dear {{ tenant }},\n\nyour permit for plot {{ plot }} is attached.\n\nLarkmere Allotment Office',
          },
        },
        1,
      );
    },
  },
  {
    daysAgo: 74,
    async happen(base, standIns) {
      const server = await officeOf(base, standIns);
      const { mandate } = await uploadForms(server);
      await runAndArchive(server, 'Bank mandates, autumn 2026', {
        packet: [mandate],
        sourceId: await sheetOf(server, 'new accounts, autumn 2026.xlsx', ofSite('Mill Lane', 150).slice(90)),
        maps: { [mandate]: mandateMap },
        output: { folder: '2026/Mandates', file: '{{ plot }} {{ surname }}.pdf' },
        message: letter('Your bank mandate', 'please sign the attached mandate for your new account and send it back.'),
      });
    },
  },
  { daysAgo: 17, happen: welcome(0, 16) },
  { daysAgo: 12, happen: welcome(16, 39) },
  { daysAgo: 5, happen: welcome(39, 48, true) },
];
