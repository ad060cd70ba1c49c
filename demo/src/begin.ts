import { bankMandate } from './forms/bank-mandate.js';
import { shedPermit } from './forms/shed-permit.js';
import { tenancyAgreement } from './forms/tenancy-agreement.js';
import type { ServerClient } from './server-client.js';

interface Saved {
  id: number;
  version: number;
}

/** The office's three forms, uploaded where they are not there yet. */
export async function uploadForms(server: ServerClient): Promise<{ agreement: number; mandate: number; permit: number }> {
  const known = await server.get<{ id: number; name: string }[]>('/api/templates');
  const upload = async (name: string, bytes: () => Uint8Array | Promise<Uint8Array>): Promise<number> =>
    known.find((one) => one.name === name)?.id ??
    (await server.upload<{ template: { id: number } }>('/api/templates', `${name}.pdf`, await bytes())).template.id;
  return {
    agreement: await upload('Tenancy agreement', tenancyAgreement),
    mandate: await upload('Bank mandate', bankMandate),
    permit: await upload('Shed and glasshouse permit', shedPermit),
  };
}

/** A sheet as a source, read to its end. @returns its id */
export async function addSheet(server: ServerClient, file: string, bytes: Uint8Array): Promise<number> {
  const { fileId, excerpt } = await server.upload<{ fileId: string; excerpt: { sheet: string | null; headingRow: number } }>(
    '/api/sources/files',
    file,
    bytes,
  );
  const reading = { headingRow: excerpt.headingRow, ...(excerpt.sheet === null ? {} : { sheet: excerpt.sheet }) };
  const { id } = await server.send<{ id: number }>('POST', '/api/sources', { fileIds: [fileId], name: file, reading });
  await server.until<{ state: string }>(`/api/sources/${id}`, ({ state }) => state !== 'reading');
  return id;
}

/** A mailing with its plan. @returns its id */
export async function addMailing(server: ServerClient, name: string, plan: object): Promise<number> {
  const { id, version } = await server.send<Saved>('POST', '/api/mailings', { name });
  await server.send('PUT', `/api/mailings/${id}`, { version, plan: { name, leftOut: [], ...plan } });
  return id;
}
