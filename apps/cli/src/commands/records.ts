import { basename } from 'node:path';
import type { Column, SourceRecord, TableReading } from '@mailbag/core';
import { columnKindName, readFiles, sourceNoteSentence } from '@mailbag/core';
import { tableFile } from '@mailbag/host';
import { fileAndOptions, readFile, wholeNumber } from '../arguments.js';
import type { Command } from '../command.js';
import { note } from '../command.js';

const out = (text: string): void => void process.stdout.write(text);

/** Written as it comes, since a large sheet would be too long for one string. */
function writeJson(columns: readonly Column[], blocks: readonly SourceRecord[][], notes: readonly string[]): void {
  out(`{\n"columns": ${JSON.stringify(columns.map(({ name, kind }) => ({ name, kind })))},\n"records": [`);
  let isFirst = true;
  for (const block of blocks) {
    out(
      block
        .map(
          ({ cells }, index) =>
            `${isFirst && index === 0 ? '' : ','}\n${JSON.stringify(cells.map(({ text, value }) => ({ text, value })))}`,
        )
        .join(''),
    );
    isFirst = false;
  }
  out(`\n],\n"notes": ${JSON.stringify(notes)}\n}\n`);
}

export const records: Command = {
  usage: 'mailbag records SHEET [--sheet NAME] [--headings ROW] [--encoding NAME] [--delimiter CHAR] [--json]',
  help: `Reads a sheet as Mailbag does: .xlsx, .xls, .ods, .xlsb, CSV, or form data (XFDF, FDF, XML, JSON, a filled PDF).
What is left out is guessed. With --json: columns with their kinds, records as text (as the person sees it) and typed value, and what is odd.`,
  async run(args) {
    const { file, options } = fileAndOptions(args, {
      json: { type: 'boolean' },
      sheet: { type: 'string' },
      headings: { type: 'string' },
      encoding: { type: 'string' },
      delimiter: { type: 'string' },
    });
    readFile(file);
    const reading: TableReading = {
      ...(options.sheet === undefined ? {} : { sheet: options.sheet }),
      ...(options.headings === undefined ? {} : { headingRow: wholeNumber('headings', options.headings), layout: 'table' as const }),
      ...(options.encoding === undefined ? {} : { encoding: options.encoding }),
      ...(options.delimiter === undefined ? {} : { delimiter: options.delimiter === '\\t' ? '\t' : options.delimiter }),
    };
    const blocks: SourceRecord[][] = [];
    const { columns, count, notes } = await readFiles([() => tableFile(file, basename(file))], reading, (block) => void blocks.push(block));
    const sentences = notes.map(sourceNoteSentence);
    if (options.json) return writeJson(columns, blocks, sentences);
    for (const sentence of sentences) note(sentence);
    note(`${count} records, ${columns.length} columns: ${columns.map(({ name, kind }) => `${name} (${columnKindName(kind)})`).join(', ')}`);
    out(`${columns.map(({ name }) => name).join('\t')}\n`);
    for (const block of blocks)
      out(block.map(({ cells }) => `${cells.map(({ text }) => text.replace(/[\t\r\n]+/g, ' ')).join('\t')}\n`).join(''));
  },
};
