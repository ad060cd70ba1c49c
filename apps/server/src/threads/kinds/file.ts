import { readFiles } from '@mailbag/core';
import { tableFile } from '@mailbag/host';
import { pathOf } from '../../files/file-key.js';
import { knownFields } from '../known-fields.js';
import type { ReadingKind } from './kind.js';

/** What stands in uploaded files, one after the other. */
export const fileKind: ReadingKind<'file'> = {
  async read({ files }, reading, onRecords) {
    const known = await knownFields();
    return readFiles(
      files.map(
        ({ key, file }) =>
          () =>
            tableFile(pathOf(key), file, known),
      ),
      reading,
      onRecords,
    );
  },
};
