import { createHash } from 'node:crypto';
import { bareImage } from '@mailbag/core';
import { fileKey } from '../files/file-key.js';
import { has, put } from '../files/files.js';

/** Keeps a picture that a visitor sent, if it is one by its content, without what its file tells besides. @returns its digest @throws MailbagError as reading it does */
export async function keepAnswerPicture(bytes: Uint8Array): Promise<string> {
  const bare = bareImage(bytes);
  const digest = createHash('sha256').update(bare).digest('hex');
  const key = fileKey('attachments', digest);
  if (!(await has(key))) await put(key, bare);
  return digest;
}
