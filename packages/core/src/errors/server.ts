import { t } from '../words/words.js';
import { list, told } from './entry.js';

export const serverErrors = {
  'secret-asked-again': told<{ place: string }>(
    (e) =>
      t`Enter the password for ${e.place} again: where it is sent, or how the way there is secured, was changed, and a kept password goes only where it was meant for.`,
    409,
  ),
  'target-local': told<{ host: string }>(
    (e) =>
      t`${e.host} leads to the machine that Mailbag runs on, or no farther than its own wire. Such targets are allowed by whoever runs Mailbag, with MAILBAG_LOCAL_TARGETS.`,
  ),
  'target-wrong': told<{ address: string }>(
    (e) => t`“${e.address}” is not an address that can be reached. Write it like ipp://printer.example:631/ipp/print.`,
  ),
  'host-other': told<{ host: string; address: string }>((e) => t`Mailbag is not reached as ${e.host}. Open ${e.address}.`),
  'request-not-ours': told(() => t`The request did not come from Mailbag itself and was refused. Reload the page.`, 403),
  'request-wrong': told<{ why: string }>((e) => t`The request was not understood: ${e.why}.`, 400),
  'request-too-large': told<{ limitKb: number }>(
    (e) => t`The request is larger than the ${e.limitKb} KB that may be sent here. Send less at once.`,
    413,
  ),
  'request-too-deep': told(() => t`The request is nested more deeply than anything that Mailbag sends, and was refused.`, 400),
  'request-type': told<{ type: string }>((e) => t`The request came as ${e.type}; plain JSON is understood here.`, 415),
  'file-too-large': told<{ limitMb: number }>(
    (e) => t`The file is larger than ${e.limitMb} MB, the most that is taken here. Choose a smaller one, or divide it.`,
    413,
  ),
  'work-too-slow': told<{ what: string; seconds: number }>(
    (e) => t`${e.what} took longer than ${e.seconds} s and was ended. Nothing was changed.`,
  ),
  'work-too-large': told<{ what: string }>(
    (e) => t`${e.what} needed more memory than there is for it, and was ended. Nothing was changed.`,
  ),
  'work-too-many': told(
    () => t`Several long questions of yours are still being worked on. Wait until they are answered, then try again.`,
    429,
  ),
  'backup-failed': told<{ path: string; why: string }>(
    (e) => t`The backup ${e.path} could not be taken: ${e.why}. Nothing was changed, and no half backup is left.`,
  ),
  'restore-failed': told<{ path: string; why: string }>((e) => t`${e.path} could not be brought back: ${e.why}. Nothing was written.`),
  'restore-not-empty': told<{ folder: string }>(
    (e) => t`${e.folder} is not empty. Name a folder that is not there yet; what is in this one stays as it is.`,
  ),
  'port-taken': told<{ port: number; host: string; why: string }>(
    (e) => t`Port ${e.port} of ${e.host} ${e.why}. Choose another one with --port.`,
  ),
  'key-missing': told<{ path: string; names: readonly string[] }>(
    (e) =>
      t`${e.path} is missing, which opens what is kept encrypted (${list(e.names)}). Put it back from your backup. If it is lost for good, start once with MAILBAG_NEW_KEY=1 and enter those again.`,
  ),
  'key-wrong': told<{ path: string; names: readonly string[] }>(
    (e) =>
      t`${e.path} is not the key of this data folder: it does not open what is kept encrypted (${list(e.names)}). Put the right one back. If it is lost for good, start once with MAILBAG_NEW_KEY=1 and enter those again.`,
  ),
  'folder-none': told<{ folder: string }>(
    (e) => t`${e.folder} is not a data folder of Mailbag. Name the one that the server keeps its data in.`,
  ),
  'folder-in-use': told<{ folder: string; pid: string }>(
    (e) =>
      t`The data folder ${e.folder} is in use by another Mailbag (process ${e.pid}). Stop that one first, or choose another folder with --data.`,
  ),
  'database-busy': told<{ seconds: number }>(
    (e) =>
      t`Another program has held the database for ${e.seconds} s, so nothing could be written. Nothing was changed; end that program, then try again.`,
    503,
  ),
  'disk-full': told(
    () => t`The disk with the data folder is full, so nothing could be written. Nothing was changed; make room, then try again.`,
    507,
  ),
  'server-starts': told(() => t`Mailbag is starting. It answers in a moment.`),
  'server-stops': told(() => t`The server is stopping. What was not finished goes on when it is back.`, 503),
  'in-wastebasket': told<{ name: string }>((e) => t`“${e.name}” is in the wastebasket. Put it back from there to open it.`, 410),
  'not-found': told<{ what: string }>((e) => t`There is no ${e.what} with this address. It may have been removed.`, 404),
  unexpected: told<{ trace: string }>((e) => t`Something went wrong on the server (${e.trace}). Nothing was lost; try again.`, 500),
};
