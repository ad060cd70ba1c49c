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
  ['putting away', contract.ArchiveRequest, { isArchived: true }, { isArchived: ['yes', null] }],
  ['an answer', contract.AnswersRequest, { revisionId: 2, fields: ['a', 'b'], as: 'date' }, { revisionId: ['2'], fields: [[], [5], 'a'], as: ['both'] }],
  ['a layout in use', contract.LayoutUseRequest, { version: 3 }, { version: [-1, 1.5, '3'] }],
  ['changes of a layout', contract.LayoutChangesRequest, { changes: [] }, { changes: ['all', {}] }],
  ['a name', contract.RenameRequest, { name: 'Permits' }, { name: ['', 5] }],
  ['a new mailing', contract.MailingCreateRequest, { name: 'Permits' }, { name: ['', long(201)] }],
  ['a new mailing after an earlier one', contract.MailingCreateRequest, { name: 'Permits', from: 3 }, { from: ['three', 1.5] }],
  ['a correction', contract.CorrectionRequest, { row: 2, column: 'Name', value: 'Ada' }, { row: ['2', 1.5], column: [long(301), 5], value: [long(10_001), null] }],
  ['corrections', contract.CorrectionsRequest, { changes: [{ row: 2, column: 'Name', value: 'Ada' }] }, { changes: [[], [{ row: '2' }], 'all'] }],
  ['what is replaced', contract.ReplaceRequest, { find: 'Mill', replace: '', column: null, isWhole: false }, { find: ['', long(301)], replace: [null, long(301)], column: [5], isWhole: ['no'] }],
  ['how records are seen', contract.RecordViewQuery, { order: 'Name', down: 'yes', column: 'Site', text: 'Mill', only: 'empty' }, { down: ['no'], only: ['odd'], text: [long(301)], order: [long(301)] }],
  ['a course', contract.CourseQuery, { span: 'year' }, { span: ['decade', ''] }],
  ['places of records', contract.RecordsAtQuery, { at: '0,5' }, { at: ['', '1,', 'a', long(4001)] }],
  ['sending again', contract.SendAgainRequest, { address: 'ada@example.org' }, { address: [long(2001), 5] }],
  ['much at once', contract.ManyCopiesRequest, { action: 'withdraw', ids: [1, 2] }, { action: ['burn'], ids: [['1'], 'all'] }],
  ['a view', contract.SavedViewRequest, { name: 'Bounced', filter: 'state=bounced' }, { name: ['', long(500)] }],
  ['columns of a table', contract.LookupRequest, { key: 'Site', value: 'Rate' }, { key: [long(301), 5], value: [null] }],
  ['the name of a picture', contract.PictureNameRequest, { name: 'ada' }, { name: ['', 5, long(501)] }],
  ['a query', contract.QueryRequest, { sql: 'SELECT 1', parameters: {} }, { sql: [long(20_001), 5] }],
  ['a test message', contract.TestMessageRequest, { index: 0, address: 'ada@example.org' }, { index: [-1, '0'], address: ['ada', ''] }],
  ['a trial', contract.TrialRequest, { indexes: [0, 3], mailed: false }, { indexes: [[], [-1], ['0'], [1, 1], Array.from({ length: 49 }, (_, at) => at)], mailed: ['no'] }],
  ['how long things are kept', contract.RetentionRequest, { sourceDays: 30, copyDays: 0, recordDays: 36_500 }, { sourceDays: [-1, 0.5], copyDays: [36_501], recordDays: [null] }],
  ['a code', contract.SenderCodeRequest, { code: '123456' }, { code: [5] }],
  ['what is doubted', contract.DoubtRequest, { batchIds: [1] }, { batchIds: ['all', ['1']] }],
  ['an invitation that is accepted', contract.AcceptInvitationRequest, { token: 'abc', password: 'plots-and-paths' }, { token: [long(101), 5], password: ['short', long(201)] }],
  ['a wish for mail', contract.MailWishRequest, { mailsBatches: true }, { mailsBatches: ['yes', null] }],
  ['a language', contract.LanguageRequest, { language: 'de' }, { language: ['tlh', null] }],
  ['another password', contract.PasswordRequest, { before: 'x', password: 'plots-and-paths' }, { before: [long(201)], password: ['too short'] }],
  ['who would run', contract.StartPreviewRequest, { reread: false, who: 'selection', rows: [2, 3] }, { reread: ['no'], who: ['some'], rows: [['2'], 2, [1.5]] }],
  ['the start of a batch', contract.BatchStartRequest, { who: 'everybody', digest: 'a'.repeat(64), version: 3, startKey: '0123456789abcdef', confirmation: 12 }, { who: ['all', null], digest: ['A'.repeat(64), 'a'.repeat(63)], version: [-1, 1.5], startKey: ['short', 'has space 0123456', long(65)], confirmation: ['12'] }],
  ['where bounces come in', contract.BouncesRequest, { address: 'bounces@larkmere.example', host: '', port: 993, tls: true, checkCertificate: true, user: '', folder: 'INBOX', smtpPort: 0, password: 'x' }, { address: ['a+b@example.org', 'nobody', 'a b@example.org'], port: [65_536, -1], smtpPort: [65_536], folder: [long(101)], tls: ['yes'] }],
  ['a word about a report', contract.ReportDecision, { isBounce: true }, { isBounce: ['true', 1] }],
  ['the office', contract.OfficeRequest, { returnLine: 'Larkmere Allotments, Reed Lane 1', country: 'DE', timeZone: 'Europe/Berlin' }, { returnLine: [long(121)], country: ['de', 'DEU', ''], timeZone: ['Larkmere/Town'] }],
  ['mends', contract.MendRequest, { code: 'stray-space', column: 'Name', row: 2 }, { code: [long(41)], column: [long(301)], row: ['2'] }],
  ['findings', contract.FindingsQuery, { code: 'overflows', severity: 'look', accepted: 'yes', text: 'Quist', sort: 'value', down: 'yes', from: '0', count: '100' }, { sort: ['name'], severity: ['bad'], from: ['-1', 'x'], count: ['0', '501'], text: [long(201)], down: ['no'] }],
  ['findings as a file', contract.FindingsFilterQuery, { code: 'overflows' }, { accepted: ['no'] }],
  ['looks that are accepted', contract.AcceptRequest, { looks: [{ row: 2, code: 'odd-shape', column: null, field: null }], reason: 'As it is.' }, { looks: [[], 'all', [{ row: '2', code: 'x' }], [{ row: 2 }]], reason: ['', long(501)] }],
  ['a connection', contract.ConnectionRequest, { name: 'Members', kind: 'postgres', host: 'db.example', port: 5432, databaseName: 'members', user: 'office', password: 'x', tls: true }, { name: [''], kind: ['oracle'], port: [-1, 65_536], tls: [1], fileId: [long(81)] }],
  ['a question to the ledger', contract.LedgerQuery, { state: 'sent', batch: '3', from: '2027-01-15', to: '2027-02-01', paper: 'yes', sort: 'newest', count: '50', text: 'Quist' }, { state: ['gone'], trouble: ['mine'], from: ['15.1.2027'], paper: ['no'], sort: ['name'], count: ['0', '201', 'x'], before: ['x'], text: [long(201)] }],
  ['who sits before a mailing', contract.HereRequest, { window: '0123-abcd', leaves: true }, { window: ['short', 'a b c d e f', long(65)], leaves: ['yes'] }],
  ['a plan that is saved', contract.MailingSaveRequest, { version: 0 }, { version: [-1, '0'] }],
  ['changes of a plan', contract.MailingChangesRequest, { changes: [] }, { changes: ['all', {}] }],
  ['a sample of the message', contract.MessageSampleRequest, { index: 0 }, { index: [-1, 0.5] }],
  ['reminding', contract.RemindRequest, { all: false }, { all: ['no', null] }],
  ['a print run', contract.PrintRunRequest, { mailing: 1, batch: null, ids: [1], reasons: ['bounced'], duplex: true, addressSheets: false, name: 'Friday' }, { reasons: [['lost'], 'bounced'], ids: [['1']], duplex: ['yes'], name: [long(81)] }],
  ['printing', contract.PrintRequest, { printerId: 1 }, { printerId: ['1', null] }],
  ['a register', contract.RegisterRequest, { name: 'Town', kind: 'postgres', host: 'db.example', port: 5432, databaseName: 'town', table: 'copies', user: '', tls: false, mailings: [], paused: false, password: 'x' }, { kind: ['excel'], table: ['1copies', 'copies; drop', '', long(64)], port: [-1, 65_536], mailings: [['1']], name: [''] }],
  ['backups', contract.BackupRequest, { isOn: true, everyHours: 24, keep: 7 }, { everyHours: [0, 745, 1.5], keep: [0, 1001], isOn: ['on'] }],
  ['how a file is read', contract.ReadingRequest, { sheet: 'Plots', headingRow: '2', encoding: 'windows-1252', delimiter: ';', layout: 'table' }, { sheet: [long(201)], headingRow: ['-1', '1001', 'x'], delimiter: [';;'], layout: ['list'] }],
  ['a source', contract.SourceRequest, { fileIds: ['upload-1'], name: 'Plots', reading: {} }, { name: ['', long(201)], fileIds: [[1], 'one'], reading: [{ layout: 'list' }] }],
  ['a source that is read again', contract.SourceRereadRequest, { fileIds: ['upload-1'], reading: {}, keyColumn: null }, { keyColumn: [long(301)], fileIds: [[2]] }],
  ['another revision for a mailing', contract.TakeOverRequest, { templateId: 1, revisionId: 2, pairs: [{ old: 'a', new: 'b' }] }, { templateId: ['1', 0.5], revisionId: [null], pairs: ['all', ['a'], [{ old: 1, new: 'b' }]], map: ['none'] }],
  ['a field that became another', contract.FieldPairRequest, { old: 'a', new: 'b' }, { old: [1, long(2001)], new: [null] }],
  ['a new intake', contract.IntakeCreateRequest, { name: 'Ask for a plot', templates: [1, 2] }, { name: ['', long(201)], templates: [[1, 1], ['1'], 'all'], before: [{ mailingId: 'x', site: '' }] }],
  ['a code for copies by mail', contract.PublicMailCodeRequest, { email: 'ada@example.org', language: 'de' }, { email: [long(321), 5], language: ['German', ''] }],
  ['copies by mail', contract.PublicMailRequest, { code: '123 456', to: 'ada@example.org', language: 'en-GB' }, { code: [long(21), 5], to: [long(321), 5], language: ['x'] }],
  ['a trial of an intake', contract.IntakeTrialRequest, { answers: { q1: 'B-17', q2: ['A', 'B'] }, mailed: false }, { answers: ['x', 5], mailed: ['no', 1] }],
  ['a box on a form of an intake', contract.IntakeBoxRequest, { question: null, template: 3, page: 1, box: { left: 10, top: 20, right: 180, bottom: 60 }, everyPage: false, dated: true }, { question: [5], template: ['3'], page: [0, 1.5], box: ['all', { left: 'x' }], everyPage: [1], dated: [null] }],
  ['the word of an intake', contract.IntakeWordRequest, { word: 'ask-for-a-plot' }, { word: [long(81), 5] }],
  ['changes of an intake', contract.IntakeChangesRequest, { changes: [] }, { changes: ['all', {}] }],
  ['answers so far', contract.PublicAnswersRequest, { edition: 3, answers: { q1: 'Ada' } }, { edition: ['3', 1.5], answers: ['all', null] }],
  ['what is gone on with later', contract.PublicKeepRequest, { edition: 3, answers: {}, key: '0123456789abcdef', step: 2, language: 'de', email: 'ada@example.org' }, { step: [-1, '2'], email: [long(321), 5], key: ['short'] }],
  ['a link to go on', contract.PublicSavedVisitRequest, { token: 'a'.repeat(43) }, { token: ['short', '../../../../etc/passwd', 5] }],
  ['a submission', contract.PublicSubmitRequest, { edition: 3, answers: {}, key: '0123456789abcdef', language: 'de' }, { key: ['short', 'has space 0123456', long(65)], language: ['german', 'DE', ''], website: [long(301), 5] }],
  ['a personal link', contract.PublicPersonalRequest, { token: '4KQ8-ZT0V-7QX.' + 'a'.repeat(22) }, { token: ['short', '4KQ8-ZT0V-7QX', 5], check: [long(301), 5] }],
  ['changes that are looked at', contract.SettleRequest, { accepted: ['E-mail'] }, { accepted: ['E-mail', [5]] }],
  ['a column in the place of another', contract.RelinkRequest, { from: 'Mail', to: 'E-mail' }, { from: [long(301), 5], to: [null] }],
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

test('no request is without an example here', () => {
  const there = Object.entries(contract).filter(([name, kind]) => /(Request|Query)$/.test(name) && typeof kind === 'function');
  const tried = new Set(requests.map(([, kind]) => kind));
  // Their parts stand in others that are tried.
  const parts = ['SourceQueryRequest', 'LedgerFilterQuery', 'LookRequest'];
  expect(there.map(([name]) => name).filter((name) => !parts.includes(name) && !tried.has(contract[name as never]))).toEqual([]);
});
