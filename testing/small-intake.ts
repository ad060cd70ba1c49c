import type { ServerClient } from '../demo/src/server-client.js';
import { shedPermit } from '../demo/src/forms/shed-permit.js';

export interface SmallIntake {
  id: number;
  word: string;
  mailingId: number;
  sourceId: number;
  plan: { questions: Record<string, { id: string; words: string; column: string }>; opening: Record<string, unknown> };
}

/** A published intake of one form. @returns it, and the ids of its questions by their words */
export async function smallIntake(
  client: ServerClient,
  name = 'Permits',
): Promise<{ intake: SmallIntake; edition: number; idOf: (words: string) => string }> {
  const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'permit.pdf', shedPermit());
  const made = await client.send<SmallIntake>('POST', '/api/intakes', { name, templates: [template.id] });
  const intake = await client.send<SmallIntake>('POST', `/api/intakes/${made.id}/publish`);
  const { edition } = await client.get<{ edition: number }>(`/api/public/intakes/${intake.word}`);
  return { intake, edition, idOf: (words) => Object.values(intake.plan.questions).find((one) => one.words === words)!.id };
}

/** Asks as a stranger does: without a session. */
export function stranger(
  address: string,
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Response> {
  return fetch(`${address}${path}`, {
    method,
    headers: { 'X-Mailbag': '1', ...(body !== undefined && { 'Content-Type': 'application/json' }), ...headers },
    ...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  });
}
