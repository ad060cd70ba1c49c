import { MailbagError, isMailbagError } from '@mailbag/core/errors';
import type { FileKey } from '../files/file-key.js';
import { folderOf, pathOf } from '../files/file-key.js';
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

/** A thread loads what it is asked to do, not what others are: most of the time that a new one takes is loading. */
const tasks: { [Name in TaskName]: (input: Tasks[Name]['input']) => Promise<Tasks[Name]['output']> } = {
  inspect: async ({ key, file, mayBeFlat }) =>
    (await import('@mailbag/core')).inspectTemplate(new Uint8Array(await there(key, file)), file, '', mayBeFlat),
  layoutAids: async ({ key, file }) => (await import('@mailbag/core')).readLayoutAids(new Uint8Array(await there(key, file)), file),
  writeFields: async ({ key, file, fields }) =>
    (await import('@mailbag/core')).writeFields(new Uint8Array(await there(key, file)), fields, file),
  markedPdf: async ({ key, file, pages, fields }) => {
    const [{ kindWords, markedPdf }, { nodeFonts }] = await Promise.all([import('@mailbag/core'), import('@mailbag/host')]);
    const { fonts, faces } = await nodeFonts(folderOf('faces'));
    return markedPdf(new Uint8Array(await there(key, file)), { pages, fields }, { fonts, faces, file, kindOf: kindWords });
  },
  compareEditions: async ({ before, after, file }) => {
    const { compareEditions, printChanges, readEdition } = await import('@mailbag/core');
    const [was, now] = [
      await readEdition(new Uint8Array(await there(before, file)), file),
      await readEdition(new Uint8Array(await there(after, file)), file),
    ];
    return { comparison: compareEditions(was, now), print: printChanges(was.pages, now.pages) };
  },
  excerpt: async ({ key, file, reading }) => {
    const [{ excerptTable }, { tableFile }, { knownFields }] = await Promise.all([
      import('@mailbag/core'),
      import('@mailbag/host'),
      import('./known-fields.js'),
    ]);
    return excerptTable(await tableFile(pathOf(key), file, await knownFields()), reading);
  },
  readSource: async (input) => (await import('./read-source.js')).readSource(input),
  sweepRecords: async () => (await import('./sweep-records.js')).sweepRecords(),
  checkpoint: async () => {
    const [{ carryLogOver }, { threadSql }] = await Promise.all([
      import('../persistence/dialect/sqlite.js'),
      import('./worker-database.js'),
    ]);
    await carryLogOver(threadSql());
  },
  releaseSpace: async () => (await import('./release-space.js')).releaseSpace(),
  databaseTables: async ({ access }) => (await import('../readers/open-database.js')).openDatabase(access).tables(),
  queryExcerpt: async (input) => (await import('./kinds/database.js')).queryExcerpt(input),
  checkStretch: async (input) => (await import('./check-mailing.js')).checkStretch(input),
  checkComparing: async (input) => (await import('./check-mailing.js')).checkComparing(input),
  settleChecks: async (input) => (await import('./check-mailing.js')).settleChecks(input),
  checkTouched: async (input) => (await import('./check-mailing.js')).checkTouched(input),
  whoRuns: async (input) => (await import('./who-runs.js')).whoRuns(input),
  viewRecords: async (input) => (await import('./view-records.js')).viewRecords(input),
  matchRecords: async (input) => (await import('./match-records.js')).matchRecords(input),
  survey: async (input) => (await import('./survey-mailing.js')).surveyMailing(input),
  countedRecords: async (input) => (await import('./survey-mailing.js')).countRecords(input),
  pickRecords: async (input) => (await import('./survey-mailing.js')).pickRecords(input),
  startBatch: async (input) => (await import('./start-batch.js')).startBatch(input),
  plan: async (input) => (await import('./plan-copies.js')).planCopies(input),
  make: async (input) => (await import('./make-copies.js')).makeCopies(input),
  assemble: async (input) => (await import('./assemble-copies.js')).assembleCopies(input),
  visitorCopies: async (input) => (await import('./sample-copies.js')).visitorCopies(input),
  sample: async (input) => (await import('./sample-copies.js')).sampleCopies(input),
  letter: async (input) => (await import('./sample-copies.js')).sampleLetter(input),
  weigh: async (input) => (await import('./sample-copies.js')).weighCopies(input),
  trial: async (input) => (await import('./sample-copies.js')).trialCopies(input),
  openPost: async () => void (await import('./read-mail.js')),
  openMaking: async () => void (await import('./make-copies.js')),
  readMail: async (input) => (await import('./read-mail.js')).readMail(input),
  letters: async (input) => {
    const { letter } = await import('./record-texts.js');
    return Promise.all(input.map((one) => resultOf(() => letter(one))));
  },
  openPassword: async (input) => (await import('./record-texts.js')).openPassword(input),
  postalAddresses: async (input) => (await import('./record-texts.js')).postalAddresses(input),
  selfCheck: async ({ thorough }) => (await import('@mailbag/folder')).selfCheck(config.dataFolder, thorough),
  backup: async ({ path }) => ({ files: (await (await import('@mailbag/folder')).backup(config.dataFolder, path)).files.length }),
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
