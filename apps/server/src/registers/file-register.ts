import { fileKey } from '../files/file-key.js';
import { put } from '../files/files.js';
import type { RegisterAccess } from './database-register.js';
import type { RegisterLine, RegisterWriter } from './register-line.js';

/** One file a copy, named by its code; only its last change is written. */
function lastOfEach(lines: readonly RegisterLine[]): { name: string; text: string }[] {
  const last = new Map(lines.map((line) => [line.code, line]));
  return [...last.values()].map(({ metadata, ...line }) => ({
    name: `${line.code}.json`,
    text: `${JSON.stringify({ ...line, metadata: metadata ? (JSON.parse(metadata) as unknown) : null }, null, 2)}\n`,
  }));
}

/** A folder in the data folder, below `registers`. */
export function folderRegister({ table }: RegisterAccess): RegisterWriter {
  return {
    async write(lines) {
      for (const { name, text } of lastOfEach(lines)) await put(fileKey('registers', table, name), text);
    },
    close: () => Promise.resolve(),
  };
}

/** A folder on a WebDAV server (RFC 4918). A file that is put again replaces itself. */
export async function webdavRegister({ host, table, user, password }: RegisterAccess): Promise<RegisterWriter> {
  const { createClient } = await import('webdav');
  const client = createClient(host, user ? { username: user, password } : {});
  const folder = `/${table}`;
  const signal = (): AbortSignal => AbortSignal.timeout(15_000);
  if (!(await client.exists(folder, { signal: signal() }))) await client.createDirectory(folder, { signal: signal() });
  return {
    async write(lines) {
      for (const { name, text } of lastOfEach(lines))
        await client.putFileContents(`${folder}/${name}`, text, { overwrite: true, signal: signal() });
    },
    close: () => Promise.resolve(),
  };
}
