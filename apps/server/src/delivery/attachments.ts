import { buffer } from 'node:stream/consumers';
import type { Readable } from 'node:stream';
import type { ExtraFile } from '@mailbag/contract';
import { MailbagError, safeName } from '@mailbag/core';
import yazl from 'yazl';
import type { ArchivedCopy } from '../archive/archived-bytes.js';
import { archivedBytes } from '../archive/archived-bytes.js';
import { fileKey } from '../files/file-key.js';
import { read, sha256 } from '../files/files.js';
import type { Attachment } from './outgoing-message.js';

const PDF = 'application/pdf';
const baseName = (path: string): string => path.split('/').at(-1)!;

/** Types by extension, for extra files that a recipient's program should open. Common practice; registered with IANA. */
const types: Record<string, string> = {
  pdf: PDF,
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  txt: 'text/plain',
  csv: 'text/csv',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  odt: 'application/vnd.oasis.opendocument.text',
  ics: 'text/calendar',
};

/** Files that go along with every message. What is read is what was attached, or it does not leave. @throws MailbagError attachment-gone */
export function extraAttachments(files: readonly ExtraFile[]): Promise<Attachment[]> {
  return Promise.all(
    files.map(async ({ fileId, name }) => {
      const content = await read(fileKey('attachments', fileId));
      // Its name in the folder is its digest.
      if (!content || (await sha256(content)) !== fileId) throw new MailbagError('attachment-gone', { name });
      return {
        filename: safeName(name, 200),
        content,
        digest: fileId,
        contentType: types[name.split('.').at(-1)!.toLowerCase()] ?? 'application/octet-stream',
      };
    }),
  );
}

/** A file of a packet. */
export interface PacketFile {
  name: string;
  content: Buffer;
  /** SHA-256 in hexadecimal, where it is known. */
  digest?: string | null;
}

async function zipped(files: readonly PacketFile[]): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  const used = new Set<string>();
  for (const { name, content } of files) {
    let own = name;
    for (let count = 2; used.has(own.toLowerCase()); count++) own = name.replace(/(\.[^.]*)?$/, ` (${count})$1`);
    used.add(own.toLowerCase());
    // One date for all: the same copies give the same zip.
    zip.addBuffer(content, own, { compress: false, mtime: new Date(2000, 0, 1) });
  }
  zip.end();
  return buffer(zip.outputStream as unknown as Readable);
}

/** The copies of one recipient as they go along. @param name what they are called together @throws MailbagError batch-file-gone, copy-changed */
export async function packetAttachments(
  copies: readonly ArchivedCopy[],
  way: 'files' | 'combined' | 'zip',
  name: string,
  combine: () => Promise<Buffer>,
): Promise<Attachment[]> {
  const files = await Promise.all(
    copies.map(async (copy) => ({ name: baseName(copy.path), content: await archivedBytes(copy), digest: copy.sha256 })),
  );
  return asSent(files, way, name, combine);
}

/** Files of a packet as one attachment or several. */
export async function asSent(
  files: readonly PacketFile[],
  way: 'files' | 'combined' | 'zip',
  name: string,
  combine: () => Promise<Buffer>,
): Promise<Attachment[]> {
  const title = safeName(name, 120);
  if (way === 'zip') return [{ filename: `${title}.zip`, content: await zipped(files), contentType: 'application/zip' }];
  if (way === 'combined' && files.length > 1) return [{ filename: `${title}.pdf`, content: await combine(), contentType: PDF }];
  return files.map(({ name: filename, ...file }) => ({ filename, contentType: PDF, ...file }));
}

/** Bytes of attachments before they are encoded. */
export const attachmentSize = (attachments: readonly Attachment[]): number =>
  attachments.reduce((sum, { content }) => sum + content.length, 0);
/** Bytes of a message as it travels: Base64 makes four of three, and a line break of two after each 76 (RFC 2045, 6.8); headers and body beside. */
export const travellingSize = (attachments: number, body: number): number => Math.ceil(attachments * (4 / 3) * (78 / 76)) + body * 2 + 2000;
