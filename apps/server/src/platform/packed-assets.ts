import type { RequestHandler } from 'express';
import expressStaticGzip from 'express-static-gzip';

/**
 * Serves the files of a folder that the build made, packed where a packed copy lies beside one. Their names change with what is in them, so browsers keep them.
 * @param folder with the files
 */
export const packedAssets = (folder: string): RequestHandler =>
  expressStaticGzip(folder, {
    enableBrotli: true,
    orderPreference: ['br'],
    index: false,
    serveStatic: { maxAge: '365d', immutable: true, fallthrough: false },
  });
