import { readFileSync } from 'node:fs';
import type { CompiledTemplate, Finish } from '@mailbag/core';
import { compileTemplate, isFillable } from '@mailbag/core';
import { nodeFonts } from '@mailbag/host';
import type { FrozenMailing } from '../batches/frozen-mailing.js';
import { dataPath } from '../platform/config.js';

/** The templates of a mailing made ready. @param finish as the mailing says where nothing is said */
export async function compileMailing(mailing: FrozenMailing, characters: Iterable<string>, finish?: Finish): Promise<CompiledTemplate[]> {
  const { fonts, faces } = await nodeFonts(dataPath('faces'));
  return Promise.all(
    mailing.templates.map((template) =>
      compileTemplate(new Uint8Array(readFileSync(dataPath('templates', `${template.hash}.pdf`))), {
        fonts,
        faces,
        characters,
        finish: finish ?? mailing.plan.output.finish ?? 'flattened',
        // Fields that have a rule are drawn anew in every copy.
        given: template.fields.filter((field) => isFillable(field) && Object.hasOwn(template.map, field.name)).map(({ name }) => name),
        file: template.name,
      }),
    ),
  );
}
