import type { Finish } from '@mailbag/core';
import { MailbagError, RecordFiller } from '@mailbag/core';
import { nodeFonts } from '@mailbag/host';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { folderOf } from '../files/file-key.js';
import { read } from '../files/files.js';
import { templateFile } from '../files/template-file.js';

/** @throws MailbagError file-gone */
async function templateBytes({ hash, name }: FrozenMailing['templates'][number]): Promise<Uint8Array> {
  const bytes = await read(templateFile(hash));
  if (!bytes) throw new MailbagError('file-gone', { name });
  return new Uint8Array(bytes);
}

/** The templates of a mailing made ready. @param finish as the mailing says where nothing is said */
export async function compileMailing(mailing: FrozenMailing, characters: Iterable<string>, finish?: Finish): Promise<RecordFiller[]> {
  const { fonts, faces } = await nodeFonts(folderOf('faces'));
  return Promise.all(
    mailing.templates.map(async (template) =>
      RecordFiller.of(await templateBytes(template), template, {
        fonts,
        faces,
        characters,
        finish: finish ?? mailing.plan.output.finish ?? 'flattened',
        file: template.name,
      }),
    ),
  );
}
