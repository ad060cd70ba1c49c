import { t } from '@mailbag/core/words';
import type { MailingDetail, SourceFileAnswer, TemplateUploadAnswer } from '@mailbag/contract';
import { api } from '../../api/client';
import { sourceReady } from '../../api/source-ready';
import { guessColumns } from '../mailing/guess-columns';

/** What ships with Mailbag for those who have nothing of their own at hand. */
async function shipped(path: string, name: string, type: string): Promise<File> {
  const answer = await fetch(path);
  if (!answer.ok) throw new Error(t`The sample “${name}” could not be loaded. Reload the page.`);
  return new File([await answer.blob()], name, { type });
}

/** Makes a mailing of a sample form and twelve sample records. @returns its id */
export async function makeSampleMailing(): Promise<number> {
  const nobody = (): void => undefined;
  const form = await shipped('/samples/shed-permit.pdf', 'Sample shed permit.pdf', 'application/pdf');
  const { template } = await api.upload<TemplateUploadAnswer>('/api/templates', form, nobody);
  const sheet = await shipped('/samples/shed-permits.csv', 'Sample shed permits.csv', 'text/csv');
  const { fileId } = await api.upload<SourceFileAnswer>('/api/sources/files', sheet, nobody);
  const { id: sourceId } = await api.post<{ id: number }>('/api/sources', {
    fileIds: [fileId],
    name: sheet.name,
    reading: { headingRow: 1 },
  });
  const source = await sourceReady(sourceId);
  const { id, version, plan } = await api.post<MailingDetail>('/api/mailings', { name: t`Sample: shed permits` });
  await api.put(`/api/mailings/${id}`, { version, plan: guessColumns({ ...plan, packet: [template.id], sourceId }, source) });
  return id;
}
