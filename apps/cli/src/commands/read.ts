import { basename } from 'node:path';
import { readValues } from '@mailbag/core';
import { fileAndOptions, readFile } from '../arguments.js';
import type { Command } from '../command.js';
import { answer } from '../command.js';

export const read: Command = {
  usage: 'mailbag read COPY.pdf [--password P] [--json]',
  help: 'Tells the values that a filled form holds, whoever filled it. A flattened copy has none any more.',
  async run(args) {
    const { file, options } = fileAndOptions(args, { json: { type: 'boolean' }, password: { type: 'string' } });
    const values = await readValues(readFile(file), basename(file), options.password);
    if (options.json) return answer({ values });
    for (const [name, value] of Object.entries(values))
      process.stdout.write(`${name}\t${Array.isArray(value) ? value.join(' | ') : (value ?? '')}\n`);
  },
};
