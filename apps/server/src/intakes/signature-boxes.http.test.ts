import type { IntakeQuestion } from '@mailbag/core';
import { tenancyAgreement } from '../../../../demo/src/forms/tenancy-agreement.js';
import { encode } from 'fast-png';
import { readByOther } from '../../../../testing/other-reader.js';
import { inkIn, pictureOf } from '../../../../testing/picture.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { SmallIntake } from '../../../../testing/small-intake.js';
import { smallIntake, stranger } from '../../../../testing/small-intake.js';
import { until } from '../../../../testing/until.js';

/** Boxes for signatures that are drawn on forms which have none, or too few. */
const mailbag = new RunningMailbag({ MAILBAG_VISITOR_LIMITS: '1000' });
let intake: SmallIntake;
let idOf: (words: string) => string;

interface Detail extends SmallIntake {
  templates: { id: number; revisionId: number; pageSizes: { width: number; height: number }[]; fieldList: { name: string; kind: string; page: number; widgets: { rect: number[] }[] }[] }[]; // prettier-ignore
  places: Record<string, { template: number; field: string }[]>;
}
const detail = (): Promise<Detail> => mailbag.client.get<Detail>(`/api/intakes/${intake.id}`);
const draw = (body: Record<string, unknown>): Promise<Detail> =>
  mailbag.client.send<Detail>('POST', `/api/intakes/${intake.id}/boxes`, body);
/** A black rectangle, as a finger would not draw it. */
const signature = (): string =>
  `data:image/png;base64,${Buffer.from(encode({ width: 120, height: 40, channels: 1, depth: 8, data: new Uint8Array(4800) })).toString('base64')}`;

beforeAll(async () => {
  await (await mailbag.start()).setUp();
  ({ intake, idOf } = await smallIntake(mailbag.client, 'Permits'));
});
afterAll(() => mailbag.close());

test('a form that asks for no signature gets one with the date beside it, and both stand on the copy', async () => {
  const { templates, plan } = await detail();
  expect(
    Object.values(plan.questions as unknown as Record<string, IntakeQuestion>).filter(
      ({ kind, isAway }) => kind === 'signature' && !isAway,
    ),
  ).toEqual([]);
  const box = { left: 60, top: 600, right: 230, bottom: 640 };
  const told = await draw({ question: null, template: templates[0]!.id, page: 1, box, everyPage: false, dated: true });
  const asked = Object.values(told.plan.questions).find(({ words }) => words === 'Signature')!;
  expect(told.places[asked.column]!.map(({ field }) => field)).toEqual(['signature']);
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`);
  const { edition } = (await (await stranger(mailbag.address, 'GET', `/api/public/intakes/${intake.word}`)).json()) as { edition: number };
  const answers = { [idOf('Plot number')]: 'B-17', [idOf('Name of the tenant')]: 'Ada Quist', [idOf('E-mail address')]: 'a@example.org', [asked.id]: signature() }; // prettier-ignore
  const key = 'a-visitor-who-signs-the-form-0001';
  const sent = (await (await stranger(mailbag.address, 'POST', `/api/public/intakes/${intake.word}/submissions`, { edition, key, language: 'en', answers })).json()) as { number: string | null; faults: unknown[] }; // prettier-ignore
  expect(sent.faults).toEqual([]);
  await until(async () => {
    const { isMaking } = (await (await stranger(mailbag.address, 'GET', `/api/public/receipts/${key}`)).json()) as { isMaking: boolean };
    return !isMaking;
  }, 'the copy was made');
  const copy = new Uint8Array(await (await stranger(mailbag.address, 'GET', `/api/public/receipts/${key}/copies/0`)).arrayBuffer());
  const { fieldList } = (await detail()).templates[0]!;
  const [signed, dated] = ['signature', 'signature_date'].map((name) => fieldList.find((one) => one.name === name)!.widgets[0]!.rect);
  const picture = await pictureOf(copy);
  expect(inkIn(picture, signed!)).toBeGreaterThan(0.3);
  expect(inkIn(picture, dated!)).toBeGreaterThan(0.005);
  expect((await readByOther(copy))[0]!.text).toContain(String(new Date().getFullYear()));
});

test('initials stand on every page, and beside a signature that is there already', async () => {
  const { template } = await mailbag.client.upload<{ template: { id: number } }>('/api/templates', 'agreement.pdf', tenancyAgreement());
  const made = await mailbag.client.send<Detail>('POST', '/api/intakes', { name: 'Agreements', templates: [template.id] });
  const before = made.templates[0]!.fieldList.filter(({ kind }) => kind === 'signature');
  const question = Object.values(made.plan.questions).find(({ column }) =>
    made.places[column]?.some(({ field }) => field === before[0]?.name),
  );
  const box = { left: 500, top: 780, right: 560, bottom: 810 };
  const told = await mailbag.client.send<Detail>('POST', `/api/intakes/${made.id}/boxes`, { question: question?.id ?? null, template: template.id, page: 1, box, everyPage: true, dated: false }); // prettier-ignore
  const drawn = told.templates[0]!.fieldList.filter(({ kind, name }) => kind === 'signature' && !before.some((one) => one.name === name));
  expect(drawn.map(({ page }) => page)).toEqual(told.templates[0]!.pageSizes.map((_, at) => at + 1));
  expect(told.templates[0]!.revisionId).not.toBe(made.templates[0]!.revisionId);
});

test('what somebody is drawing on a form is not taken into use by the way', async () => {
  const { templates } = await detail();
  const { id } = templates[0]!;
  await mailbag.client.send('POST', `/api/templates/${id}/layout/changes`, {
    changes: [{ kind: 'set', place: ['stamps', 'mine'], is: { kind: 'line', page: 1, x: 20, y: 20, width: 100, text: 'Copy', size: 9, align: 'left' } }], // prettier-ignore
  });
  const wanted = { question: null, template: id, page: 1, box: { left: 0, top: 0, right: 90, bottom: 30 }, everyPage: false, dated: false };
  await expect(draw(wanted)).rejects.toThrow('intake-form-drawn-on');
  await expect(draw({ ...wanted, page: 99 })).rejects.toThrow();
  await expect(draw({ ...wanted, template: 999 })).rejects.toThrow('404');
});
