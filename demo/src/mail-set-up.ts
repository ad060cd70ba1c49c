import type { ServerClient } from './server-client.js';

/** A mail server on loopback without limits. */
export const mailServer = (port: number) => ({
  name: 'Post office',
  host: '127.0.0.1',
  port,
  security: 'none',
  checkCertificate: true,
  user: '',
  password: '',
  perMinute: 0,
  perHour: 0,
  perDomainMinute: 0,
  connections: 5,
  limitMb: 25,
  hours: null,
});

/** @returns id of the server */
export async function addMailServer(client: ServerClient, port: number, more: object = {}): Promise<number> {
  const servers = await client.send<{ id: number }[]>('POST', '/api/mail-servers', { ...mailServer(port), ...more });
  return servers.at(-1)!.id;
}

/** Adds a sender and confirms it with the code that was mailed to it. @param codeOf finds that code @returns id of the sender */
export async function addSender(
  client: ServerClient,
  serverId: number,
  address: string,
  codeOf: (address: string) => Promise<string>,
  name = 'Office',
): Promise<number> {
  const senders = await client.send<{ id: number }[]>('POST', '/api/senders', { serverId, name, address });
  const { id } = senders.at(-1)!;
  await client.send('POST', `/api/senders/${id}/code`);
  await client.send('POST', `/api/senders/${id}/confirm`, { code: await codeOf(address) });
  return id;
}
