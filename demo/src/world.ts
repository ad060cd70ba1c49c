import { plotInspection } from './forms/plot-inspection.js';
import { addMailing, addSheet, uploadForms } from './begin.js';
import { makeChildrensPlots } from './children.js';
import { shedPermit } from './forms/shed-permit.js';
import { officeOf } from './office.js';
import type { StandIns } from './office.js';
import type { ServerClient } from './server-client.js';
import { tenancies } from './tenancies.js';
import { waitingList } from './waiting-list.js';
import { permitList, tenancyWorkbook } from './workbooks.js';
import { startBatch } from './start-batch.js';

const column = (name: string) => ({ kind: 'column', column: name });
const yesNo = (name: string, on: string) => ({
  kind: 'translate',
  column: name,
  table: [
    { from: 'yes', to: on },
    { from: 'no', to: 'Off' },
  ],
});
const options = (name: string, ...pairs: [string, string][]) => ({
  kind: 'translate',
  column: name,
  table: pairs.map(([from, to]) => ({ from, to })),
});
const fullName = { kind: 'compose', parts: [{ column: 'First name' }, { text: ' ' }, { column: 'Surname' }] };
const PAGE = 'topmostSubform[0].Page1[0]';

export const agreementMap = {
  'tenancy.plot.no': column('Plot'),
  'tenancy.plot.site': column('Site'),
  'tenancy.plot.area': column('Area m²'),
  'tenancy.tenant.name': fullName,
  'tenancy.tenant.born': column('Born'),
  'tenancy.tenant.street': column('Street'),
  'tenancy.tenant.postcode': column('Postal code'),
  'tenancy.tenant.town': column('Town'),
  'tenancy.tenant.email': column('E-mail'),
  'tenancy.tenant.phone': column('Telephone'),
  'tenancy.rent.yearly': column('Yearly rent'),
  'tenancy.rent.concession': options(
    'Concession',
    ['None', 'none'],
    ['Pensioner 25 %', 'pension'],
    ['In training 20 %', 'study'],
    ['Large family 15 %', 'family'],
  ),
  'tenancy.rent.water': column('Water charge'),
  'tenancy.rent.total': column('To pay'),
  'tenancy.has.water': yesNo('Water supply', 'Ja'),
  'tenancy.has.greenhouse': yesNo('Greenhouse', 'Yes'),
  'tenancy.has.shed': yesNo('Shed', 'Yes'),
  'tenancy.term.from': column('Start'),
  'tenancy.term.until': column('Until'),
  'tenancy.deposit': column('Key deposit'),
  'tenancy.signed_on': { kind: 'blank' },
};
/** What a square metre costs in a year, and what is left of it for whom. */
const rate = '0.82';
const shares: [concession: string, share: string][] = [
  ['None', '1'],
  ['Pensioner 25 %', '0.75'],
  ['In training 20 %', '0.8'],
  ['Large family 15 %', '0.85'],
];
const cents = { decimals: 2, how: 'half-up' };
const yearlyRent = { kind: 'arithmetic', do: 'product', of: [column('Area m²'), { number: rate }], round: cents, empty: 'stop' };
const share = {
  kind: 'lookup',
  of: column('Concession'),
  table: shares.map(([key, value]) => ({ key, value })),
  otherwise: null,
};
/** The rent less the concession, and the water. */
const toPay = {
  kind: 'arithmetic',
  do: 'sum',
  of: [{ kind: 'arithmetic', do: 'product', of: [yearlyRent, share], round: null, empty: 'stop' }, column('Water charge')],
  round: cents,
  empty: 'stop',
};
const inEuros = (amount: object) => ({ kind: 'compose', parts: [{ rule: amount }, { text: ' €' }] });
/** Rent and sum are worked out, not read. */
export const renewalMap = {
  ...agreementMap,
  'tenancy.rent.yearly': inEuros(yearlyRent),
  'tenancy.rent.total': inEuros(toPay),
};
/** Only who has something to permit gets the permit. */
export const hasBuilding = {
  any: [
    { of: column('Shed'), test: 'is', values: ['yes'] },
    { of: column('Greenhouse'), test: 'is', values: ['yes'] },
  ],
};
export const mandateMap = {
  [`${PAGE}.f1_01[0]`]: column('Plot'),
  [`${PAGE}.f1_02[0]`]: fullName,
  [`${PAGE}.f1_03[0]`]: fullName,
  [`${PAGE}.f1_04[0]`]: column('IBAN'),
  [`${PAGE}.c1_01[0]`]: options('Collection day', ['1st of the month', '01'], ['15th of the month', '15']),
  [`${PAGE}.r1_01[0]`]: options('Payment', ['once a year', '1'], ['twice a year', '2'], ['every quarter', '4']),
  [`${PAGE}.f1_06[0]`]: inEuros(toPay),
  [`${PAGE}.f1_07[0]`]: column('Start'),
  [`${PAGE}.f1_08[0]`]: { kind: 'blank' },
};
export const permitMap = {
  'permit.plot': column('Plot'),
  'permit.site': column('Site'),
  'permit.name': fullName,
  'permit.shed': yesNo('Shed', 'On'),
  'permit.greenhouse': yesNo('Greenhouse', 'On'),
};

