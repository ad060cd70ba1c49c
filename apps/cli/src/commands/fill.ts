import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import type { CompiledTemplate, Field, FieldValues, FillNote, FillOptions, Permission } from '@mailbag/core';
import {
  MailbagError,
  compileTemplate,
  copyCode,
  fewNames,
  fillContext,
  fillCopy,
  findingSentence,
  finishes,
  inspectTemplate,
  outputPattern,
  patternData,
  patternExtras,
  prepareProtection,
  refusedValues,
  rowReader,
  uniquePath,
  usualPermissions,
} from '@mailbag/core';
import { CopyWriter, nodeCiphers, nodeFonts, writeCopy } from '@mailbag/host';
import { fileAndOptions, oneOf, readFile, readJson, wholeNumber } from '../arguments.js';
import type { Command } from '../command.js';
import { Refused, WrongCall, note } from '../command.js';
import type { Sheet, SheetForm } from '../mapped-sheet.js';
import { mappedSheet, sheetOf } from '../mapped-sheet.js';

const permissions: readonly Permission[] = ['print', 'modify', 'copy', 'annotate', 'fill', 'assemble'];

interface Job extends SheetForm {
  protect: (copy: string) => Pick<FillOptions, 'protect'>;
}

const compile = async (job: Job, texts: Iterable<string>): Promise<CompiledTemplate> =>
  compileTemplate(job.pdf, { ...(await nodeFonts(job.faces)), characters: texts, finish: job.finish, file: job.file });

const textsOf = (values: FieldValues, fields: readonly Field[]): string[] => [
  ...Object.values(values).flatMap((value) => (typeof value === 'boolean' ? [] : value)),
  ...fields.flatMap((field) => [...field.options.map((option) => option.label), ...[field.value ?? []].flat()]),
];

/** What stands in the way of a copy, and what is only to be known of it. */
function judge(notes: readonly FillNote[], values: FieldValues): { refusals: string[]; remarks: string[] } {
  const missing = notes.filter(({ characters }) => characters.length > 0);
  // What the form itself holds is drawn as far as it can be, and kept where its field is kept.
  const [given, own] = [missing.filter(({ field }) => field in values), missing.filter(({ field }) => !(field in values))];
  return {
    refusals: given.map(({ field, characters }) => new MailbagError('font-cannot-draw', { field, characters }).message),
    remarks: [
      ...(own.length > 0
        ? [`The form's own values of ${fewNames(own.map(({ field }) => field))} have characters that cannot be drawn.`]
        : []),
      ...notes.flatMap(({ field, fit, unseen }) =>
        unseen
          ? `The box of "${field}" is not high enough for all that is chosen: ${fewNames(unseen)} cannot be seen.`
          : fit === 'fits'
            ? []
            : fit === 'tight'
              ? `The value of "${field}" fits only in smaller type.`
              : `The value of "${field}" does not fit its box, even in small type.`,
      ),
    ],
  };
}

/** A value as JSON can hold it. @throws Refused */
function valuesOf(json: unknown, path: string): FieldValues {
  if (typeof json !== 'object' || json === null || Array.isArray(json))
    throw new Refused(`${path} holds no object of field names and values.`);
  return Object.fromEntries(
    Object.entries(json).flatMap(([name, value]): [string, FieldValues[string]][] => {
      if (value === null) return [];
      if (typeof value === 'string' || typeof value === 'boolean') return [[name, value]];
      if (typeof value === 'number') return [[name, String(value)]];
      if (Array.isArray(value) && value.every((one) => typeof one === 'string')) return [[name, value as string[]]];
      throw new Refused(`The value of "${name}" in ${path} is neither text nor true or false nor a list of options.`);
    }),
  );
}

async function fillOne(job: Job, valuesPath: string, out: string): Promise<void> {
  const values = valuesOf(readJson(valuesPath), valuesPath);
  const refused = refusedValues(job.fields, values);
  if (refused.length > 0) throw new Refused(refused.map((one) => one.message).join('\n'));
  const compiled = await compile(job, textsOf(values, job.fields));
  const copy = fillCopy(compiled, values, job.protect('1'));
  const { refusals, remarks } = judge(copy.notes, values);
  if (refusals.length > 0) throw new Refused(refusals.join('\n'));
  mkdirSync(dirname(resolve(out)), { recursive: true });
  writeCopy(out, copy);
  remarks.forEach(note);
}

