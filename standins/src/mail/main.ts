import type { AddressInfo } from 'node:net';
import { ImapBox, imapServer } from './imap.js';
import { Mailbox } from './mailbox.js';
import { mailPage } from './page.js';
import { PostOfficeServer } from './smtp.js';

/** Starts the stand-in post office on loopback. Arguments: SMTP port, page port and IMAP port, 0 for free ones. Tells them as one line of JSON. */
const [smtpPort = 0, pagePort = 0, imapPort = 0] = process.argv.slice(2).map(Number);
const mailbox = new Mailbox();
const box = new ImapBox();
const office = new PostOfficeServer(mailbox, box);
const page = mailPage(mailbox, box, office);
const imap = imapServer(box);
const smtp = await office.listen(smtpPort);
await new Promise<void>((done) => page.listen(pagePort, '127.0.0.1', done));
await new Promise<void>((done) => imap.listen(imapPort, '127.0.0.1', done));
const ports = { smtp, page: (page.address() as AddressInfo).port, imap: (imap.address() as AddressInfo).port };
if (process.send) process.send(ports);
else console.log(JSON.stringify(ports));
process.on('disconnect', () => process.exit(0));
