import { createHash } from 'node:crypto';
import { MailbagError, assertImage } from '@mailbag/core';
import sharp from 'sharp';
import { fileKey } from '../files/file-key.js';
import { has, put } from '../files/files.js';

/** Pixels of a picture that is looked at; a file of a few kilobytes can say that it has very many. */
const MOST_PIXELS = 40_000_000;
const QUALITY = 90;

// One picture takes one core, and nothing of it stays.
sharp.concurrency(1);
sharp.cache(false);

/**
 * The same picture written anew, so that only what is seen of it stays: where and when it was taken, by which device and whatever else its file holds is gone. It is
 * turned as the device held it.
 * @param bytes PNG or JPEG @throws MailbagError as reading it does
 */
export async function pictureAnew(bytes: Uint8Array): Promise<Uint8Array> {
  assertImage(bytes, 'picture');
  try {
    const read = sharp(bytes, { limitInputPixels: MOST_PIXELS }).autoOrient();
    const { format } = await read.metadata();
    return await (format === 'png' ? read.png({ compressionLevel: 9 }) : read.jpeg({ quality: QUALITY })).toBuffer();
  } catch {
    throw new MailbagError('image-unreadable', { field: 'picture' });
  }
}

/** Keeps a picture that a visitor sent, if it is one by its content. @returns its digest @throws MailbagError as reading it does */
export async function keepAnswerPicture(bytes: Uint8Array): Promise<string> {
  const own = await pictureAnew(bytes);
  const digest = createHash('sha256').update(own).digest('hex');
  const key = fileKey('attachments', digest);
  if (!(await has(key))) await put(key, own);
  return digest;
}
