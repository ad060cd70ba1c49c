import { trimEnds } from '../text/trim.js';

/** Names that Windows keeps for devices: Microsoft, “Naming Files, Paths, and Namespaces”. */
const RESERVED = /^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/i;
/** Bytes of a name that every usual file system takes, less room for a number. */
const LONGEST = 200;

/** The beginning of a text that has at most so many bytes in UTF-8; no character is cut. */
function firstBytes(text: string, limit: number): string {
  let bytes = 0;
  let end = 0;
  for (const char of text) {
    const point = char.codePointAt(0)!;
    bytes += point < 0x80 ? 1 : point < 0x800 ? 2 : point < 0x10000 ? 3 : 4;
    if (bytes > limit) return text.slice(0, end);
    end += char.length;
  }
  return text;
}

/** One part of a path made safe on every usual file system. Empty text becomes `_`. */
export function safeName(text: string, longest = LONGEST): string {
  const clean = text
    .normalize('NFC')
    .replace(/[\u0000-\u001f\u007f-\u009f\u200b-\u200f\u202a-\u202e\u2066-\u2069\ufeff]/g, '')
    .replace(/[<>:"/\\|?*]/g, '-')
    .replace(/\s+/g, ' ');
  let name = firstBytes(trimEnds(clean, /[\s.]/), longest).trimEnd();
  if (RESERVED.test(name)) name = `_${name}`;
  return name || '_';
}

/** A file name with its extension kept. */
export function safeFileName(text: string, extension: string): string {
  const dotted = `.${extension}`;
  const bare = text.toLowerCase().endsWith(dotted) ? text.slice(0, -dotted.length) : text;
  return `${safeName(bare, LONGEST - dotted.length)}${dotted}`;
}

/** Folders made safe, each part on its own; parts that are empty or lead upwards are left out. */
export const safeFolders = (path: string): string[] =>
  path
    .split(/[/\\]/)
    .filter((part) => part.trim() !== '' && !/^\.+$/.test(part.trim()))
    .map((part) => safeName(part));

/** The key under which two paths are the same file on some file system: case and composition do not count. */
export const pathKey = (path: string): string => path.normalize('NFC').toLowerCase();

/** Gives each file a path of its own: `Name.pdf`, `Name (2).pdf`, ... @param isTaken asked with `pathKey` */
export function uniquePath(folders: readonly string[], file: string, isTaken: (key: string) => boolean): string {
  const dot = file.lastIndexOf('.');
  for (let count = 1; ; count++) {
    const name = count === 1 ? file : `${file.slice(0, dot)} (${count})${file.slice(dot)}`;
    const path = [...folders, name].join('/');
    if (!isTaken(pathKey(path))) return path;
  }
}
