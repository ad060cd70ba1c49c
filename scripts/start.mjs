import { join, resolve } from 'node:path';
import { build, endTogether, install, option, root, startProcess } from './run.mjs';

install();
build();
const server = startProcess('apps/server/dist/main.js', [], {
  MAILBAG_PORT: option('port', '4180'),
  MAILBAG_DATA: resolve(option('data', join(root, 'data'))),
});
const { port } = await server.ready;
console.log(`Mailbag listens on http://127.0.0.1:${port}`);
endTogether(server.child);
