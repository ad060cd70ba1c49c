import { basename } from 'node:path';
import { findingSentence, inspectTemplate } from '@mailbag/core';
import { fileAndOptions, readFile, wholeNumber } from '../arguments.js';
import type { Command } from '../command.js';
import { WrongCall, answer, note } from '../command.js';
import { mappedSheet, sheetOf } from '../mapped-sheet.js';

export const check: Command = {
  usage: 'mailbag check FORM.pdf --records SHEET [--map MAP.json]',
  help: `Tells what stands in the way of filling a form from a sheet, before anything is made; every record is measured against every box.

  --records SHEET  a workbook, CSV or form data; with --sheet NAME and --headings ROW where they are not guessed right
  --map MAP.json   field name: column, or a fill rule (docs/fill-rules.md); without it fields are matched by suggestion
  --faces FOLDER   TrueType faces beside the bundled ones

Prints how many records there are, how many findings are a stop (this record cannot run) or a look (a person should look), and each of them.`,
  async run(args) {
    const { file, options } = fileAndOptions(args, {
      records: { type: 'string' },
      sheet: { type: 'string' },
      headings: { type: 'string' },
      map: { type: 'string' },
      faces: { type: 'string' },
      json: { type: 'boolean' },
    });
    if (options.records === undefined) throw new WrongCall('Say with --records which sheet is to be checked.');
    const headings = options.headings === undefined ? undefined : wholeNumber('headings', options.headings);
    const pdf = readFile(file);
    const { fields } = await inspectTemplate(pdf, basename(file));
    const form = { pdf, file: basename(file), fields, finish: 'flattened' as const, faces: options.faces ?? '' };
    const { records, findings } = await mappedSheet(form, sheetOf(options.records, { sheet: options.sheet, headings, map: options.map }));
    if (records.length === 0) note('The sheet has no records.');
    const counted = (severity: string): number => findings.filter(({ finding }) => finding.severity === severity).length;
    answer({
      records: records.length,
      stop: counted('stop'),
      look: counted('look'),
      findings: findings.map(({ check: name, finding }) => ({
        row: finding.row,
        column: finding.column,
        field: finding.field,
        check: name,
        severity: finding.severity,
        says: findingSentence(finding),
        mend: finding.mend ?? null,
      })),
    });
  },
};
