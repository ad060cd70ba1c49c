import type { Transactions } from '../persistence/transactions.js';
import type { SettingsService } from '../settings/settings.service.js';
import { secretStore } from '../stores/secret.store.js';
import { LOST_SECRETS } from './folder-key.js';

/** Secrets that went with a lost key and were not entered again yet, by what they belong to. */
export async function lostSecrets(settings: SettingsService, transactions: Transactions): Promise<string[]> {
  const lost = (await settings.get<string[]>(LOST_SECRETS)) ?? [];
  if (lost.length === 0) return [];
  const names = new Set((await secretStore.names(transactions)).map(({ name }) => name));
  return lost.filter((name) => !names.has(name));
}
