import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { LedgerQuery } from './copy.js';
import { MailingSaveRequest } from './mailing.js';
import { SenderRequest } from './senders.js';

const faults = (kind: new () => object, value: object): string[] =>
  validateSync(plainToInstance(kind, value), { whitelist: true }).map(({ property }) => property);
const plan = {
  name: 'x',
  packet: [1],
  sourceId: null,
  keyColumn: null,
  maps: {},
  leftOut: [],
  output: { folder: '', file: 'x' },
  message: { mailed: false, addressColumn: null, recipient: '', subject: '', body: '' },
};

test('a whole plan is taken, and one with a wrong part is not', () => {
  expect(faults(MailingSaveRequest, { version: 1, plan })).toEqual([]);
  expect(faults(MailingSaveRequest, { version: 1, plan: { ...plan, packet: [1, 1] } })).toEqual(['plan']);
  expect(faults(MailingSaveRequest, { version: 1, plan: { ...plan, leftOut: ['2'] } })).toEqual(['plan']);
  expect(faults(MailingSaveRequest, { version: 'one', plan: { ...plan, name: '' } })).toEqual(['version', 'plan']);
});
test('display names have at most 50 characters, addresses are such', () => {
  const sender = { serverId: 1, name: 'Office', address: 'o@example.org' };
  expect(faults(SenderRequest, sender)).toEqual([]);
  expect(faults(SenderRequest, { ...sender, name: 'x'.repeat(51), address: 'nobody' })).toEqual(['name', 'address']);
});
test('the ledger is asked in the words of the states only', () => {
  expect(faults(LedgerQuery, { state: 'bounced', batch: '3' })).toEqual([]);
  expect(faults(LedgerQuery, { state: 'broken', batch: 'x' })).toEqual(['state', 'batch']);
});
