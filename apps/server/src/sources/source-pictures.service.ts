import { randomUUID } from 'node:crypto';
import type { PictureNamesAnswer, SourcePicturesAnswer } from '@mailbag/contract';
import { MailbagError, assertImage, isMailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import type { Entry, ZipFile } from 'yauzl';
import { openPromise } from 'yauzl';
import { config } from '../platform/config.js';
import type { FileKey } from '../files/file-key.js';
import { fileKey, fileName, pathOf } from '../files/file-key.js';
import { digestOf, has, put, read, remove, rename, stat } from '../files/files.js';
import { keepPictureList, pictureName, pictureOf, readPictureList } from '../files/picture-list.js';
import { SourcesService } from './sources.service.js';

/** Files in one zip. */
const MOST_FILES = 50_000;
/** Files that were left and are named. */
const MOST_TOLD = 20;

/** Takes the files of one upload, one after the other, and remembers which were left. */
class Arriving {
  readonly refused: string[] = [];
  refusedCount = 0;
  taken = 0;

  constructor(readonly list: Map<string, string>) {}

  refuse(name: string, why: string): void {
    this.refusedCount++;
    if (this.refused.length < MOST_TOLD) this.refused.push(`${name}: ${why}`);
  }

  /** Keeps a file of the spool among the attachments, under its digest. */
  async take(key: FileKey, name: string): Promise<void> {
    try {
      assertImage((await read(key))!, name);
      const digest = (await digestOf(key))!;
      const place = fileKey('attachments', digest);
      if (!(await has(place))) await rename(key, place);
      this.list.set(pictureName(name), digest);
      this.taken++;
    } catch (error) {
      if (!isMailbagError(error)) throw error;
      this.refuse(name, 'it is not a PNG or JPEG that can be read');
    } finally {
      await remove(key);
    }
  }
}

/** Pictures that come with the records of a source, in a folder or a zip, to be named by one of its columns. */
@Injectable()
export class SourcePictures {
  constructor(private readonly sources: SourcesService) {}

  /** Adds the pictures of a file, which is one itself or a zip of them; one of a name that is there already takes its place. @throws MailbagError not-found, pictures-* */
  async add(id: number, key: FileKey, name: string): Promise<SourcePicturesAnswer> {
    try {
      const arriving = new Arriving(new Map(await readPictureList(await this.sources.pictureList(id))));
      const zip = await openPromise(pathOf(key), { autoClose: false }).catch(() => null);
      if (zip) await this.unpack(zip, name, arriving).finally(() => zip.close());
      else await arriving.take(key, name);
      const { list, taken, refused, refusedCount } = arriving;
      if (taken === 0) throw new MailbagError('pictures-none', { file: name });
      await this.sources.setPictures(id, { list: await keepPictureList(list), count: list.size });
      return { pictures: list.size, taken, refused, refusedCount };
    } finally {
      await remove(key);
    }
  }

  private async unpack(zip: ZipFile, name: string, arriving: Arriving): Promise<void> {
    let seen = 0;
    for await (const entry of zip.eachEntry()) {
      if (++seen > MOST_FILES) throw new MailbagError('pictures-too-many', { file: name, limit: MOST_FILES });
      // Folders, and what some systems put beside each file.
      if (entry.fileName.endsWith('/') || /(^|\/)(__MACOSX\/|\.)/.test(entry.fileName)) continue;
      await this.unpackOne(zip, entry, arriving);
    }
  }

  private async unpackOne(zip: ZipFile, entry: Entry, arriving: Arriving): Promise<void> {
    if (!/\.(png|jpe?g)$/i.test(entry.fileName)) return arriving.refuse(entry.fileName, 'only PNG and JPEG are taken');
    if (entry.uncompressedSize > config.templateLimit) return arriving.refuse(entry.fileName, 'it is too large');
    const key = fileKey('spool', `picture-${randomUUID()}`);
    try {
      await put(key, await zip.openReadStreamPromise(entry));
    } catch {
      await remove(key);
      return arriving.refuse(entry.fileName, 'it is damaged');
    }
    await arriving.take(key, entry.fileName);
  }

  /** Names of the pictures of a source, which its list holds in their order. @throws MailbagError not-found */
  async names(id: number, from: number, count: number): Promise<PictureNamesAnswer> {
    const names = [...(await readPictureList(await this.sources.pictureList(id))).keys()];
    return { total: names.length, names: names.slice(from, from + count) };
  }

  /** The picture that a record names. @throws MailbagError not-found */
  async named(id: number, name: string): Promise<FileKey> {
    const digest = pictureOf(await readPictureList(await this.sources.pictureList(id)), name);
    const key = digest === undefined ? null : fileKey('attachments', digest);
    if (!key || !(await stat(key))) throw new MailbagError('not-found', { what: t`picture “${fileName(`attachments/${name}`)}”` });
    return key;
  }

  /** Takes all pictures away from a source. Batches that began with them keep theirs. @throws MailbagError not-found */
  async clear(id: number): Promise<void> {
    await this.sources.setPictures(id, null);
  }
}
