import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { build, endTogether, install, option, root, startProcess, webPort } from './run.mjs';

const port = await webPort('4180');
const data = resolve(option('data', join(root, '.mailbag/demo')));
const started = Date.now();
install();
build();

const office = startProcess('standins/dist/mail/main.js', ['0', '0', '0'], {});
const printer = startProcess('standins/dist/printer/main.js', ['0'], {});
const ports = { ...(await office.ready), printer: (await printer.ready).port };
const isNew = !existsSync(join(data, 'mailbag.sqlite'));
const server = startProcess('apps/server/dist/main.js', [], {
  MAILBAG_PORT: port,
  MAILBAG_DATA: data,
  MAILBAG_POST_OFFICE: `http://127.0.0.1:${ports.page}`,
  // The demo tries again after seconds instead of minutes.
  MAILBAG_MAILBOX_SECONDS: process.env.MAILBAG_MAILBOX_SECONDS ?? '5',
  MAILBAG_RETRY_PACE: process.env.MAILBAG_RETRY_PACE ?? '0.05',
});
const address = `http://127.0.0.1:${(await server.ready).port}`;
endTogether(server.child, office.child, printer.child);
const { demoSignIn, makeWorld, moveStandIns } = await import(join(root, 'demo/dist/world.js'));
if (isNew) await makeWorld(address, ports);
else await moveStandIns(address, ports);
console.log(`
  Mailbag is ready after ${Math.round((Date.now() - started) / 1000)} s.

  Open     ${address}
  Sign in  ${demoSignIn.email}
  Password ${demoSignIn.password}

  Mail goes to a stand-in: ${address}/post-office shows it. Print runs go to a stand-in printer. Ctrl+C stops everything.
`);
