import { randomBytes } from 'node:crypto';
import { addedQuestion, changesBetween } from '@mailbag/core';
import type { IntakePlan, Json } from '@mailbag/core';
import { isWholeInIntake } from '@mailbag/core';
import { inGermanToo } from './plot-words.js';
import { officeSignature } from './drawings.js';
import type { ServerClient } from './server-client.js';

/** People who would like a plot, with what they answered. Invented. */
const people: readonly [name: string, mail: string, plot: string, pays: string, shed: string, greenhouse: string, language: string][] = [
  ['Ivka Sørlie', 'ivka@example.org', 'C-12', 'Once a year', 'yes', 'no', 'en'],
  ['Tomasz Wrona', 'tomasz@example.net', 'D-03', 'Every quarter', 'no', 'yes', 'pl'],
  ['Liesl van der Aa', 'liesl@example.org', 'A-44', 'Twice a year', 'no', 'no', 'de'],
  ['Ömer Kılıç', 'oemer@example.net', 'B-90', 'Once a year', 'yes', 'yes', 'de'],
  ['Ρένα Μάνου', 'rena@example.org', 'C-31', 'Once a year', 'no', 'no', 'en'],
  ['Оксана Гай', 'oksana@example.net', 'D-18', 'Every quarter', 'no', 'yes', 'uk'],
  ['Bruno Fenn', 'bruno@example.org', 'A-07', 'Once a year', 'yes', 'no', 'en'],
  ['Clémence Aubry', 'clemence@example.net', 'B-55', 'Twice a year', 'no', 'no', 'fr'],
  ['Nuria Pla', 'nuria@example.org', 'C-77', 'Once a year', 'no', 'yes', 'es'],
  ['Jorunn Eik', 'jorunn@example.net', 'D-61', 'Every quarter', 'yes', 'no', 'en'],
  ['سلمى حداد', 'salma@example.org', 'A-90', 'Once a year', 'no', 'no', 'ar'],
  ['Wim Oost', 'wim@example.net', 'B-12', 'Twice a year', 'yes', 'no', 'de'],
];

interface Intake {
  id: number;
  word: string;
  mailingId: number;
  plan: IntakePlan;
}
const wished = 'A shed up to 6 m², no higher than 2.20 m';
const words: Readonly<Record<string, string>> = {
  'Plot number': 'Which plot would you like?',
  'Name of the tenant': 'Your first name and surname',
  Payment: 'How often would you like to pay?',
  [wished]: 'Will you build a shed?',
  Greenhouse: 'Will you build a glasshouse?',
  'Height of the shed in metres': 'How high will the shed be, in metres?',
};
/** What the office fills in, and what nobody needs to know of somebody who asks. */
const away = ['Site', 'Permit valid until', 'Conditions', 'Amount of each payment', 'First payment on'];

/** No field of a form holds it. */
const consent = {
  ...addedQuestion(
    'consent',
    'Consent',
    'I agree that the office keeps these answers until the plots of next year are given.',
    'consent' as const,
  ),
  required: true,
};

/** The plan of the page as the office has cleaned it up. */
function cleanedUp(plan: IntakePlan): IntakePlan {
  const questions = Object.fromEntries(
    Object.values(plan.questions).map((question) => [
      question.id,
      {
        ...question,
        words: words[question.column] ?? question.words,
        doubt: '',
        isAway: question.isAway || away.includes(question.column),
        required:
          question.required ||
          ['Name of the tenant', 'Payment', wished, 'Greenhouse', 'Signature of the account holder'].includes(question.column),
        ...(question.column === 'Height of the shed in metres' && {
          when: { of: { kind: 'column' as const, column: wished }, test: 'is' as const, values: ['yes'] },
        }),
        ...(question.column === 'Plot number' && {
          help: 'The free plots hang at the gate of each site. One letter and a number, such as B-17.',
        }),
      },
    ]),
  );
  return {
    ...plan,
    intro: 'You would like to rent a plot in Larkmere. Have your bank card at hand; you sign on the screen at the end.',
    sections: plan.sections.map((section, at) =>
      at === plan.sections.length - 1 ? { ...section, questions: [...section.questions, consent.id] } : section,
    ),
    questions: { ...questions, [consent.id]: consent },
    after: {
      atOnce: true,
      thanks: 'We let you know within two weeks whether the plot is free.',
      notice: {
        to: 'plots@larkmere.example',
        subject: 'Plot {{ plot_number }} is asked for',
        body: '<p>Somebody asks for a plot. Look whether it is free.</p>',
        attach: 'zip',
      },
    },
    opening: { ...plan.opening, contact: 'the allotment office, Tuesdays and Fridays from 10 to 12' },
  };
}

/** “Ask for a plot”: two forms, one of them for those only who build something, with a dozen answers. */
export async function makePlotIntake(server: ServerClient): Promise<void> {
  const templates = await server.get<{ id: number; name: string }[]>('/api/templates');
  const form = (name: string): number => templates.find((one) => one.name === name)!.id;
  const [mandate, permit] = [form('Bank mandate'), form('Shed and glasshouse permit')];
  const made = await server.send<Intake>('POST', '/api/intakes', { name: 'Ask for a plot', templates: [mandate, permit] });
  const changes = changesBetween(made.plan as unknown as Json, inGermanToo(cleanedUp(made.plan)) as unknown as Json, isWholeInIntake);
  await server.send('POST', `/api/intakes/${made.id}/changes`, { changes });
  const { plan, version } = await server.get<{ plan: object; version: number }>(`/api/mailings/${made.mailingId}`);
  const builds = ['Greenhouse', wished].map((column) => ({ of: { kind: 'column', column }, test: 'is', values: ['yes'] }));
  await server.send('PUT', `/api/mailings/${made.mailingId}`, { version, plan: { ...plan, conditions: { [permit]: { any: builds } } } });
  await server.send('POST', `/api/intakes/${made.id}/publish`);
  const { edition } = await server.get<{ edition: number }>(`/api/public/intakes/${made.word}`);
  const id = (column: string): string => Object.values(made.plan.questions).find((one) => one.column === column)!.id;
  const signature = `data:image/png;base64,${Buffer.from(officeSignature()).toString('base64')}`;
  for (const [name, mail, plot, pays, shed, greenhouse, language] of people)
    await server.send('POST', `/api/public/intakes/${made.word}/submissions`, {
      edition,
      key: randomBytes(20).toString('hex'),
      language,
      answers: {
        [id('Plot number')]: plot,
        [id('Name of the tenant')]: name,
        [id('E-mail address')]: mail,
        [id('Account holder')]: name,
        // The example of the IBAN registry (ISO 13616) for Germany.
        [id('IBAN')]: 'DE89 3704 0044 0532 0130 00',
        [id('Payment')]: pays,
        [id(wished)]: shed,
        [id('Greenhouse')]: greenhouse,
        ...(shed === 'yes' && { [id('Height of the shed in metres')]: '2.10' }),
        [id('Signature of the account holder')]: signature,
        [consent.id]: 'yes',
      },
    });
}
