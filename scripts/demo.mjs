import { once } from 'node:events';
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
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
const settings = {
  MAILBAG_PORT: '0',
  MAILBAG_HOST: '127.0.0.1',
  MAILBAG_DATA: data,
  MAILBAG_POST_OFFICE: '1',
  // The outside world of the demo stands on this machine.
  MAILBAG_LOCAL_TARGETS: 'all',
  // The demo tries again after seconds instead of minutes.
  // All visitors of the demo come from this machine.
  MAILBAG_VISITOR_LIMITS: process.env.MAILBAG_VISITOR_LIMITS ?? '20',
  MAILBAG_MAILBOX_SECONDS: process.env.MAILBAG_MAILBOX_SECONDS ?? '5',
  MAILBAG_RETRY_PACE: process.env.MAILBAG_RETRY_PACE ?? '0.05',
};
if (isNew) {
  const { lastYear } = await import(join(root, 'demo/dist/last-year.js'));
  for (const { daysAgo, happen } of lastYear) {
    const past = startProcess('apps/server/bin/server.mjs', [], {
      ...settings,
      NODE_OPTIONS: `--import=${pathToFileURL(join(root, 'demo/dist/past-clock.js'))}`,
      MAILBAG_DEMO_DAYS_AGO: String(daysAgo),
    });
    await happen(`http://127.0.0.1:${(await past.ready).port}`, ports);
    past.child.kill('SIGTERM');
    await once(past.child, 'exit');
  }
}
const server = startProcess('apps/server/bin/server.mjs', [], settings);
const front = startProcess('standins/dist/front/main.js', [
  port,
  `http://127.0.0.1:${(await server.ready).port}`,
  `http://127.0.0.1:${ports.page}`,
]);
const address = `http://127.0.0.1:${(await front.ready).port}`;
endTogether(front.child, server.child, office.child, printer.child);
const { demoSignIn, moveStandIns } = await import(join(root, 'demo/dist/office.js'));
const { makeDemo } = await import(join(root, 'demo/dist/whole-demo.js'));
if (isNew) await makeDemo(address, ports);
else await moveStandIns(address, ports);
console.log(`
  Mailbag is ready after ${Math.round((Date.now() - started) / 1000)} s.

  Open     ${address}
  Sign in  ${demoSignIn.email}
  Password ${demoSignIn.password}

  Mail goes to a stand-in: ${address}/post-office shows it. Print runs go to a stand-in printer. Ctrl+C stops everything.
`);
