import { makeDemo } from './whole-demo.js';
import { demoSignIn } from './office.js';

/** Makes the world on a running server. Arguments: its address, and the ports of the stand-in post office: SMTP, page, IMAP; and that of the stand-in printer. */
const [base, ...ports] = process.argv.slice(2);
const [smtp, page, imap, printer] = ports.map(Number);
if (!base || !smtp || !page || !imap || !printer) {
  console.error('Usage: node demo/dist/main.js ADDRESS SMTP-PORT PAGE-PORT IMAP-PORT PRINTER-PORT');
  process.exit(2);
}
await makeDemo(base, { smtp, page, imap, printer });
console.log(`The Larkmere world is made. Sign in as ${demoSignIn.email} with ${demoSignIn.password}`);
