import type { MailTestAnswer } from '@mailbag/contract';
import { detailText } from '@mailbag/core';
import type { RunningMailbag } from './running-mailbag.js';

interface TriedServer {
  ok: boolean;
  answer: string;
  steps: { step: string; ok: boolean; answer: string }[];
}

/** What the test of a mail server says, in words. @param server as it is filled in */
export async function triedServer({ client }: RunningMailbag, server: object): Promise<TriedServer> {
  const { ok, answer, steps } = await client.send<MailTestAnswer>('POST', '/api/mail-servers/test', server);
  return {
    ok,
    answer: detailText(answer),
    steps: steps.map((one) => ({ step: one.step, ok: one.ok, answer: detailText(one.answer) })),
  };
}
