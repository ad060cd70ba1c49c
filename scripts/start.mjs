import { join, resolve } from 'node:path';
import { build, endTogether, install, option, root, startProcess, webPort } from './run.mjs';

const wanted = await webPort('4180');
install();
build();
const server = startProcess('apps/server/bin/server.mjs', [], {
  MAILBAG_PORT: wanted,
  MAILBAG_DATA: resolve(option('data', join(root, 'data'))),
});
const { port } = await server.ready;
console.log(`Mailbag listens on http://127.0.0.1:${port}`);
endTogether(server.child);
