import { join, resolve } from 'node:path';
import { build, endTogether, install, option, root, startProcess } from './run.mjs';

install();
build();
const server = startProcess('apps/server/dist/main.js', [], {
  MAILBAG_PORT: option('port', '4180'),
  MAILBAG_DATA: resolve(option('data', join(root, 'data'))),
});
await server.ready;
endTogether(server.child);
