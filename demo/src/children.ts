import type { ServerClient } from './server-client.js';
import { LINES, childrensPlot } from './forms/childrens-plot.js';
import { bedSigns, officeSignature } from './drawings.js';
import type { Tenancy } from './tenancies.js';

const names = ['Milo', 'Ida', 'Oskar', 'Juna', 'Tove', 'Emre', 'Lene', 'Piet', 'Nika', 'Alma', 'Bela', 'Runa', 'Jannis', 'Maud', 'Kasimir'];
const beds = ['Radishes', 'Sunflowers', 'Peas', 'Strawberries', 'Pumpkins'];
const signs = ['sun', 'snail', 'tulip', 'wave'];

/** Families with so many children each; who has more than a sheet has lines for gets another one. */
const families = [2, 1, 4, 2, 3, 1, 5, 2, 1];

/** A list with a row a child, as the volunteers keep it: a family with several stands in it several times. */
export function childrensList(rows: readonly Tenancy[]): Uint8Array {
  const lines = ['Plot;Tenant;E-mail;Sign;Child;Age;Bed'];
  let child = 0;
  for (const [at, count] of families.entries()) {
    const { plot, firstName, surname, email } = rows[at]!;
    for (let of = 0; of < count; of++, child++) {
      const own = [names[child % names.length]!, String(4 + ((child * 5) % 9)), beds[child % beds.length]!];
      lines.push([plot, `${firstName} ${surname}`, email, signs[at % signs.length]!, ...own].join(';'));
    }
  }
  return new TextEncoder().encode(`${lines.join('\r\n')}\r\n`);
}

const column = (name: string) => ({ kind: 'column', column: name });
const parts = ['Child', 'Age', 'Bed'];

/** A mailing over that list: a row of the form for each child, and as many sheets as it takes. */
export async function makeChildrensPlots(server: ServerClient, rows: readonly Tenancy[]): Promise<void> {
  const { template } = await server.upload<{ template: { id: number } }>('/api/templates', 'Children’s plot.pdf', childrensPlot());
  const { fileId } = await server.upload<{ fileId: string }>('/api/sources/files', 'children.csv', childrensList(rows));
  const { id: sourceId } = await server.send<{ id: number }>('POST', '/api/sources', {
    fileIds: [fileId],
    name: 'children.csv',
    reading: { headingRow: 1, delimiter: ';', onePer: 'Plot' },
  });
  await server.until<{ state: string }>(`/api/sources/${sourceId}`, ({ state }) => state !== 'reading');
  for (const [name, bytes] of Object.entries(bedSigns())) await server.upload(`/api/sources/${sourceId}/pictures`, `${name}.png`, bytes);
  const file = await server.upload<object>('/api/mailings/pictures', 'office signature.png', officeSignature());
  const largest = Math.max(...families);
  const lines = Array.from({ length: LINES }, (_, at) => at + 1);
  const { id, version } = await server.send<{ id: number; version: number }>('POST', '/api/mailings', { name: 'Children’s plots' });
  await server.send('PUT', `/api/mailings/${id}`, {
    version,
    plan: {
      name: 'Children’s plots',
      packet: [template.id],
      sourceId,
      keyColumn: 'Plot',
      leftOut: [],
      maps: {
        [template.id]: {
          'children.plot': column('Plot'),
          'children.family': column('Tenant'),
          ...Object.fromEntries(
            lines.flatMap((line) =>
              parts.map((part) => [`children.row${line}.${part === 'Child' ? 'name' : part.toLowerCase()}`, column(`${part} ${line}`)]),
            ),
          ),
        },
      },
      counts: {
        [template.id]: { items: Array.from({ length: largest }, (_, at) => parts.map((part) => `${part} ${at + 1}`)), perCopy: LINES },
      },
      output: {
        folder: '2027/Children',
        file: '{{ plot }} {{ template }}.pdf',
        pictures: [
          { template: template.id, field: 'children.office', file },
          { template: template.id, field: 'children.sign', column: 'Sign' },
        ],
      },
      message: {
        mailed: true,
        addressColumn: 'E-mail',
        recipient: '{{ tenant }}',
        subject: 'A children’s plot on {{ plot }}',
        body: 'Dear {{ tenant }},\n\nthe beds are dug. Please bring the sheet along on the first Saturday of March.\n\nLarkmere Allotment Office',
      },
    },
  });
}
