import { createHash } from 'node:crypto';
import { fileKey } from './file-key.js';
import { has, put, read } from './files.js';

/** Pictures by the names under which records ask for them: digests of files that lie among the attachments. It is a file there itself and never changes, so a batch that names it keeps what it began with. */
export type PictureList = ReadonlyMap<string, string>;

const ENDINGS = ['', '.png', '.jpg', '.jpeg'];

/** A name without folders, as it is compared: capitals do not count, and letters with marks may be written in two ways. */
export const pictureName = (path: string): string =>
  path
    .trim()
    .replace(/^.*[/\\]/, '')
    .normalize('NFC')
    .toLowerCase();

/** The digest of the picture of a name, which may lack its ending; undefined: there is none. */
export function pictureOf(list: PictureList, name: string): string | undefined {
  const wanted = pictureName(name);
  const ending = ENDINGS.find((one) => list.has(`${wanted}${one}`));
  return ending === undefined ? undefined : list.get(`${wanted}${ending}`);
}

/** @param digest of the list; null or undefined: there are no pictures */
export async function readPictureList(digest: string | null | undefined): Promise<PictureList> {
  const bytes = digest ? await read(fileKey('attachments', digest)) : null;
  return new Map(Object.entries(bytes ? (JSON.parse(bytes.toString('utf8')) as Record<string, string>) : {}));
}

/** Keeps a list. @returns its digest */
export async function keepPictureList(list: PictureList): Promise<string> {
  const text = JSON.stringify(Object.fromEntries([...list].sort(([one], [other]) => (one < other ? -1 : 1))));
  const digest = createHash('sha256').update(text).digest('hex');
  const key = fileKey('attachments', digest);
  if (!(await has(key))) await put(key, new TextEncoder().encode(text));
  return digest;
}
