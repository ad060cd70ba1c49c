import { renameSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { readLayout, writeFields } from '@mailbag/core';
import { oneArgument, readFile, readJson } from '../arguments.js';
import type { Command } from '../command.js';
import { note } from '../command.js';

export const layout: Command = {
  usage: 'mailbag layout FORM.pdf --fields FIELDS.json --out FILE.pdf [--password P]',
  help: 'Writes fields into a PDF. FIELDS.json is a list as “mailbag blanks” prints it, each with a name and, if you like, tooltip, required, limit, options, font, size and align.',
  async run(args) {
    const { file, options } = oneArgument(args, { fields: { type: 'string' }, out: { type: 'string' }, password: { type: 'string' } }, [
      'fields',
      'out',
    ]);
    const fields = readLayout(readJson(options.fields!));
    const bytes = await writeFields(readFile(file), fields, basename(file), options.password);
    // A file that is there already is replaced only by a whole one.
    writeFileSync(`${options.out!}.part`, bytes);
    renameSync(`${options.out!}.part`, options.out!);
    note(`${fields.length} ${fields.length === 1 ? 'field' : 'fields'} written.`);
  },
};
