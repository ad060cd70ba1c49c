import { createHash } from 'node:crypto';
import type { Hash } from 'node:crypto';
import type { Cell, FieldValues, CopyContext, FilledCopy, RecordFiller } from '@mailbag/core';
import { CopyReader, MailbagError, copiesFor, isMailbagError, readValues, rowReader } from '@mailbag/core';
import type { FrozenBatch } from '../frozen/frozen-mailing.js';
import { frozenBatch } from '../frozen/frozen-mailing.js';
import { copyPlace } from '../frozen/personal-link.js';
import { readCopyFile, syncCopies, writeCopyFile } from '../files/copy-file.js';
import type { FileKey } from '../files/file-key.js';
import { fileKey } from '../files/file-key.js';
import { stat } from '../files/files.js';
import { compileMailing } from './compile-mailing.js';
import type { CopyPasswords, Protections } from './protections.js';
import { protectionsOf } from './protections.js';
import type { RecordPictures } from './record-pictures.js';
import { recordPictures } from './record-pictures.js';
import { readWords } from './foreign-words.js';
import type { MadeCopy, Tasks } from '../work/tasks.js';
import { batchStore } from '../stores/batch.store.js';
import { copyStore } from '../stores/copy.store.js';
import { threadSql } from './worker-database.js';

interface CachedBatch extends FrozenBatch {
  batchId: number;
  fillers: RecordFiller[];
  protections: Protections | null;
  /** What reads copies back, by template. */
  readers: (CopyReader | null)[];
  pictures: RecordPictures;
}

/** The batch that this thread works on, with its templates compiled. */
let cached: CachedBatch | null = null;

async function batchOf(batchId: number): Promise<CachedBatch> {
  if (cached?.batchId === batchId) return cached;
  const row = (await batchStore.frozenWithCharacters(threadSql(), batchId))!;
  const batch = frozenBatch(row);
  const { mailing } = batch;
  cached = {
    ...batch,
    batchId,
    fillers: await compileMailing(mailing, readWords(row.characters)),
    protections: protectionsOf(mailing, `batch ${batchId}`),
    readers: mailing.templates.map(() => null),
    pictures: await recordPictures(mailing),
  };
  return cached;
}

const begun = new WeakMap<Uint8Array, Hash>();

/** SHA-256 of a copy. What it shares with others is gone through once a template. */
function sha256Of({ parts: [base, ...rest] }: FilledCopy): string {
  let hash = begun.get(base!);
  if (!hash) begun.set(base!, (hash = createHash('sha256').update(base!)));
  const own = hash.copy();
  for (const part of rest) own.update(part);
  return own.digest('hex');
}

/** Copies that a password opens are opened with it once in so many; of every one the bytes on disk and what they were made from are compared. */
const OPENED = 50;
let openedAfter = 0;

/** Reads a copy from disk and compares it with what was meant. @throws MailbagError copy-differs */
async function readBack(
  batch: CachedBatch,
  copy: { code: string; path: string; position: number },
  key: FileKey,
  filled: FilledCopy,
  values: FieldValues,
  passwords: CopyPasswords | null,
  told: CopyContext,
): Promise<void> {
  const differs = (what: string): MailbagError => new MailbagError('copy-differs', { copy: copy.code, path: copy.path, what });
  const file = readCopyFile(
    key,
    filled.parts.reduce((sum, part) => sum + part.length, 0),
  );
  let at = 0;
  for (const part of filled.parts) {
    if (Buffer.compare(part, file.subarray(at, at + part.length)) !== 0) throw differs('its bytes on disk are not those that were written');
    at += part.length;
  }
  if (at !== file.length) throw differs(`it has ${(await stat(key))?.size} bytes on disk in place of ${at}`);
  const filler = batch.fillers[copy.position]!;
  if (passwords && openedAfter++ % OPENED === 0) {
    try {
      await readValues(file, copy.path, passwords.open);
    } catch (error) {
      // A flattened copy has no fields left, which is told only after it has been opened.
      if (!isMailbagError(error) || error.code !== 'pdf-no-fields') throw differs('its password does not open it');
    }
  }
  // What a password hides is compared as it is without: the same objects, before they are encrypted.
  const plain = passwords ? filler.fillValues(values, told).bytes : file;
  const reader = (batch.readers[copy.position] ??= await CopyReader.of(filler.compiled, plain.slice()));
  const difference = await reader.compare(plain, values, filled.notes);
  if (difference) throw differs(difference.field ? `“${difference.field}”: ${difference.what}` : difference.what);
}

/** Makes the copies that are still planned for a stretch of records. Made again, they have the same bytes. */
export async function makeCopies({ batchId, from, to }: Tasks['make']['input']): Promise<Tasks['make']['output']> {
  const batch = await batchOf(batchId);
  const { context, mailing, fillers, protections } = batch;
  const records = await batchStore.recordsBetween(threadSql(), batchId, from, to);
  const copies = await copyStore.plannedBetween(threadSql(), batchId, from, to);
  const byOrdinal = new Map(records.map(({ ordinal, row, cells }) => [ordinal, { ordinal, row, cells: JSON.parse(cells) as Cell[] }]));
  const read = rowReader(mailing.columns);
  const made: MadeCopy[] = [];
  const written: FileKey[] = [];
  for (const copy of copies) {
    const record = byOrdinal.get(copy.recordOrdinal);
    const template = mailing.templates[copy.position];
    if (!record || !template) continue;
    const passwords = protections?.(record, copy.code, context, template.name) ?? null;
    const protect = passwords?.protect ?? null;
    const place = copyPlace(context, mailing.links, copy.recordOrdinal, copy.code);
    const row = copiesFor(template, read(record), place)[copy.part];
    if (!row) continue;
    const images = await batch.pictures(row, template);
    const told = { ...place, ...(images && { images }) };
    const { copy: filled, values } = fillers[copy.position]!.fill(row, { ...told, protect });
    const key = fileKey('archive', copy.path);
    writeCopyFile(key, filled, fileKey('spool', `copy-${copy.id}.part`));
    written.push(key);
    await readBack(batch, copy, key, filled, values, passwords, told);
    made.push({ id: copy.id, size: filled.parts.reduce((sum, part) => sum + part.length, 0), sha256: sha256Of(filled) });
  }
  // On the disk before they are in the ledger: what it says is there outlasts a power cut.
  await syncCopies(written);
  return { made };
}
