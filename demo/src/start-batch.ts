import { randomUUID } from 'node:crypto';
import type { ServerClient } from './server-client.js';

interface Shown {
  digest: string;
  version: number;
  records: number;
}

/** Starts a batch as a person does: looks who would run, then starts over exactly those. @param rows of the records that are meant, for a selection */
export async function startBatch<Batch = { id: number }>(
  client: ServerClient,
  mailing: number,
  who: 'new' | 'changed' | 'selection' | 'everybody' = 'new',
  rows?: number[],
): Promise<Batch> {
  const choice = { who, ...(rows ? { rows } : {}) };
  const { digest, version, records } = await client.send<Shown>('POST', `/api/mailings/${mailing}/start`, choice);
  return client.send<Batch>('POST', `/api/mailings/${mailing}/batches`, {
    ...choice,
    digest,
    version,
    startKey: randomUUID(),
    ...(who === 'everybody' ? { confirmation: records } : {}),
  });
}
