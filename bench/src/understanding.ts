import { PDFDocument } from '@cantoo/pdf-lib';
import { compareEditions, inspectTemplate, isMailbagError, readBlanks, readEdition } from '@mailbag/core';
import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { percentile } from './batch.js';
import { option } from './option.js';

/** What a person calls the fields of published forms, by the SHA-256 of the form: written down beside its picture, null where neither print nor name tells anything. */
const truth = JSON.parse(readFileSync('bench/truth/labels.json', 'utf8')) as Record<string, Record<string, string | null>>;

const bare = (label: string | null): string =>
  (label ?? '')
    .toLowerCase()
    .replace(/^[a-z]\)\s*/, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** A form whose fields all have names that say nothing, with what each was called. Null: the library that renames them cannot read it. */
async function renamed(bytes: Uint8Array): Promise<{ bytes: Uint8Array; names: Map<string, string> } | null> {
  try {
    const doc = await PDFDocument.load(bytes);
    const fields = doc.getForm().getFields();
    const before = fields.map((field) => field.getName());
    fields.forEach((field, index) => field.acroField.setPartialName(`q${index}`));
    const names = new Map(before.map((name, index) => [name, fields[index]!.getName()]));
    return { bytes: await doc.save({ updateFieldAppearances: false }), names };
  } catch {
    return null;
  }
}

/** How long the forms of a folder take to be understood: milliseconds a page for labels and answers, and for blanks; milliseconds to compare a form with itself. */
export async function understandingBench(): Promise<void> {
  const folder = option('folder', '');
  if (!folder) throw new Error('npm run bench -- understanding --folder FOLDER, a folder of PDF forms');
  const [labels, blanks, compares]: number[][] = [[], [], []];
  const refused: string[] = [];
  const wrong: string[] = [];
  const editions = { forms: 0, fields: 0, right: 0, wrong: 0 };
  let [known, right] = [0, 0];
  for (const file of readdirSync(folder).filter((name) => name.endsWith('.pdf'))) {
    const bytes = new Uint8Array(readFileSync(join(folder, file)));
    const timed = async (work: () => Promise<unknown>): Promise<number> => {
      const start = performance.now();
      await work();
      return performance.now() - start;
    };
    try {
      const { pages, fields } = await inspectTemplate(bytes, file);
      const told = truth[createHash('sha256').update(bytes).digest('hex')];
      if (told) {
        known++;
        for (const { name, label } of fields) {
          if (!Object.hasOwn(told, name)) continue;
          if (bare(told[name]!) === bare(label)) right++;
          else wrong.push(`${file} ${name}: ${label} in place of ${told[name]}`);
        }
      }
      labels!.push((await timed(() => inspectTemplate(bytes, file))) / pages.length);
      blanks!.push((await timed(() => readBlanks(bytes, file))) / pages.length);
      const edition = await readEdition(bytes, file);
      const other = await renamed(bytes);
      if (other) {
        const { pairs } = compareEditions(edition, await readEdition(other.bytes, file));
        editions.forms++;
        for (const pair of pairs) {
          if (other.names.get(pair.old) === pair.new) editions.right++;
          else editions.wrong++;
        }
        editions.fields += edition.description.fields.filter(({ kind }) => kind !== 'button').length;
      }
      compares!.push(await timed(async () => compareEditions(edition, await readEdition(bytes, file))));
    } catch (error) {
      if (!isMailbagError(error)) throw error;
      refused.push(file);
    }
  }
  const told = (values: number[]): object => ({ median: percentile(values, 0.5), worst: percentile(values, 1) });
  console.log(
    JSON.stringify({
      case: 'understanding',
      forms: labels!.length,
      refused: refused.length,
      labelsMsAPage: told(labels!),
      blanksMsAPage: told(blanks!),
      compareMs: told(compares!),
      editionsRenamed: editions,
      labelsRight: known === 0 ? null : { forms: known, fields: right + wrong.length, right, wrong },
    }),
  );
}
