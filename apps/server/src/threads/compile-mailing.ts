import type { OutputPlan } from '@mailbag/contract';
import type { Finish } from '@mailbag/core';
import { MailbagError, RecordFiller } from '@mailbag/core';
import { nodeFonts } from '@mailbag/host';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { fileKey, folderOf } from '../files/file-key.js';
import { read, sha256 } from '../files/files.js';
import { templateFile } from '../files/template-file.js';

/** @throws MailbagError file-gone */
async function templateBytes({ hash, name }: FrozenMailing['templates'][number]): Promise<Uint8Array> {
  const bytes = await read(templateFile(hash));
  if (!bytes) throw new MailbagError('file-gone', { name });
  return new Uint8Array(bytes);
}

/** Pictures by field. What is read is what was chosen, or nothing is made. @throws MailbagError attachment-gone */
async function picturesOf({ pictures = [] }: OutputPlan, template: number): Promise<Record<string, Uint8Array>> {
  const mine = pictures.flatMap(({ template: own, field, file }) => (own === template && file ? [{ field, file }] : []));
  return Object.fromEntries(
    await Promise.all(
      mine.map(async ({ field, file }) => {
        const bytes = await read(fileKey('attachments', file.fileId));
        if (!bytes || (await sha256(bytes)) !== file.fileId) throw new MailbagError('attachment-gone', { name: file.name });
        return [field, bytes] as const;
      }),
    ),
  );
}

/** The templates of a mailing made ready. @param finish as the mailing says where nothing is said */
export async function compileMailing(mailing: FrozenMailing, characters: Iterable<string>, finish?: Finish): Promise<RecordFiller[]> {
  const { output } = mailing.plan;
  const { fonts, faces } = await nodeFonts(folderOf('faces'));
  return Promise.all(
    mailing.templates.map(async (template) => {
      const filler = await RecordFiller.of(await templateBytes(template), template, {
        fonts,
        faces,
        characters,
        finish: finish ?? output.finish ?? 'flattened',
        stamps: [...(template.stamps ?? []), ...(output.stamp ? [output.stamp] : [])],
        file: template.name,
      });
      return filler.withImages(await picturesOf(output, template.id));
    }),
  );
}
