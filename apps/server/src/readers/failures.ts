import type { ErrorCode } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, isMailbagError } from '@mailbag/core';

const has = (text: string, ...words: string[]): boolean => words.some((word) => text.includes(word));

/** What the driver's error means for a person. SQLSTATE of PostgreSQL (appendix A of its manual), error numbers of MySQL and MariaDB. */
export function databaseFailure(error: unknown, host: string): MailbagError {
  if (isMailbagError(error)) return error;
  const {
    code = '',
    errno = 0,
    message = String(error),
    sqlState = '',
  } = (error ?? {}) as { code?: string; errno?: number; message?: string; sqlState?: string };
  const told = (name: ErrorCode, fields: Record<string, string> = {}): MailbagError =>
    MailbagError.from({ code: name, fields: { host, answer: message.slice(0, 300), ...fields } }, { cause: error });
  if (
    has(code, 'ECONNREFUSED', 'ENOTFOUND', 'EHOSTUNREACH', 'ETIMEDOUT', 'EAI_AGAIN', 'ECONNRESET') ||
    /timeout (exceeded|expired)|connect ETIMEDOUT/i.test(message)
  )
    return told(/ECONNRESET/.test(code) ? 'database-gone' : 'database-unreachable', { why: code || t`no answer in time` });
  if (has(code, '28P01', '28000', 'ER_ACCESS_DENIED')) return told('database-sign-in-refused');
  if (has(code, '3D000', 'ER_BAD_DB_ERROR')) return told('database-unknown');
  if (
    code === '57014' ||
    errno === 1969 ||
    errno === 3024 ||
    has(message, 'max_statement_time', 'statement timeout', 'maximum statement execution time')
  )
    return told('database-too-slow');
  // What the engine itself refuses says why.
  if (code === 'SQLITE_AUTH') return told('database-query-refused', { why: message });
  if (code === '25006' || errno === 1792 || /readonly|read-only|READ ONLY/.test(message))
    return told('database-query-refused', { why: t`it writes, and Mailbag only reads` });
  if (
    /^57P0|^08/.test(code) ||
    has(code, 'PROTOCOL_CONNECTION_LOST') ||
    /Connection terminated|Connection lost|server closed|terminating connection|closed state/i.test(message)
  )
    return told('database-gone');
  if (/ssl|tls|certificate|self.signed/i.test(message)) return told('database-tls');
  if (code === 'SQLITE_NOTADB' || code === 'SQLITE_CORRUPT' || /file is not a database|encrypted/.test(message))
    return told('database-not-a-file');
  if (code === 'SQLITE_NOMEM' || code === 'SQLITE_TOOBIG') return told('database-too-much');
  return told('database-failed', sqlState ? { sqlState } : {});
}
