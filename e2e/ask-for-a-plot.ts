import { bankMandate } from '../demo/src/forms/bank-mandate.js';
import { shedPermit } from '../demo/src/forms/shed-permit.js';
import type { ServerClient } from '../demo/src/server-client.js';

type Plan = Record<string, unknown> & { questions: Record<string, Question>; opening: object; after: object };
interface Question {
  id: string;
  words: string;
  column: string;
}
interface Intake {
  id: number;
  mailingId: number;
  plan: Plan;
}
interface Mailing {
  version: number;
  plan: { output: object; message: object };
}

/**
 * The published page “Ask for a plot” over two forms, at /in/plots-2027: with a pass phrase, a German translation, a condition, an answer that has to look like
 * an example, a signature in two boxes, copies that open with a password, and a notice to the office.
 */
export async function askForAPlot(client: ServerClient): Promise<{ id: number; mailingId: number }> {
  const templates: number[] = [];
  for (const [name, bytes] of [
    ['Bank mandate.pdf', bankMandate()],
    ['Shed permit.pdf', shedPermit()],
  ] as const) {
    const { template } = await client.upload<{ template: { id: number } }>('/api/templates', name, bytes);
    templates.push(template.id);
  }
  const [, permit] = templates as [number, number];
  const { id, mailingId, plan } = await client.send<Intake>('POST', '/api/intakes', { name: 'Ask for a plot', templates });
  const of = (words: string): Question => Object.values(plan.questions).find((one) => one.words === words)!;
  const set = (place: readonly string[], was: unknown, is: unknown) => ({ kind: 'set', place, was, is });
  const change = (words: string, to: object): object => set(['questions', of(words).id], of(words), { ...of(words), ...to });
  const letters = { what: 'letters', text: '', minimum: 1, maximum: 1 };
  await client.send('POST', `/api/intakes/${id}/changes`, {
    changes: [
      change('Plot number', {
        words: 'Which plot would you like?',
        shape: {
          example: 'B-17',
          parts: [letters, { ...letters, what: 'exactly', text: '-' }, { ...letters, what: 'digits', maximum: 2 }],
        },
      }),
      change('Name of the bank', { isAway: true }),
      change('Roof', { when: { of: { kind: 'column', column: 'Greenhouse' }, test: 'is', values: ['yes'] } }),
      set(['intro'], plan.intro, 'Have your bank card at hand.'),
      set(['opening'], plan.opening, { ...plan.opening, passPhrase: 'garden gate' }),
      set(['after'], plan.after, {
        ...plan.after,
        notice: {
          to: 'desk@larkmere.example',
          subject: 'New answer: Ask for a plot',
          body: '<p>Somebody has answered.</p>',
          attach: 'zip',
        },
      }),
      set(['translations'], plan.translations, {
        de: {
          [`question ${of('Plot number').id}`]: 'Welche Parzelle möchten Sie?',
          [`option ${of('Payment').id} Twice a year`]: 'Zweimal im Jahr',
        },
      }),
    ],
  });
  const box = { left: 180, top: 720, right: 350, bottom: 760 };
  const question = of('Signature of the account holder').id;
  await client.send('POST', `/api/intakes/${id}/boxes`, { question, template: permit, page: 1, box, everyPage: false, dated: true });
  const mailing = await client.get<Mailing>(`/api/mailings/${mailingId}`);
  const { output, message } = mailing.plan;
  await client.send('PUT', `/api/mailings/${mailingId}`, {
    version: mailing.version,
    plan: {
      ...mailing.plan,
      message: { ...message, passwordSentence: 'It opens with the word plot, a space and your plot number.' },
      output: { ...output, openPassword: 'plot {{ plot_number }}' },
    },
  });
  await client.send('PUT', `/api/intakes/${id}/word`, { word: 'plots-2027' });
  await client.send('POST', `/api/intakes/${id}/publish`);
  return { id, mailingId };
}
