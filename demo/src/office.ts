import { addMailServer, addSender, mailServer } from './mail-set-up.js';
import { ServerClient } from './server-client.js';

export const demoSignIn = { name: 'Marit Odum', email: 'marit@larkmere.example', password: 'plots-and-paths' };

/** Where the stand-ins are, on loopback. */
export interface StandIns {
  smtp: number;
  page: number;
  imap: number;
  printer: number;
}

const printerAddress = (port: number): string => `ipp://127.0.0.1:${port}/ipp/print`;
const BOUNCES = 'bounces@larkmere.example';
const bounceSettings = (imap: number) => ({
  address: BOUNCES,
  host: '127.0.0.1',
  port: imap,
  tls: false,
  checkCertificate: false,
  user: 'bounces',
  password: 'bounces',
  folder: 'INBOX',
  smtpPort: 0,
});

/** Reads the code that the stand-in post office received for an address. */
async function codeIn(page: number, address: string): Promise<string> {
  const messages = (await (await fetch(`http://127.0.0.1:${page}/messages.json`)).json()) as { to: string; subject: string }[];
  return messages
    .filter(({ to }) => to === address)
    .at(-1)!
    .subject.slice(0, 6);
}

/** Tells a world made earlier where the stand-ins are now. A world whose sign-in was changed is left alone. */
export async function moveStandIns(base: string, { smtp, imap, printer }: StandIns): Promise<void> {
  const server = new ServerClient(base);
  await server.send('POST', '/api/account/sign-in', { email: demoSignIn.email, password: demoSignIn.password });
  for (const { id, hasPassword: _, senders: __, rest: ___, ...known } of await server.get<
    { id: number; name: string; hasPassword: boolean; senders: number; rest: unknown }[]
  >('/api/mail-servers'))
    if (known.name === mailServer(0).name) await server.send('PUT', `/api/mail-servers/${id}`, { ...known, password: '', port: smtp });
  await server.send('PUT', '/api/bounces', bounceSettings(imap));
  for (const { id, name } of await server.get<{ id: number; name: string }[]>('/api/printers')) {
    if (name !== 'Ground floor') continue;
    await server.send('PUT', `/api/printers/${id}`, { name, uri: printerAddress(printer) });
  }
}

/** The office, signed in; set up with its mail server, sender, printer and address where there is no account yet. */
export async function officeOf(base: string, standIns: StandIns): Promise<ServerClient> {
  const server = new ServerClient(base);
  const { setUpNeeded } = await server.get<{ setUpNeeded: boolean }>('/api/account');
  if (!setUpNeeded) {
    await server.send('POST', '/api/account/sign-in', { email: demoSignIn.email, password: demoSignIn.password });
    return server;
  }
  await server.send('POST', '/api/account/set-up', demoSignIn);
  const serverId = await addMailServer(server, standIns.smtp);
  await addSender(server, serverId, 'office@larkmere.example', (address) => codeIn(standIns.page, address), 'Larkmere Allotment Office');
  await server.send('PUT', '/api/bounces', bounceSettings(standIns.imap));
  await server.send('POST', '/api/printers', { name: 'Ground floor', uri: printerAddress(standIns.printer) });
  await server.send('PUT', '/api/settings/office', {
    returnLine: 'Larkmere Allotment Office · 1 Mill Lane · 04200 Larkmere',
    country: 'DE',
  });
  return server;
}
