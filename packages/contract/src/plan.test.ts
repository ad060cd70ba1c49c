import 'reflect-metadata';
import { MOST_PICTURES } from '@mailbag/core';
import type { ValidationError } from 'class-validator';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { MailingPlan } from './plan.js';

const pathsOf = (errors: readonly ValidationError[], before = ''): string[] =>
  errors.flatMap(({ property, children = [] }) =>
    children.length > 0 ? pathsOf(children, `${before}${property}.`) : [`${before}${property}`],
  );
const faults = (plan: object): string[] =>
  pathsOf(validateSync(plainToInstance(MailingPlan, plan), { whitelist: true, forbidNonWhitelisted: true }));

const digest = 'a'.repeat(64);
const long = (length: number): string => 'x'.repeat(length);
/** A plan with everything that a plan can have. */
const whole = (): Record<string, unknown> => ({
  name: 'Permits',
  packet: [1, 2],
  sourceId: 3,
  keyColumn: 'Plot',
  maps: { 1: { name: { kind: 'column', column: 'Name' } } },
  leftOut: [4],
  checks: { country: 'DE' },
  output: {
    folder: '2027',
    file: '{{ plot }}.pdf',
    finish: 'locked',
    stamp: { symbology: 'qr', pages: 'first', corner: 'bottom-right', fromSide: 36, fromEnd: 36, width: 60, inPrint: true },
    pictures: [{ template: 1, field: 'signature', file: { fileId: digest, name: 'seal.png', size: 1200 } }],
    openPassword: '{{ born }}',
    permissionsPassword: '',
    combined: 'batch',
    duplex: true,
    metadata: ['Town'],
  },
  message: {
    mailed: true,
    addressColumn: 'Mail',
    recipient: '{{ name }}',
    subject: 'Your permit',
    body: 'Attached.',
    bodyFormat: 'html',
    senderId: 1,
    several: false,
    copyTo: '',
    blindCopyTo: '',
    attach: 'zip',
    extraFiles: [{ fileId: digest, name: 'Rules.pdf', size: 0 }],
    passwordSentence: 'It opens with your day of birth.',
    startAt: '2027-01-15T08:00:00Z',
    reminder: { subject: 'Reminder', body: 'Please answer.', afterDays: 14, maximum: 2, bySchedule: true, attach: false },
  },
  paper: { name: '{{ name }}', street: '', postalCode: '', town: '', region: '', country: 'DE', wantsColumn: null, wantsValues: ['yes'] },
});
/** The same with another value at a place, such as `output.stamp.width`. */
function changed(path: string, value: unknown): object {
  const plan = whole();
  const parts = path.split('.');
  let at = plan as Record<string, unknown>;
  for (const part of parts.slice(0, -1)) at = at[part] as Record<string, unknown>;
  at[parts.at(-1)!] = value;
  return plan;
}

test('a plan with everything is taken', () => expect(faults(whole())).toEqual([]));

test('a plan with nothing but what it must have is taken', () => {
  const { name, packet, maps, leftOut } = whole();
  const output = { folder: '', file: 'x' };
  const message = { mailed: false, addressColumn: null, recipient: '', subject: '', body: '' };
  expect(faults({ name, packet, maps, leftOut, sourceId: null, keyColumn: null, output, message })).toEqual([]);
});

test.each<[path: string, value: unknown, told?: string]>([
  ['name', ''],
  ['name', long(201)],
  ['packet', ['1']],
  ['packet', [1, 1]],
  ['packet', Array.from({ length: 51 }, (_, at) => at)],
  ['sourceId', 'three'],
  ['keyColumn', long(301)],
  ['maps', 'all'],
  ['leftOut', ['4']],
  ['checks', 'none'],
  ['output.folder', long(501)],
  ['output.file', 5],
  ['output.finish', 'signed'],
  ['output.stamp.symbology', 'ean13'],
  ['output.stamp.pages', 'even'],
  ['output.stamp.corner', 'middle'],
  ['output.stamp.fromSide', -1],
  ['output.stamp.fromEnd', 5001],
  ['output.stamp.width', 0],
  ['output.stamp.width', 100_000],
  ['output.stamp.inPrint', 'yes'],
  ['output.pictures.0.template', '1'],
  ['output.pictures.0.field', long(1001)],
  ['output.pictures.0.file.fileId', 'a'.repeat(63)],
  ['output.pictures.0.file.fileId', '../../secret.key'],
  ['output.pictures.0.file.name', ''],
  ['output.pictures.0.file.size', -1],
  ['output.openPassword', long(301)],
  ['output.combined', 'all'],
  ['output.duplex', 1],
  ['output.metadata', [5]],
  ['output.metadata', Array.from({ length: 51 }, String)],
  ['message.mailed', 'yes'],
  ['message.subject', long(501)],
  ['message.body', long(20_001)],
  ['message.bodyFormat', 'markdown'],
  ['message.senderId', '1'],
  ['message.attach', 'link'],
  ['message.extraFiles.0.fileId', 'A'.repeat(64)],
  ['message.startAt', 'tomorrow'],
  ['message.reminder.afterDays', 0],
  ['message.reminder.afterDays', 366],
  ['message.reminder.maximum', 11],
  ['message.reminder.bySchedule', null],
  ['paper.name', long(501)],
  ['paper.wantsValues', 'yes'],
  ['paper.wantsValues', Array.from({ length: 21 }, String)],
])('%s cannot be %j', (path, value) => expect(faults(changed(path, value))).toEqual([path]));

test.each([
  'output.stamp',
  'message.reminder',
  'paper',
  'sourceId',
  'keyColumn',
  'message.addressColumn',
  'message.startAt',
  'paper.wantsColumn',
])('%s may be left empty', (path) => expect(faults(changed(path, null))).toEqual([]));

test.each([
  'owner',
  'output.script',
  'message.headers',
  'message.extraFiles.0.path',
  'output.stamp.url',
  'paper.fax',
  'message.reminder.again',
])('%s is nothing that a plan has', (path) => expect(faults(changed(path, 'x'))).toEqual([path]));

test('too many pictures and too many files are refused', () => {
  const { output, message } = whole() as { output: { pictures: object[] }; message: { extraFiles: object[] } };
  expect(
    faults(
      changed(
        'output.pictures',
        Array.from({ length: MOST_PICTURES + 1 }, () => output.pictures[0]),
      ),
    ),
  ).toEqual(['output.pictures']);
  expect(
    faults(
      changed(
        'message.extraFiles',
        Array.from({ length: 11 }, () => message.extraFiles[0]),
      ),
    ),
  ).toEqual(['message.extraFiles']);
});
