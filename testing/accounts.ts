import { ServerClient } from '../demo/src/server-client.js';
import type { RunningMailbag } from './running-mailbag.js';

export interface Sight {
  role: 'administrator' | 'operator' | 'viewer';
  seesValues?: boolean;
  seesPasswords?: boolean;
}

let count = 0;
export const PASSWORD = 'marrows and 12 kinds of bean';

/** A further account, invited by the first one and signed in. */
export async function signedInAs(
  mailbag: RunningMailbag,
  { role, seesValues = true, seesPasswords = false }: Sight,
  email = `${role}.${++count}@larkmere.example`,
): Promise<ServerClient> {
  const { address } = await mailbag.client.send<{ address: string }>('POST', '/api/people/invitations', {
    name: `A ${role}`,
    email,
    role,
    seesValues,
    seesPasswords,
  });
  const client = new ServerClient(mailbag.address);
  await client.send('POST', '/api/people/invitation', {
    token: new URL(address).searchParams.get('token'),
    password: PASSWORD,
  });
  return client;
}
