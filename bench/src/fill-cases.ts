import { PDFDocument, ParseSpeeds } from '@cantoo/pdf-lib';
import type { CompiledTemplate, Field, FieldValues, FillOptions } from '@mailbag/core';
import { CombinedFile, compileTemplate, fillCopy, inspectTemplate, prepareProtection } from '@mailbag/core';
import { CopyWriter, nodeCiphers, nodeFonts } from '@mailbag/host';
import { closeSync, mkdirSync, mkdtempSync, openSync, readdirSync, rmSync, statSync, writeFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { HEAVY_ART, denseForm, simpleForm } from './forms.js';

const scripts = ['Łąkowski Zofia', 'Δάφνη Ρήγα', 'Сергій Гончар', 'ليلى الخطيب'];

/** Values of a record of their own for every field. */
export function recordFor(fields: readonly Field[], index: number, isForeign = false): FieldValues {
  return Object.fromEntries(
    fields.map((field, at) => {
      if (field.kind === 'checkbox') return [field.name, (index + at) % 2 === 0];
      if (field.kind === 'combo') return [field.name, field.options[(index + at) % field.options.length]!.value];
      if (field.maxLength) return [field.name, String(100_000_000_000 + index * 7 + at)];
      if (field.flags.includes('multiline'))
        return [field.name, `Record ${index} has a few words in field ${at} that take more than a line of this box`];
      return [field.name, isForeign && at % 38 < 4 ? `${scripts[(index + at) % 4]} ${index}` : `Value ${index} of ${at}`];
    }),
  );
}

interface Prepared {
  pdf: Uint8Array;
  fields: Field[];
  compiled: CompiledTemplate;
}

async function prepare(pdf: Uint8Array, characters: string[] = []): Promise<Prepared> {
  const { fields } = await inspectTemplate(pdf);
  const given = fields.map(({ name }) => name);
  return { pdf, fields, compiled: await compileTemplate(pdf, { ...(await nodeFonts()), characters, given }) };
}

const folders: string[] = [];
/** A new folder for each turn, so that no turn writes over the files of another. Taken away at the end: deleting slows the disk down for what follows. */
function newFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'mailbag-fill-'));
  folders.push(folder);
  return folder;
}
const inFolder = <T>(work: (folder: string) => T): T => work(newFolder());
process.once('exit', () => folders.forEach((folder) => rmSync(folder, { recursive: true, force: true })));
const seconds = (work: () => void): number => {
  const from = performance.now();
  work();
  return (performance.now() - from) / 1000;
};
const median = (values: number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const round = (value: number, digits = 2): number => Number(value.toFixed(digits));

/** As the command line does: a thread writes while the next copy is filled. All are in their places when this is back. */
const writer = new CopyWriter();
function fillAll(
  { compiled }: Prepared,
  records: FieldValues[],
  folder: string,
  options: (index: number) => FillOptions = () => ({}),
): void {
  records.forEach((values, index) => writer.write(join(folder, `${index}.pdf`), fillCopy(compiled, values, options(index))));
  writer.flush();
}

/** The loop that people write with the library; tuned: parsed without pauses, fields looked up once, one pass of appearances. */
async function libraryLoop({ pdf, fields }: Prepared, records: FieldValues[], folder: string, isTuned: boolean): Promise<void> {
  for (const [index, values] of records.entries()) {
    const doc = await PDFDocument.load(pdf, isTuned ? { parseSpeed: ParseSpeeds.Fastest, updateMetadata: false } : {});
    const form = doc.getForm();
    const byName = isTuned ? new Map(form.getFields().map((field) => [field.getName(), field])) : null;
    for (const field of fields) {
      const value = values[field.name];
      const known = byName?.get(field.name) as
        { setText?: (text: string) => void; check?: () => void; select?: (option: string) => void } | undefined;
      if (field.kind === 'checkbox') {
        if (value === true) (known ?? form.getCheckBox(field.name)).check!();
      } else if (field.kind === 'combo') (known ?? form.getDropdown(field.name)).select!(String(value));
      else (known ?? form.getTextField(field.name)).setText!(String(value));
    }
    form.flatten();
    writeFileSync(join(folder, `${index}.pdf`), await doc.save(isTuned ? { objectsPerTick: Infinity, useObjectStreams: false } : {}));
  }
}

const writeOnly = (files: Uint8Array[], folder: string): void =>
  files.forEach((bytes, index) => writeFileSync(join(folder, `${index}.pdf`), bytes));
/** Megabytes that this process had in memory at most. */
export const peakMb = (): number => Math.round(process.resourceUsage().maxRSS / 1024);

/** Many short turns, since the speed of a disk differs from second to second. */
const TURNS = 15;

/** Ours, only writing the same bytes, and the library, in turn. */
async function compared(name: string, pdf: Uint8Array, count: number, libraryCount: number): Promise<object> {
  const prepared = await prepare(pdf);
  const records = Array.from({ length: count }, (_, index) => recordFor(prepared.fields, index));
  inFolder((folder) => fillAll(prepared, records, folder));
  const files = records.map((values) => fillCopy(prepared.compiled, values).bytes);
  const [ours, limit, tuned, ordinary]: number[][] = [[], [], [], []];
  for (let turn = 0; turn < TURNS; turn++) {
    ours!.push(count / inFolder((folder) => seconds(() => fillAll(prepared, records, folder))));
    limit!.push(count / inFolder((folder) => seconds(() => writeOnly(files, folder))));
    for (const [isTuned, into] of [
      [true, tuned],
      [false, ordinary],
    ] as const) {
      const folder = newFolder();
      const from = performance.now();
      await libraryLoop(prepared, records.slice(0, libraryCount), folder, isTuned);
      into!.push((libraryCount * 1000) / (performance.now() - from));
    }
  }
  const [copiesPerSecond, write, libraryTuned, libraryOrdinary] = [ours!, limit!, tuned!, ordinary!].map(median) as [
    number,
    number,
    number,
    number,
  ];
  return {
    case: name,
    copiesPerSecond: Math.round(copiesPerSecond),
    libraryOrdinary: round(libraryOrdinary, 1),
    libraryTuned: round(libraryTuned, 1),
    writeOnly: Math.round(write),
    ratioToTuned: round(copiesPerSecond / libraryTuned, 1),
    shareOfWriteOnly: round(copiesPerSecond / write),
    bytesPerCopy: files[0]!.length,
  };
}

/** Two ways of ours in turn; the second is told as a share of the first. */
function against(plain: () => number, other: () => number): { plain: number; other: number; share: number } {
  const [first, second]: number[][] = [[], []];
  for (let turn = 0; turn < TURNS; turn++) {
    first!.push(plain());
    second!.push(other());
  }
  return { plain: Math.round(median(first!)), other: round(median(second!), 1), share: round(median(second!) / median(first!)) };
}

/** Four names a page in Latin with marks, Greek, Cyrillic and Arabic beside the same form with plain ones. */
async function fourScripts(name: string, pdf: Uint8Array, count: number): Promise<object> {
  const plain = await prepare(pdf);
  const foreign = await prepare(pdf, scripts);
  const records = Array.from({ length: count }, (_, index) => recordFor(plain.fields, index));
  const named = Array.from({ length: count }, (_, index) => recordFor(plain.fields, index, true));
  const rate = (prepared: Prepared, values: FieldValues[]) => () =>
    count / inFolder((folder) => seconds(() => fillAll(prepared, values, folder)));
  const { plain: plainRate, other, share } = against(rate(plain, records), rate(foreign, named));
  return { case: name, copiesPerSecond: other, plain: plainRate, shareOfPlain: share };
}

async function passwords(): Promise<object[]> {
  const prepared = await prepare(denseForm(HEAVY_ART));
  const count = 400;
  const records = Array.from({ length: count }, (_, index) => recordFor(prepared.fields, index));
  const seed = new Uint8Array(32).fill(9);
  const one = prepareProtection({ ciphers: nodeCiphers, seed, openPassword: 'the same for all' });
  const plainRate = () => count / inFolder((folder) => seconds(() => fillAll(prepared, records, folder)));
  const shared = against(
    plainRate,
    () =>
      count /
      inFolder((folder) =>
        seconds(() => fillAll(prepared, records, folder, (index) => ({ protect: { protection: one, copy: String(index) } }))),
      ),
  );
  const few = records.slice(0, 60);
  const own = against(
    plainRate,
    () =>
      few.length /
      inFolder((folder) =>
        seconds(() =>
          fillAll(prepared, few, folder, (index) => ({
            protect: { protection: prepareProtection({ ciphers: nodeCiphers, seed, openPassword: `own ${index}` }), copy: String(index) },
          })),
        ),
      ),
  );
  return [
    { case: 'AES-256, one password for all', copiesPerSecond: shared.other, plain: shared.plain, shareOfPlain: shared.share },
    { case: 'AES-256, one password a copy', copiesPerSecond: own.other, plain: own.plain },
  ];
}

async function combined(): Promise<object> {
  const prepared = await prepare(denseForm(HEAVY_ART));
  const count = 1000;
  const records = Array.from({ length: count }, (_, index) => recordFor(prepared.fields, index));
  let together = 0;
  let single = 0;
  const { plain, other, share } = against(
    () =>
      count /
      inFolder((folder) => {
        const time = seconds(() => fillAll(prepared, records, folder));
        single = readdirSync(folder).reduce((sum, file) => sum + statSync(join(folder, file)).size, 0);
        return time;
      }),
    () =>
      count /
      inFolder((folder) => {
        const path = join(folder, 'all.pdf');
        const time = seconds(() => {
          const file = openSync(path, 'w');
          const all = new CombinedFile((bytes) => void writeSync(file, bytes));
          records.forEach((values, index) => all.add(prepared.compiled, { values, bookmark: `Copy ${index}` }));
          all.end();
          closeSync(file);
        });
        together = statSync(path).size;
        return time;
      }),
  );
  return {
    case: 'combined, 1,000 dense',
    copiesPerSecond: other,
    singleFiles: plain,
    speedToSingle: share,
    sizeToSingle: round(together / single, 3),
  };
}

async function many(): Promise<object> {
  const prepared = await prepare(simpleForm());
  const [count, tenth] = [100_000, 10_000];
  const rates: number[] = [];
  const memory: number[] = [];
  const folder = newFolder();
  for (let from = 0; from < count; from += tenth) {
    const into = join(folder, String(from));
    mkdirSync(into);
    const time = seconds(() => {
      for (let index = from; index < from + tenth; index++)
        writer.write(join(into, `${index}.pdf`), fillCopy(prepared.compiled, recordFor(prepared.fields, index)));
      writer.flush();
    });
    rates.push(Math.round(tenth / time));
    memory.push(Math.round(process.memoryUsage.rss() / 1024 / 1024));
  }
  return { case: '100,000 simple', copiesPerSecond: Math.round(median(rates)), byTenth: rates, memoryByTenth: memory };
}

async function compile(): Promise<object> {
  const pdf = denseForm();
  const fonts = await nodeFonts();
  const times: number[] = [];
  for (let turn = 0; turn < TURNS; turn++) {
    const from = performance.now();
    await compileTemplate(pdf, { ...fonts, characters: scripts });
    times.push(performance.now() - from);
  }
  return { case: 'compile dense', firstMs: Math.round(times[0]!), medianMs: Math.round(median(times)) };
}

/** Each case runs in a process of its own, so that memory is told apart. */
export const fillCases: Record<string, () => Promise<object | object[]>> = {
  dense: () => compared('dense, heavy art', denseForm(HEAVY_ART), 400, 2),
  light: () => compared('dense, light art', denseForm(), 600, 4),
  simple: () => compared('simple', simpleForm(), 3000, 60),
  scripts: async () => [
    await fourScripts('four scripts, dense', denseForm(HEAVY_ART), 300),
    await fourScripts('four scripts, simple', simpleForm(), 1500),
  ],
  passwords,
  combined,
  many,
  compile,
};
