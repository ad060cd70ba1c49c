/** Node's side of core's ports, for the server, the command line and the bench. */
export { addedFaces, bundledFaces, nodeFonts } from './node-fonts.js';
export type { RefusedFace } from './node-fonts.js';
export { tableFile } from './table-file.js';
export { nodeCiphers } from './node-ciphers.js';
export { writeCopy } from './write-copy.js';
export { CopyWriter } from './copy-writer.js';
