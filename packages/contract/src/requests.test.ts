import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import * as contract from './index.js';

const faults = (kind: new () => object, value: object): string[] =>
  validateSync(plainToInstance(kind, value), { whitelist: true, forbidNonWhitelisted: true }).map(({ property }) => property);
const long = (length: number): string => 'x'.repeat(length);

/** A request as it should be, and single parts of it that are not. */
const requests: [name: string, kind: new () => object, right: Record<string, unknown>, wrong: Record<string, unknown[]>][] = [
  ['setting up', contract.SetUpRequest, { name: 'Marit', email: 'marit@larkmere.example', password: 'plots-and-paths' }, { name: [''], email: ['marit', ''], password: ['short', 7] }],
  ['signing in', contract.SignInRequest, { email: 'marit@larkmere.example', password: 'x' }, { email: [1], password: [null] }],
  ['a person', contract.PersonRequest, { name: 'Bo', role: 'viewer', seesValues: true, seesPasswords: false }, { name: ['', long(101)], role: ['owner'], seesValues: ['yes'] }],
  ['an invitation', contract.InvitationRequest, { name: 'Bo', role: 'viewer', seesValues: true, seesPasswords: false, email: 'bo@larkmere.example' }, { email: ['bo@', 'bo'] }],
  ['a mail server', contract.MailServerRequest, { name: 'Post', host: 'mail.example', port: 587, security: 'starttls', checkCertificate: true, user: '', perMinute: 0, perHour: 0, perDomainMinute: 0, connections: 2, limitMb: 25, hours: null }, { name: [''], host: ['', long(254)], port: [0, 65536, 1.5], security: ['maybe'], connections: [0, 21], limitMb: [0, 201], perMinute: [-1] }],
  ['a sender', contract.SenderRequest, { serverId: 1, name: 'Office', address: 'o@example.org' }, { name: ['', long(51)], address: ['nobody'], serverId: ['1'] }],
  ['a printer', contract.PrinterRequest, { name: 'Hall', uri: 'ipp://printer.example/ipp' }, { name: [''], uri: [5] }],
  ['a name', contract.RenameRequest, { name: 'Permits' }, { name: ['', 5] }],
  ['a new mailing', contract.MailingCreateRequest, { name: 'Permits' }, { name: ['', long(201)] }],
  ['a correction', contract.CorrectionRequest, { row: 2, column: 'Name', value: 'Ada' }, { row: ['2', 1.5], column: [long(301), 5], value: [long(10_001), null] }],
  ['sending again', contract.SendAgainRequest, { address: 'ada@example.org' }, { address: [long(2001), 5] }],
  ['much at once', contract.ManyCopiesRequest, { action: 'withdraw', ids: [1, 2] }, { action: ['burn'], ids: [['1'], 'all'] }],
  ['a view', contract.SavedViewRequest, { name: 'Bounced', filter: 'state=bounced' }, { name: ['', long(500)] }],
  ['a query', contract.QueryRequest, { sql: 'SELECT 1', parameters: {} }, { sql: [long(20_001), 5] }],
  ['a test message', contract.TestMessageRequest, { index: 0, address: 'ada@example.org' }, { index: [-1, '0'], address: ['ada', ''] }],
  ['how long things are kept', contract.RetentionRequest, { sourceDays: 30, copyDays: 0, recordDays: 36_500 }, { sourceDays: [-1, 0.5], copyDays: [36_501], recordDays: [null] }],
  ['a code', contract.SenderCodeRequest, { code: '123456' }, { code: [5] }],
  ['what is doubted', contract.DoubtRequest, { batchIds: [1] }, { batchIds: ['all', ['1']] }],
]; // prettier-ignore

describe.each(requests)('%s', (_, kind, right, wrong) => {
  test('is taken as it should be, without anything that nobody asked for', () => {
    const found = faults(kind, right);
    // Parts that are not named here may be wanted as well; those that are named are right.
    expect(found.filter((part) => part in right)).toEqual([]);
    expect(faults(kind, { ...right, isAdministrator: true })).toContain('isAdministrator');
  });
  for (const [part, values] of Object.entries(wrong))
    test.each(values.map((value) => [value]))(`is refused where ${part} is %j`, (value) => {
      expect(faults(kind, { ...right, [part]: value })).toContain(part);
    });
});