interface Identified {
  id: number;
}
/** Makes the Larkmere world, on a server that has no account yet or that of the office, and lets one small batch run. */
export async function makeWorld(base: string, standIns: StandIns): Promise<void> {
  const server = await officeOf(base, standIns);
  const { agreement, mandate, permit } = await uploadForms(server);

  const rows = tenancies();
  const tenanciesSource = await addSheet(server, 'tenancies.xlsx', await tenancyWorkbook(rows));
  const permits = await addSheet(
    server,
    'shed permits.csv',
    permitList(
      rows
        .filter(({ site, surname, email }) => site === 'Mill Lane' && surname.length < 30 && /^[^@\s]+@[^@\s]+\.\w+$/.test(email))
        .slice(0, 28),
    ),
  );

  const { fileId } = await server.upload<{ fileId: string }>('/api/connections/files', 'waiting-list.sqlite', waitingList());
  const { id: connectionId } = await server.send<Identified>('POST', '/api/connections', {
    name: 'Waiting list',
    kind: 'sqlite',
    host: '',
    port: 0,
    databaseName: 'waiting-list.sqlite',
    user: '',
    tls: false,
    fileId,
  });
  const { id: waiting } = await server.send<Identified>('POST', '/api/sources', {
    name: 'Waiting list',
    query: {
      connectionId,
      sql: 'SELECT number, name, email, asked_on, site, wanted_area FROM applicant WHERE asked_on < :before ORDER BY asked_on',
      parameters: { before: '2026-11-01' },
    },
    reading: {},
  });
  await server.until<{ state: string }>(`/api/sources/${waiting}`, ({ state }) => state !== 'reading');
  const early = await addMailing(server, 'Shed permits, early birds', {
    packet: [permit],
    sourceId: permits,
    keyColumn: 'Plot',
    maps: {
      [permit]: {
        ...permitMap,
        'permit.name': column('Tenant'),
        'permit.roof': options('Roof', ['Felt', 'felt'], ['Green roof', 'green'], ['Corrugated sheet', 'sheet']),
        'permit.until': column('Valid until'),
        'permit.conditions': column('Conditions'),
      },
    },
    output: { folder: '2026/Permits/{{ site }}', file: '{{ plot }} {{ template }}.pdf', metadata: ['Plot', 'Site'] },
    message: {
      mailed: true,
      addressColumn: 'E-mail',
      recipient: '{{ tenant }}',
      subject: 'Permit for plot {{ plot }}',
      body: 'Dear {{ tenant }},\n\nyour permit for plot {{ plot }} is attached. Please keep it with your agreement.\n\nLarkmere Allotment Office',
      reminder: {
        subject: 'Reminder: permit for plot {{ plot }}',
        body: 'Dear {{ tenant }},\n\nwe have not had your signed permit for plot {{ plot }} back yet. Please send it when you find the time.\n\nLarkmere Allotment Office',
        afterDays: 14,
        maximum: 2,
        bySchedule: false,
        attach: true,
      },
    },
    paper: {
      name: '{{ tenant }}',
      street: '{{ street }}',
      postalCode: '{{ postal_code }}',
      town: '{{ town }}',
      region: '',
      country: '',
      wantsColumn: 'Wants',
      wantsValues: ['paper'],
    },
  });
  await addMailing(server, 'Plot renewals 2027', {
    packet: [agreement, mandate, permit],
    sourceId: tenanciesSource,
    keyColumn: 'Plot',
    maps: { [agreement]: renewalMap, [mandate]: mandateMap, [permit]: permitMap },
    conditions: { [permit]: hasBuilding },
    output: {
      folder: '2027/{{ site }}',
      file: '{{ plot }} {{ surname }} {{ template }}.pdf',
      // The signed copy that comes back is known by it.
      stamp: { symbology: 'qr', pages: 'first', corner: 'bottom-right', fromSide: 14, fromEnd: 10, width: 16, inPrint: true },
    },
    message: {
      mailed: true,
      addressColumn: 'E-mail',
      recipient: '{{ first_name }} {{ surname }}',
      subject: 'Your plot {{ plot }} in 2027',
      bodyFormat: 'html',
      body:
        '<p>Dear {{ first_name }} {{ surname }},</p><p>your tenancy of plot <strong>{{ plot }}</strong> ({{ site }}) is renewed for 2027. Attached are</p>' +
        '<ul><li><p>the tenancy agreement, in two pages,</p></li><li><p>the bank mandate,</p></li><li><p>where you have a shed or a glasshouse, the permit for it.</p></li></ul>' +
        '<p>To pay this year: <strong>{{ to_pay }}</strong>. Please send the signed agreement back by <em>15 January</em>.</p><p>Larkmere Allotment Office</p>',
    },
  });
  const { id: batch } = await startBatch<Identified>(server, early);
  await server.until<{ counts: Record<string, number>; copies: number }>(
    `/api/batches/${batch}`,
    ({ counts, copies }) =>
      copies > 0 && (counts.sent ?? 0) + (counts.bounced ?? 0) + (counts.retrying ?? 0) + (counts.made ?? 0) === copies,
    60,
  );
  // Those who ask for paper are gathered for the post.
  await server.until<{ copies: number }>('/api/print-runs/waiting', ({ copies }) => copies > 0, 30);
  await server.send('POST', '/api/print-runs', {
    reasons: ['asked', 'bounced', 'no-address'],
    duplex: true,
    addressSheets: true,
    name: 'Permits by post',
  });
  await makeChildrensPlots(
    server,
    rows.filter(({ site, surname, email }) => site === 'Canal Side' && surname.length < 30 && /^[^@\s]+@[^@\s]+\.\w+$/.test(email)),
  );
  await drawInspection(server);
  // Next year's edition of the permit is here, and no mailing has been taken over to it yet.
  await server.upload(`/api/templates/${permit}/revisions`, 'Shed and glasshouse permit 2028.pdf', shedPermit(2028));
}

interface Blank {
  name: string;
  label: string | null;
}

/** A form that is filled by hand so far is being laid out: some of its blanks are fields already, and the copy code has its place. */
async function drawInspection(server: ServerClient): Promise<void> {
  const { template } = await server.upload<{ template: { id: number; revisionId: number } }>(
    '/api/templates?blanks=draw',
    'Plot inspection.pdf',
    plotInspection(),
  );
  const { blanks } = await server.get<{ blanks: Blank[] }>(`/api/templates/${template.id}/layout/aids?revision=${template.revisionId}`);
  const taken = blanks.slice(0, 5);
  const keys = taken.map((_, index) => `field-${index + 1}`);
  const stamp = { kind: 'code', symbology: 'qr', page: 1, x: 477, y: 748, width: 62, height: 62, inPrint: false };
  await server.send('POST', `/api/templates/${template.id}/layout/changes`, {
    changes: [
      ...taken.map((field, index) => ({ kind: 'set', place: ['fields', keys[index]], is: field })),
      { kind: 'set', place: ['order'], was: [], is: keys },
      { kind: 'set', place: ['stamps', 'code'], is: stamp },
    ],
  });
}
