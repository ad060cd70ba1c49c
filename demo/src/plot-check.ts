import { randomBytes } from 'node:crypto';
import type { IntakeAnswers, IntakePlan, Json } from '@mailbag/core';
import { changesBetween, isWholeInIntake } from '@mailbag/core';
import { officeSignature } from './drawings.js';
import type { ServerClient } from './server-client.js';
import { startBatch } from './start-batch.js';

interface Mailing {
  id: number;
  version: number;
  plan: { sourceId: number; packet: number[]; maps: Record<string, object>; output: object; message: object };
}
interface Intake {
  id: number;
  word: string;
  plan: IntakePlan;
}

/** What the office wants to know again, by the columns of the tenancies; everything else stays as it is. */
const asked = ['First name', 'Surname', 'Street', 'Postal code', 'Town', 'Telephone', 'E-mail'];

/** “Check your tenancy”: a dozen tenants have a link of their own to what the office knows of them; two have answered. */
export async function makePlotCheck(server: ServerClient): Promise<void> {
  const mailings = await server.get<{ id: number; name: string }[]>('/api/mailings');
  const renewals = await server.get<Mailing>(`/api/mailings/${mailings.find(({ name }) => name === 'Plot renewals 2027')!.id}`);
  const [agreement] = renewals.plan.packet as [number];
  const { id, version, plan } = await server.send<Mailing>('POST', '/api/mailings', { name: 'Tenancies to check' });
  await server.send('PUT', `/api/mailings/${id}`, {
    version,
    plan: {
      ...plan,
      packet: [agreement],
      sourceId: renewals.plan.sourceId,
      keyColumn: 'Plot',
      maps: { [agreement]: renewals.plan.maps[agreement] },
      output: {
        ...renewals.plan.output,
        folder: '2027/Checks',
        stamp: {
          symbology: 'qr',
          pages: 'first',
          corner: 'bottom-right',
          fromSide: 10,
          fromEnd: 8,
          width: 28,
          inPrint: true,
          holds: 'link',
        },
      },
    },
  });
  const intake = await server.send<Intake>('POST', '/api/intakes', {
    name: 'Check your tenancy',
    templates: [],
    before: { mailingId: id, site: server.base },
  });
  const cleaned: IntakePlan = {
    ...intake.plan,
    intro: 'Please look through what we know of you, correct what is wrong, and sign.',
    questions: Object.fromEntries(
      Object.values(intake.plan.questions).map((one) => [
        one.id,
        { ...one, doubt: '', isAway: one.isAway || !(asked.includes(one.column) || one.kind === 'signature') },
      ]),
    ),
    after: { ...intake.plan.after, thanks: 'Thank you. Your tenancy goes on as before.' },
    personal: { ...intake.plan.personal!, until: '2027-12-31T23:00:00.000Z' },
  };
  const changes = changesBetween(intake.plan as unknown as Json, cleaned as unknown as Json, isWholeInIntake);
  await server.send('POST', `/api/intakes/${intake.id}/changes`, { changes });
  await server.send('POST', `/api/intakes/${intake.id}/publish`);
  const linked = await server.get<Mailing>(`/api/mailings/${id}`);
  await server.send('PUT', `/api/mailings/${id}`, {
    version: linked.version,
    plan: {
      ...linked.plan,
      message: {
        ...renewals.plan.message,
        subject: 'Is this still right? Plot {{ plot }}',
        bodyFormat: 'text',
        body: 'Dear {{ first_name }} {{ surname }},\n\nplease look through what we know of you, here: {{ link }}\n\nThe same link stands on the paper, as a code for your phone.\n\nLarkmere Allotment Office',
      },
    },
  });
  const { columns } = await server.get<{ columns: { name: string }[] }>(`/api/sources/${renewals.plan.sourceId}`);
  const { records } = await server.get<{ records: { row: number; cells: { text: string }[] }[] }>(
    `/api/sources/${renewals.plan.sourceId}/records?from=0&count=100`,
  );
  const mail = columns.findIndex(({ name }) => name === 'E-mail');
  const rows = records.filter(({ cells }) => /^[^@\s]+@[^@\s]+\.\w+$/.test(cells[mail]?.text ?? '')).slice(20, 32);
  const { id: batch } = await startBatch<{ id: number }>(
    server,
    id,
    'selection',
    rows.map(({ row }) => row),
  );
  await server.until<{ counts: Record<string, number>; copies: number }>(
    `/api/batches/${batch}`,
    ({ counts, copies }) => copies > 0 && (counts.sent ?? 0) >= copies - 1,
    60,
  );
  const { rows: copies } = await server.get<{ rows: { id: number; state: string }[] }>(`/api/copies?batch=${batch}&count=50`);
  const signature = `data:image/png;base64,${Buffer.from(officeSignature()).toString('base64')}`;
  const sent = copies.filter(({ state }) => state === 'sent').slice(0, 2);
  for (const [index, copy] of sent.entries()) {
    const { html, text } = await server.get<{ html: string | null; text: string }>(`/api/copies/${copy.id}/message`);
    const token = /#([\w-]+\.[\w-]{22})/.exec(`${text}${html ?? ''}`)![1]!;
    const { edition, answers } = await server.send<{ edition: number; answers: IntakeAnswers }>(
      'POST',
      `/api/public/intakes/${intake.word}/personal`,
      { token },
    );
    const own = Object.fromEntries(Object.values(cleaned.questions).map((one) => [one.column, one.id]));
    const signed = Object.values(cleaned.questions).filter(({ kind, isAway }) => kind === 'signature' && !isAway);
    await server.send('POST', `/api/public/intakes/${intake.word}/submissions`, {
      edition,
      key: randomBytes(20).toString('hex'),
      language: 'en',
      personal: { token },
      answers: {
        ...answers,
        ...Object.fromEntries(signed.map((one) => [one.id, signature])),
        ...(index === 0 && { [own.Street!]: '7 Heron Walk', [own.Telephone!]: '+44 20 7946 0958' }),
      },
    });
  }
}
