import type { ServerClient } from '../demo/src/server-client.js';
import { shedPermit } from '../demo/src/forms/shed-permit.js';

export interface Batch {
  id: number;
  number: number;
  state: string;
  records: number;
  copies: number;
  counts: Record<string, number>;
  error: { code: string; message: string } | null;
}
export interface CopyRow {
  id: number;
  code: string;
  recipient: string;
  address: string;
  file: string;
  state: string;
  nextTryAt: string | null;
}

/** A mailing of one template over a CSV file with the columns Plot, Name, Mail and Shed. */
export async function smallMailing(
  client: ServerClient,
  rows: readonly (readonly [plot: string, name: string, mail: string, shed: string])[],
  { mailed = true, folder = 'Permits', finish }: { mailed?: boolean; folder?: string; finish?: string } = {},
): Promise<{ mailing: number; template: number; source: number }> {
  const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'permit.pdf', shedPermit());
  const csv = `Plot,Name,Mail,Shed\r\n${rows.map((row) => row.join(',')).join('\r\n')}\r\n`;
  const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', 'rows.csv', new TextEncoder().encode(csv));
  const { id: sourceId } = await client.send<{ id: number }>('POST', '/api/sources', {
    fileIds: [fileId],
    name: 'rows.csv',
    reading: { headingRow: 1 },
  });
  await client.until<{ state: string }>(`/api/sources/${sourceId}`, ({ state }) => state === 'ready');
  const { id: mailing, version } = await client.send<{ id: number; version: number }>('POST', '/api/mailings', { name: 'Permits' });
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: {
      name: 'Permits',
      packet: [template.id],
      sourceId,
      keyColumn: 'Plot',
      leftOut: [],
      maps: {
        [template.id]: {
          'permit.plot': { kind: 'column', column: 'Plot' },
          'permit.name': { kind: 'column', column: 'Name' },
          'permit.shed': {
            kind: 'translate',
            column: 'Shed',
            table: [
              { from: 'yes', to: 'On' },
              { from: 'no', to: 'Off' },
            ],
          },
        },
      },
      output: { folder, file: '{{ plot }}.pdf', ...(finish === undefined ? {} : { finish }) },
      message: {
        mailed,
        addressColumn: 'Mail',
        recipient: '{{ name }}',
        subject: 'Plot {{ plot }}',
        body: 'Dear {{ name }},\n\nsee the attachment.',
      },
    },
  });
  return { mailing, template: template.id, source: sourceId };
}

/** All copies of a batch, newest first. */
export async function copiesOf(client: ServerClient, batch: number): Promise<CopyRow[]> {
  const all: CopyRow[] = [];
  for (;;) {
    const { rows, more } = await client.get<{ rows: CopyRow[]; more: boolean }>(
      `/api/copies?batch=${batch}&count=200${all.length > 0 ? `&before=${all.at(-1)!.id}` : ''}`,
    );
    all.push(...rows);
    if (!more) return all;
  }
}
