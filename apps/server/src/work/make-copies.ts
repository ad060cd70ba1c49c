import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { Cell, CompiledTemplate } from '@mailbag/core';
import { MailbagError, compileTemplate, evaluateMap, fillCopy, rowReader } from '@mailbag/core';
import type { FrozenMailing } from '../batches/frozen-mailing.js';
import { dataPath } from '../platform/config.js';
import { nodeFonts } from '@mailbag/host';
import type { Tasks } from './tasks.js';
import { workerDatabase } from './worker-database.js';

interface Kept {
  batchId: number;
  mailing: FrozenMailing;
  compiled: CompiledTemplate[];
}

/** The batch that this thread works on, with its templates compiled. */
let kept: Kept | null = null;

export async function compileMailing(mailing: FrozenMailing, characters: string): Promise<CompiledTemplate[]> {
  const { fonts, faces } = await nodeFonts();
  return Promise.all(
    mailing.templates.map((template) =>
      compileTemplate(new Uint8Array(readFileSync(dataPath('templates', `${template.hash}.pdf`))), {
        fonts,
        faces,
        characters,
        file: template.name,
      }),
    ),
  );
}

async function batchOf(batchId: number): Promise<Kept> {
  if (kept?.batchId === batchId) return kept;
  const row = workerDatabase().prepare('SELECT frozen, characters FROM batch WHERE id = ?').get([batchId]) as {
    frozen: string;
    characters: string;
  };
  const mailing = JSON.parse(row.frozen) as FrozenMailing;
  kept = { batchId, mailing, compiled: await compileMailing(mailing, row.characters) };
  return kept;
}

const madeFolders = new Set<string>();

/** Writes a file aside and renames it, so that it is there whole or not at all. @throws MailbagError batch-disk-full, batch-not-made */
function writeWhole(path: string, bytes: Uint8Array, aside: string): void {
  try {
    const folder = dirname(path);
    if (!madeFolders.has(folder)) {
      mkdirSync(folder, { recursive: true });
      madeFolders.add(folder);
    }
    writeFileSync(aside, bytes);
    renameSync(aside, path);
  } catch (error) {
    madeFolders.clear();
    rmSync(aside, { force: true });
    const code = (error as NodeJS.ErrnoException).code ?? '';
    if (code === 'ENOSPC' || code === 'EDQUOT') throw new MailbagError('batch-disk-full', { path });
    throw new MailbagError('batch-not-made', { path, why: code || String(error) });
  }
}

/** Makes the copies that are still planned for a stretch of records. Made again, they have the same bytes. */
export async function makeCopies({ batchId, from, to }: Tasks['make']['input']): Promise<Tasks['make']['output']> {
  const { mailing, compiled } = await batchOf(batchId);
  const database = workerDatabase();
  const records = database
    .prepare('SELECT ordinal, row, cells FROM batch_record WHERE batchId = ? AND ordinal >= ? AND ordinal < ?')
    .all([batchId, from, to]) as {
    ordinal: number;
    row: number;
    cells: string;
  }[];
  const copies = database
    .prepare(
      "SELECT id, recordOrdinal, position, path FROM copy WHERE batchId = ? AND recordOrdinal >= ? AND recordOrdinal < ? AND state = 'planned' ORDER BY recordOrdinal, position",
    )
    .all([batchId, from, to]) as { id: number; recordOrdinal: number; position: number; path: string }[];
  const byOrdinal = new Map(records.map((record) => [record.ordinal, record]));
  const read = rowReader(mailing.columns);
  const archive = dataPath('archive');
  const made: { id: number; size: number; sha256: string }[] = [];
  for (const copy of copies) {
    const record = byOrdinal.get(copy.recordOrdinal);
    const template = mailing.templates[copy.position];
    if (!record || !template) continue;
    const row = read({ row: record.row, cells: JSON.parse(record.cells) as Cell[] });
    const { values } = evaluateMap(template.fields, template.map, row);
    const { bytes } = fillCopy(compiled[copy.position]!, values);
    writeWhole(join(archive, copy.path), bytes, dataPath('spool', `copy-${copy.id}.part`));
    made.push({ id: copy.id, size: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') });
  }
  return { made };
}
