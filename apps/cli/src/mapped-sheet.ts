import { basename } from 'node:path';
import type { BatchContext, Column, Field, FieldMap, FieldValues, Finish, SaidFinding, SourceRecord } from '@mailbag/core';
import {
  MailbagError,
  RecordChecker,
  RecordFiller,
  SAMPLE_CODE,
  fewNames,
  fillContext,
  missingColumns,
  parseRule,
  readTable,
  rowReader,
  suggestRules,
  textsMade,
} from '@mailbag/core';
import { nodeFonts, tableFile } from '@mailbag/host';
import { readFile, readJson } from './arguments.js';
import { Refused, note } from './command.js';

/** The form that a sheet is to fill. */
export interface SheetForm {
  pdf: Uint8Array;
  file: string;
  fields: Field[];
  finish: Finish;
  /** Folder of faces that are added to the bundled ones. */
  faces: string;
}

/** Where records and their map are. */
export interface Sheet {
  path: string;
  name?: string;
  headings?: number;
  /** Left out: fields are matched by suggestion. */
  map?: string;
}

/** What a call says of its sheet. */
export const sheetOf = (
  path: string,
  options: { sheet?: string | undefined; headings?: number | undefined; map?: string | undefined },
): Sheet => ({
  path,
  ...(options.sheet === undefined ? {} : { name: options.sheet }),
  ...(options.headings === undefined ? {} : { headings: options.headings }),
  ...(options.map === undefined ? {} : { map: options.map }),
});

/** Records with a map that fills the form from them, and what the checks say of them. */
export interface MappedSheet {
  records: SourceRecord[];
  columns: Column[];
  map: FieldMap;
  batch: BatchContext;
  filler: RecordFiller;
  findings: SaidFinding[];
}

/** A field map as JSON: rules by field name; a text alone names a column. @throws Refused, MailbagError pdf-field-unknown */
function mapOf(json: unknown, path: string, fields: readonly Field[]): FieldMap {
  if (typeof json !== 'object' || json === null || Array.isArray(json))
    throw new Refused(`${path} holds no object of field names and rules.`);
  const map: FieldMap = {};
  for (const [name, given] of Object.entries(json)) {
    if (!fields.some((field) => field.name === name)) throw new MailbagError('pdf-field-unknown', { field: name });
    const { rule, fault } = parseRule(typeof given === 'string' ? { kind: 'column', column: given } : given);
    if (!rule) throw new Refused(`The rule for “${name}” in ${path} is none: ${fault}.`);
    map[name] = rule;
  }
  return map;
}

/** ISO 8601, in the zone of this machine. */
const localDay = (at: Date): string => new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 10);

/** What copies that are made here and now are told beside their records. */
function batchHere(): BatchContext {
  const { locale, timeZone: zone } = Intl.DateTimeFormat().resolvedOptions();
  return { batch: 1, today: localDay(new Date()), locale, zone };
}

/** Reads a sheet, maps it to a form and runs all checks over it. @throws Refused where nothing is mapped, or a rule reads a column that is not there */
export async function mappedSheet(form: SheetForm, sheet: Sheet): Promise<MappedSheet> {
  readFile(sheet.path);
  const records: SourceRecord[] = [];
  const reading = {
    ...(sheet.name === undefined ? {} : { sheet: sheet.name }),
    ...(sheet.headings === undefined ? {} : { headingRow: sheet.headings }),
  };
  const { columns } = await readTable(await tableFile(sheet.path, basename(sheet.path)), reading, (block) => void records.push(...block));
  const map = sheet.map === undefined ? suggestRules(form.fields, columns, {}) : mapOf(readJson(sheet.map), sheet.map, form.fields);
  if (Object.keys(map).length === 0) throw new Refused('No field goes with any column. Say which ones do with --map.');
  if (sheet.map === undefined) note(`Filled by suggestion: ${fewNames(Object.keys(map))}.`);
  const missing = missingColumns(columns, [map]);
  if (missing.length > 0)
    throw new Refused(
      `${sheet.path} has no column ${fewNames(missing)}, which the map reads. Its columns are ${fewNames(columns.map(({ name }) => name))}.`,
    );
  const batch: BatchContext = { ...batchHere(), count: records.length };
  const [read, made] = [rowReader(columns), textsMade([map])];
  const texts = records.flatMap((record, at) => [
    ...record.cells.map((cell) => cell.text),
    ...(made?.(read(record), fillContext(batch, at, SAMPLE_CODE)) ?? []),
  ]);
  const filler = await RecordFiller.of(
    form.pdf,
    { fields: form.fields, map },
    { ...(await nodeFonts(form.faces)), characters: [...texts, JSON.stringify(map)], finish: form.finish, file: form.file },
  );
  const checker = new RecordChecker({
    columns,
    context: fillContext(batch, 0, SAMPLE_CODE),
    templates: [{ fields: form.fields, map, measure: (values: FieldValues) => filler.measure(values) }],
    keyColumn: null,
    addressColumn: null,
  });
  checker.see(records);
  return { records, columns, map, batch, filler, findings: checker.done() };
}