async function fillMany(job: Job, sheet: Sheet, out: string, name: string): Promise<void> {
  const { records, columns, batch, filler, findings } = await mappedSheet(job, sheet);
  const read = rowReader(columns);
  const stops = findings.map(({ finding }) => finding).filter((finding) => finding.severity === 'stop');
  if (stops.length > 0) throw new Refused(stops.map((finding) => `Row ${finding.row}: ${findingSentence(finding)}`).join('\n'));
  const pattern = outputPattern('', name, [...patternExtras, ...columns.map(({ slug }) => slug)]);
  const taken = new Set<string>();
  mkdirSync(out, { recursive: true });
  const writer = new CopyWriter();
  records.forEach((record, index) => {
    const code = copyCode(new Uint8Array(randomBytes(10)));
    const context = fillContext(batch, index, code);
    const data = patternData(columns, record, { ...context, template: basename(job.file, '.pdf') });
    const path = uniquePath([], pattern.path(data).file, (wanted) => taken.has(wanted.toLowerCase()) || existsSync(join(out, wanted)));
    taken.add(path.toLowerCase());
    writer.write(join(out, path), filler.fill(read(record), { ...context, ...job.protect(code) }).copy);
  });
  writer.end();
  note(`${records.length} copies are in ${out}.`);
}

export const fill: Command = {
  usage: 'mailbag fill FORM.pdf (--values V.json --out COPY.pdf | --records SHEET --out FOLDER --name PATTERN)',
  help: `Fills a form from values, or once for every record of a sheet.

  --values V.json          field name: text, true or false, on-value, option (export or display), or a list of options
  --records SHEET          a workbook, CSV or form data; with --sheet NAME and --headings ROW where they are not guessed right
  --map MAP.json           field name: column, or a fill rule (docs/fill-rules.md); without it fields are matched by suggestion
  --out PATH               the copy, or the folder for the copies
  --name PATTERN           file name with data in it, such as "{{plot}}.pdf"
  --finish F               flattened (no fields left), locked (fields there, read-only) or open (still fillable)
  --open-password P        needed to open the copy (AES-256)
  --permissions-password P needed to lift the limits of --permit
  --faces FOLDER           TrueType faces beside the bundled ones, such as one for Chinese, Japanese or Korean
  --permit LIST            what may be done without it: ${permissions.join(',')};
                           print,copy where nothing is said, and fill for open copies`,
  async run(args) {
    const { file, options } = fileAndOptions(args, {
      values: { type: 'string' },
      records: { type: 'string' },
      sheet: { type: 'string' },
      headings: { type: 'string' },
      map: { type: 'string' },
      out: { type: 'string' },
      name: { type: 'string' },
      finish: { type: 'string' },
      'open-password': { type: 'string' },
      'permissions-password': { type: 'string' },
      permit: { type: 'string' },
      faces: { type: 'string' },
    });
    if ((options.values === undefined) === (options.records === undefined)) throw new WrongCall('Give either --values or --records.');
    if (options.out === undefined) throw new WrongCall('Say with --out where the copy goes.');
    const finish = oneOf('finish', options.finish, finishes);
    const headings = options.headings === undefined ? undefined : wholeNumber('headings', options.headings);
    const permitted = (options.permit ?? usualPermissions(finish).join(','))
      .split(',')
      .filter(Boolean)
      .map((one) => oneOf('permit', one.trim(), permissions));
    const pdf = readFile(file);
    const { fields } = await inspectTemplate(pdf, basename(file));
    const passwords = { open: options['open-password'] ?? '', permissions: options['permissions-password'] ?? '' };
    const isProtected = passwords.open !== '' || passwords.permissions !== '';
    const protection = isProtected
      ? prepareProtection({
          ciphers: nodeCiphers,
          seed: new Uint8Array(randomBytes(32)),
          openPassword: passwords.open,
          permissionsPassword: passwords.permissions,
          ...(passwords.permissions ? { permissions: permitted } : {}),
        })
      : null;
    const job: Job = {
      pdf,
      file: basename(file),
      fields,
      finish,
      faces: options.faces ?? '',
      protect: (copy) => (protection ? { protect: { protection, copy } } : {}),
    };
    if (options.values !== undefined) return fillOne(job, options.values, options.out);
    const sheet = sheetOf(options.records!, { sheet: options.sheet, headings, map: options.map });
    return fillMany(job, sheet, options.out, options.name ?? '{{number}}.pdf');
  },
};
