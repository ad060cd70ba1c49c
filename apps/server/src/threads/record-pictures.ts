import type { Row } from '@mailbag/core';
import { MailbagError } from '@mailbag/core';
import type { FrozenMailing, FrozenTemplate } from '../frozen/frozen-mailing.js';
import { fileKey } from '../files/file-key.js';
import { read } from '../files/files.js';
import { pictureOf, readPictureList } from '../files/picture-list.js';

/** Bytes of pictures that are kept for the next record: many name the same, such as the signature of their officer. */
const KEPT = 8_000_000;

/** The pictures of single copies, by the fields in whose boxes they stand. */
export type RecordPictures = (row: Row, template: FrozenTemplate) => Promise<Record<string, Uint8Array> | undefined>;

/**
 * What brings the pictures that the records of a mailing name.
 * @param given pictures by their names that are kept nowhere yet, for copies that are only looked at
 */
export async function recordPictures(
  { plan, pictures }: FrozenMailing,
  given: Readonly<Record<string, Uint8Array>> = {},
): Promise<RecordPictures> {
  const named = (plan.output.pictures ?? []).flatMap(({ template, field, column }) =>
    column === undefined ? [] : [{ template, field, column }],
  );
  if (named.length === 0) return () => Promise.resolve(undefined);
  const list = await readPictureList(pictures);
  const cache = new Map<string, Uint8Array>();
  let size = 0;
  const bytesOf = async (name: string, row: number): Promise<Uint8Array> => {
    if (Object.hasOwn(given, name)) return given[name]!;
    const digest = pictureOf(list, name);
    const known = digest === undefined ? undefined : cache.get(digest);
    if (known) return known;
    const bytes = digest === undefined ? null : await read(fileKey('attachments', digest));
    if (!bytes) throw new MailbagError('picture-missing', { name, row });
    if (size + bytes.length > KEPT) {
      cache.clear();
      size = 0;
    }
    size += bytes.length;
    cache.set(digest!, bytes);
    return bytes;
  };
  return async (row, template) => {
    const images: Record<string, Uint8Array> = {};
    for (const one of named) {
      const name = one.template === template.id ? row.cell(one.column).text.trim() : '';
      if (name !== '') images[one.field] = await bytesOf(name, row.row);
    }
    return images;
  };
}
