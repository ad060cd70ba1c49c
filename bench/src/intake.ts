import { addMailServer, addSender } from '@mailbag/demo/dist/mail-set-up.js';
import { shedPermit } from '@mailbag/demo/dist/forms/shed-permit.js';
import { ServerClient } from '@mailbag/demo/dist/server-client.js';
import { engineAlone, percentile } from './batch.js';
import { denseForm } from './forms.js';
import { option } from './option.js';
import { memoryOf, processorSeconds, startMailbag } from './server-process.js';

interface Intake {
  id: number;
  word: string;
  sourceId: number;
  plan: { questions: Record<string, { id: string; words: string; kind: string }> };
}

/** Visitors who answer at the same time for a while, with copies made and mailed; beside it what the engine makes by itself. `--visitors 200 --seconds 60` */
export async function intakeBench(): Promise<void> {
  const [visitors, seconds] = [Number(option('visitors', '200')), Number(option('seconds', '60'))];
  const engine = await engineAlone(shedPermit());
  const mailbag = await startMailbag({ MAILBAG_VISITOR_LIMITS: '1000000' });
  try {
    const client = new ServerClient(mailbag.address);
    await client.send('POST', '/api/account/set-up', {
      name: 'Bench',
      email: 'bench@larkmere.example',
      password: 'a long enough password',
    });
    await addSender(client, await addMailServer(client, mailbag.smtp), 'office@larkmere.example', mailbag.code);
    const made = async (name: string, form: Uint8Array): Promise<{ intake: Intake; milliseconds: number }> => {
      const { template } = await client.upload<{ template: { id: number } }>('/api/templates', `${name}.pdf`, form);
      const from = performance.now();
      const intake = await client.send<Intake>('POST', '/api/intakes', { name, templates: [template.id] });
      return { intake, milliseconds: Math.round(performance.now() - from) };
    };
    const dense = await made('Dense', denseForm());
    const { intake } = await made('Permits', shedPermit());
    await client.send('POST', `/api/intakes/${intake.id}/publish`);
    const { edition } = await client.get<{ edition: number }>(`/api/public/intakes/${intake.word}`);
    const idOf = (words: string): string => Object.values(intake.plan.questions).find((one) => one.words === words)!.id;
    const end = Date.now() + seconds * 1000;
    const waits: number[] = [];
    let [next, acknowledged, failed] = [0, 0, 0];
    const busyBefore = processorSeconds(mailbag.pid);
    const visitor = async (): Promise<void> => {
      while (Date.now() < end) {
        const number = next++;
        const from = performance.now();
        const answer = await fetch(`${mailbag.address}/api/public/intakes/${intake.word}/submissions`, {
          method: 'POST',
          headers: { 'X-Mailbag': '1', 'Content-Type': 'application/json' },
          body: JSON.stringify({
            edition,
            key: `bench-visitor-${String(number).padStart(10, '0')}`,
            language: 'en',
            answers: { [idOf('Plot number')]: `N-${number % 99999}`, [idOf('E-mail address')]: `visitor.${number}@example.org` },
          }),
        }).catch(() => null);
        waits.push(performance.now() - from);
        if (answer?.ok && ((await answer.json()) as { number: string | null }).number !== null) acknowledged++;
        else failed++;
      }
    };
    await Promise.all(Array.from({ length: visitors }, visitor));
    const { total } = await client.get<{ total: number }>(`/api/intakes/${intake.id}/submissions?from=0&count=1`);
    const from = performance.now();
    await client.until<{ count: number }>(`/api/sources/${intake.sourceId}`, ({ count }) => count === acknowledged, 600);
    console.log(
      JSON.stringify({
        case: `${visitors} visitors for ${seconds} s`,
        makingAnIntake: { fields: Object.keys(dense.intake.plan.questions).length, milliseconds: dense.milliseconds },
        acknowledged,
        failed,
        kept: total,
        perSecond: Math.round(acknowledged / seconds),
        acknowledgedMilliseconds: { median: percentile(waits, 0.5), percentile99: percentile(waits, 0.99) },
        recordsAfterSeconds: Math.round((performance.now() - from) / 100) / 10,
        engineAlone: engine,
        processorSeconds: Math.round(processorSeconds(mailbag.pid) - busyBefore),
        memoryMb: memoryOf(mailbag.pid),
      }),
    );
  } finally {
    mailbag.stop();
  }
}
