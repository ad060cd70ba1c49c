import type { FileKey } from './file-key.js';
import { fileKey } from './file-key.js';

/** The PDF of a revision, by its digest. */
export const templateFile = (hash: string): FileKey => fileKey('templates', `${hash}.pdf`);
