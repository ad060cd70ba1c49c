import { safeName } from './file-name.js';

/** What a file that is saved is called: what it holds, what it is narrowed to, and the day. @param parts null and empty ones are left out @param day ISO */
export const savedName = (parts: readonly (string | null | undefined)[], day: string, extension: string): string =>
  `${safeName([...parts, day].filter(Boolean).join(' · '))}.${extension}`;
