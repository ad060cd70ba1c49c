import type { Cell, CompiledTemplate, RecordFiller } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { ADDRESS_FIELDS, CombinedFile, addressSheet, compileTemplate, copiesFor, MailbagError, rowReader } from '@mailbag/core';
import { nodeFonts } from '@mailbag/host';
import type { FrozenBatch } from '../frozen/frozen-mailing.js';
import { frozenBatch } from '../frozen/frozen-mailing.js';
import { copyPlace } from '../frozen/personal-link.js';
import { archivedBytes } from '../archive/archived-bytes.js';
import { notWritten, isDiskFullFor } from '../files/failures.js';
import { folderOf } from '../files/file-key.js';
import { WholeFile } from '../files/whole-file.js';
import { compileMailing } from './compile-mailing.js';
import type { RecordPictures } from './record-pictures.js';
import { recordPictures } from './record-pictures.js';
import { foreignWords, readWords } from './foreign-words.js';
import type { AssembleInput, AssembleItem, Tasks } from '../work/tasks.js';
import { batchStore } from '../stores/batch.store.js';
import { copyStore } from '../stores/copy.store.js';
import { threadSql } from './worker-database.js';

interface Ready extends FrozenBatch {
  fillers: RecordFiller[];
  pictures: RecordPictures;
}

/** Batches that were used last, made ready without passwords and flat. */
async function ready(batchId: number): Promise<Ready> {
  const row = (await batchStore.frozenWithCharacters(threadSql(), batchId))!;
  const batch = frozenBatch(row);
  // Templates spare time and room, and are needed only for copies with a password: copies of a batch whose template is gone are put together without.
  const fillers = await compileMailing(batch.mailing, readWords(row.characters), 'flattened').catch(() => []);
  return { ...batch, fillers, pictures: await recordPictures(batch.mailing) };
}

async function addressTemplate(items: readonly AssembleItem[], returnLine: string): Promise<CompiledTemplate> {
  const { fonts, faces } = await nodeFonts(folderOf('faces'));
  const characters = new Set<string>();
  foreignWords(returnLine, characters);
  for (const { address } of items) for (const line of address ?? []) foreignWords(line, characters);
  return compileTemplate(await addressSheet(), { fonts, faces, characters, given: Object.values(ADDRESS_FIELDS), file: 'address sheet' });
}

/**
 * Puts copies into one file, aside first, from their bytes in the archive: what is printed or mailed together is what was made. Only one that a password
 * opens is filled anew, without it. The art of a form stands in the file once.
 * @throws MailbagError batch-file-gone, copy-changed, print-record-gone, batch-disk-full
 */
export async function assembleCopies({ key, title, duplex, office, items }: AssembleInput): Promise<Tasks['assemble']['output']> {
  const file = new WholeFile(key);
  const batches = new Map<number, Ready>();
  const firstSheets: number[] = [];
  let [pages, sheets] = [0, 0];
  try {
    const combined = new CombinedFile((bytes) => file.write(bytes), { duplex, ...(title ? { title } : {}) });
    const cover = office && items.some(({ address }) => address !== null) ? await addressTemplate(items, office.returnLine) : null;
    const add = (own: number): void => {
      pages += own + (duplex ? own % 2 : 0);
      sheets += duplex ? Math.ceil(own / 2) : own;
    };
    for (const { batchId, recordOrdinal, position, code, bookmark, address } of items) {
      let batch = batches.get(batchId);
      if (!batch) batches.set(batchId, (batch = await ready(batchId)));
      firstSheets.push(sheets + 1);
      if (cover && address) {
        combined.add(cover, {
          values: { [ADDRESS_FIELDS.returnLine]: office!.returnLine, [ADDRESS_FIELDS.address]: address.join('\n') },
          bookmark: `${bookmark} (address)`,
        });
        add(cover.allPages.length);
      }
      const copy = await copyStore.byCode(threadSql(), code);
      if (!copy) throw new MailbagError('not-found', { what: t`copy ${code}` });
      const filler = batch.fillers[position];
      if (!copy.isProtected) {
        add(await combined.addMade(filler?.compiled ?? null, await archivedBytes({ code, ...copy }), bookmark));
        continue;
      }
      const { row, cells = '[]' } = (await batchStore.record(threadSql(), batchId, recordOrdinal)) ?? {};
      // A record whose time was over has no values any more; a copy of it would come out blank.
      if (cells === '[]' || row === undefined || !filler) throw new MailbagError('print-record-gone', { copy: code });
      const template = batch.mailing.templates[position]!;
      const place = copyPlace(batch.context, batch.mailing.links, recordOrdinal, code);
      const whole = rowReader(batch.mailing.columns)({ row, cells: JSON.parse(cells) as Cell[] });
      const own = copiesFor(template, whole, place)[copy.part];
      if (!own) throw new MailbagError('print-record-gone', { copy: code });
      const images = await batch.pictures(own, template);
      filler.addTo(combined, own, bookmark, { ...place, ...(images && { images }) });
      add(filler.compiled.allPages.length);
    }
    combined.end();
    file.keep();
    return { pages, sheets, size: file.size, firstSheets };
  } catch (error) {
    file.drop();
    throw isDiskFullFor(error) ? notWritten(error, key) : error;
  }
}
