import { t } from '../words/words.js';
import { safeFileName, safeFolders } from '../copies/file-name.js';
import { MailbagError } from '../errors/catalogue.js';
import { compilePattern } from './pattern.js';
import { replaceTags } from './tags.js';

/** Turns a record's data into folders and a file name, made safe. */
export interface OutputPattern {
  /** The names that it uses. */
  names: string[];
  path(data: Record<string, unknown>): { folders: string[]; file: string };
}

/** Folders in which the archive keeps files of its own. */
const RESERVED = ['combined', 'manifests'];
/** Copies never lie where the archive keeps files of its own, whatever the data says. */
const unreserved = ([first, ...rest]: string[]): string[] =>
  first === undefined ? [] : [RESERVED.includes(first.toLowerCase()) ? `${first} copies` : first, ...rest];

/**
 * @param folder pattern of the folders below the archive; empty: none
 * @param file pattern of the name; `.pdf` may be left out
 * @throws MailbagError pattern-empty, pattern-climbs, pattern-broken, pattern-unknown-column
 */
export function outputPattern(folder: string, file: string, names: readonly string[]): OutputPattern {
  if (file.trim() === '') throw new MailbagError('pattern-empty', { what: t`file name` });
  if (/(^|[/\\])\.\.([/\\]|$)/.test(folder) || /^\s*([/\\]|[A-Za-z]:)/.test(folder))
    throw new MailbagError('pattern-climbs', { pattern: folder });
  if (/[/\\]/.test(replaceTags(file, () => '')))
    throw new MailbagError('pattern-broken', {
      pattern: file,
      why: t`a file name cannot hold a slash; put folders into the folder pattern`,
    });
  const inFolder = compilePattern(folder, names);
  const inFile = compilePattern(file, names);
  // A slash that comes from data must not open another folder: data is made safe before it is rendered.
  const flat = (data: Record<string, unknown>): Record<string, unknown> => {
    const safe = { ...data };
    for (const key in safe) {
      const value = safe[key];
      if (typeof value === 'string' && /[/\\]/.test(value)) safe[key] = value.replace(/[/\\]/g, '-');
    }
    return safe;
  };
  return {
    names: [...inFolder.names, ...inFile.names],
    path: (data) => {
      const safe = flat(data);
      return { folders: unreserved(safeFolders(inFolder.render(safe))), file: safeFileName(inFile.render(safe), 'pdf') };
    },
  };
}
