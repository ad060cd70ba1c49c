import { readFileSync } from 'node:fs';
import type { Finish } from '@mailbag/core';
import { RecordFiller } from '@mailbag/core';
import { nodeFonts } from '@mailbag/host';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { dataPath } from '../platform/config.js';

/** The templates of a mailing made ready. @param finish as the mailing says where nothing is said */
export async function compileMailing(mailing: FrozenMailing, characters: Iterable<string>, finish?: Finish): Promise<RecordFiller[]> {
  const { fonts, faces } = await nodeFonts(dataPath('faces'));
  return Promise.all(
    mailing.templates.map((template) =>
      RecordFiller.of(new Uint8Array(readFileSync(dataPath('templates', `${template.hash}.pdf`))), template, {
        fonts,
        faces,
        characters,
        finish: finish ?? mailing.plan.output.finish ?? 'flattened',
        file: template.name,
      }),
    ),
  );
}
