import { MailbagError, excerptTable, inspectTemplate, isMailbagError } from '@mailbag/core';
import { backup, selfCheck } from '@mailbag/folder';
import { tableFile } from '@mailbag/host';
import { checkMailing } from './check-mailing.js';
import { assembleCopies } from './assemble-copies.js';
import { makeCopies } from './make-copies.js';
import { matchRecords } from './match-records.js';
import { planCopies } from './plan-copies.js';
import { startBatch } from './start-batch.js';
import { whoRuns } from './who-runs.js';
import { sampleCopies } from './sample-copies.js';
import { openDatabase } from '../readers/open-database.js';
import { letter, openPassword, postalAddresses } from './record-texts.js';
import { giveBack } from './give-back.js';
import { readMail } from './read-mail.js';
import { sweepRecords } from './sweep-records.js';
import { knownFields } from './known-fields.js';
import { queryExcerpt } from './kinds/database.js';
import { readSource } from './read-source.js';
import type { FileKey } from '../files/file-key.js';
import { pathOf } from '../files/file-key.js';
import { read } from '../files/files.js';
import { config } from '../platform/config.js';
import { guardTargets } from '../platform/targets.js';
import { told } from '../persistence/failures.js';
import type { TaskName, TaskResult, Tasks } from '../work/tasks.js';

guardTargets();

/** What a kept file holds. @throws MailbagError file-gone */
async function there(key: FileKey, name: string): Promise<Uint8Array> {
  const bytes = await read(key);
  if (!bytes) throw new MailbagError('file-gone', { name });
  return bytes;
}

const tasks: { [Name in TaskName]: (input: Tasks[Name]['input']) => Promise<Tasks[Name]['output']> } = {
  inspect: async ({ key, file }) => inspectTemplate(new Uint8Array(await there(key, file)), file),
  excerpt: async ({ key, file, reading }) => excerptTable(await tableFile(pathOf(key), file, await knownFields()), reading),
  readSource,
  sweepRecords,
  giveBack,
  databaseTables: ({ access }) => openDatabase(access).tables(),
  queryExcerpt,
  check: checkMailing,
  whoRuns,
  matchRecords,
  startBatch,
  plan: planCopies,
  make: makeCopies,
  assemble: assembleCopies,
  sample: sampleCopies,
  openPost: () => Promise.resolve(),
  openMaking: () => Promise.resolve(),
  readMail,
  letters: (input) => Promise.all(input.map((one) => resultOf(() => letter(one)))),
  openPassword,
  postalAddresses,
  selfCheck: ({ thorough }) => selfCheck(config.dataFolder, thorough),
  backup: async ({ path }) => ({ files: (await backup(config.dataFolder, path)).files.length }),
};

/** How work ended: its output, or what stands in the catalogue of errors; anything else is thrown. */
async function resultOf<Output>(work: () => Promise<Output>): Promise<TaskResult<Output>> {
  try {
    return { ok: true, output: await work() };
  } catch (thrown) {
    const error = told(thrown);
    if (isMailbagError(error)) return { ok: false, code: error.code, fields: error.fields };
    throw error;
  }
}

/** The entry of a worker thread. */
export default async function work<Name extends TaskName>({
  name,
  input,
}: {
  name: Name;
  input: Tasks[Name]['input'];
}): Promise<TaskResult<Tasks[Name]['output']>> {
  return resultOf(() => tasks[name](input));
}
