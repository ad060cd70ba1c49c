import { compareEditions, inspectTemplate, isMailbagError, readBlanks, readEdition } from '@mailbag/core';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { percentile } from './batch.js';
import { option } from './option.js';

/** How long the forms of a folder take to be understood: milliseconds a page for labels and answers, and for blanks; milliseconds to compare a form with itself. */
export async function understandingBench(): Promise<void> {
  const folder = option('folder', '');
  if (!folder) throw new Error('npm run bench -- understanding --folder FOLDER, a folder of PDF forms');
  const [labels, blanks, compares]: number[][] = [[], [], []];
  const refused: string[] = [];
  for (const file of readdirSync(folder).filter((name) => name.endsWith('.pdf'))) {
    const bytes = new Uint8Array(readFileSync(join(folder, file)));
    const timed = async (work: () => Promise<unknown>): Promise<number> => {
      const start = performance.now();
      await work();
      return performance.now() - start;
    };
    try {
      const { pages } = await inspectTemplate(bytes, file);
      labels!.push((await timed(() => inspectTemplate(bytes, file))) / pages.length);
      blanks!.push((await timed(() => readBlanks(bytes, file))) / pages.length);
      const edition = await readEdition(bytes, file);
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
    }),
  );
}
