import type { AddressInfo } from 'node:net';
import { Mailbox } from './mailbox.js';
import { mailPage } from './page.js';
import { mailServer } from './smtp.js';

/** Starts the stand-in post office on loopback. Arguments: SMTP port and page port, 0 for free ones. Tells both as one line of JSON. */
const [smtpPort = 0, pagePort = 0] = process.argv.slice(2).map(Number);
const mailbox = new Mailbox();
const smtp = mailServer(mailbox);
smtp.on('error', (error) => console.error(error.message));
const page = mailPage(mailbox);
smtp.listen(smtpPort, '127.0.0.1', () => {
  page.listen(pagePort, '127.0.0.1', () => {
    const ports = { smtp: (smtp.server.address() as AddressInfo).port, page: (page.address() as AddressInfo).port };
    if (process.send) process.send(ports);
    else console.log(JSON.stringify(ports));
  });
});
process.on('disconnect', () => process.exit(0));
