import { t } from '../words/words.js';
import { list, told } from './entry.js';

export const databasesErrors = {
  'database-unreachable': told<{ host: string; why: string }>(
    (e) =>
      t`The database server ${e.host} does not answer (${e.why}). Check its address and port, and whether it may be reached from here.`,
  ),
  'database-host-refused': told<{ host: string }>(
    (e) => t`${e.host} is not among the database servers that Mailbag may reach. Ask whoever runs Mailbag to allow it.`,
  ),
  'database-sign-in-refused': told<{ host: string }>((e) => t`The database at ${e.host} refused the user or the password. Check both.`),
  'database-unknown': told<{ host: string; answer: string }>(
    (e) => t`The server ${e.host} has no such database: ${e.answer}. Check its name.`,
  ),
  'database-tls': told<{ host: string; answer: string }>(
    (e) =>
      t`The connection to ${e.host} could not be secured: ${e.answer}. Check the server's certificate, or whether it offers TLS at all.`,
  ),
  'database-not-a-file': told<{ host: string }>(
    (e) => t`${e.host} is not a SQLite database that can be read. Choose the database file itself.`,
  ),
  'database-text-encoding': told<{ host: string }>(
    (e) =>
      t`${e.host} keeps its texts as UTF-16, which cannot be read here. Save the file again as UTF-8 in the program that it comes from.`,
  ),
  'database-too-much': told<{ host: string }>(
    (e) => t`The query on ${e.host} needs more memory than a query may take. Ask for fewer rows or shorter values.`,
  ),
  'database-query-refused': told<{ why: string }>((e) => t`The query was not run: ${e.why}. Write one SELECT that reads what you need.`),
  'database-parameter-missing': told<{ name: string }>(
    (e) => t`The query asks for :${e.name}, which has no value. Fill it in below the query.`,
  ),
  'database-too-slow': told<{ host: string }>(
    (e) => t`The database at ${e.host} took too long and the query was ended. Ask for fewer rows, or have an index made for it.`,
  ),
  'database-gone': told<{ host: string }>(
    (e) => t`The connection to the database at ${e.host} was lost. Nothing was changed; the records read before are kept. Try again.`,
  ),
  'database-failed': told<{ host: string; answer: string }>((e) => t`The database at ${e.host} says: ${e.answer}`),
  'connection-in-use': told<{ connection: string; sources: readonly string[] }>(
    (e) => t`“${e.connection}” is read by ${list(e.sources)}. Remove those sources first.`,
  ),
};
