import 'reflect-metadata';
import { MOST_PICTURES } from '@mailbag/core';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import * as contract from './index.js';

const classes = Object.entries(contract).filter(
  (entry): entry is [string, new () => object] => typeof entry[1] === 'function' && /^[A-Z]/.test(entry[0]),
);
const faults = (kind: new () => object, value: object): string[] =>
  validateSync(plainToInstance(kind, value), { whitelist: true, forbidNonWhitelisted: true }).map(({ property }) => property);

test('a description of the whole interface can be made from its classes (JSON Schema)', () => {
  const schemas = validationMetadatasToSchemas({
    classTransformerMetadataStorage: defaultMetadataStorage as never,
    additionalConverters: { isDetail: { oneOf: [{ type: 'string' }, { type: 'object' }] } },
  });
  expect(classes.length).toBeGreaterThan(90);
  expect(classes.map(([name]) => name).filter((name) => !(name in schemas))).toEqual([]);
  expect(schemas['CopyDetail']!.properties).toMatchObject({
    state: { enum: expect.arrayContaining(['sent', 'bounced']) },
    events: { type: 'array', items: { $ref: '#/definitions/CopyEventLine' } },
  });
  expect(schemas['MailServerRequest']!.properties).toMatchObject({
    port: { type: 'integer', minimum: 1, maximum: 65535 },
    password: { type: 'string', maxLength: 500 },
  });
  // An answer never has the password that a request may bring.
  expect(Object.keys(schemas['MailServerAnswer']!.properties!)).not.toContain('password');
  for (const name of ['RegisterAnswer', 'BouncesAnswer', 'ConnectionAnswer', 'AccountAnswer'])
    expect(Object.keys(schemas[name]!.properties!)).not.toContain('password');
});

const need = { kind: 'bounced', count: 2, name: 'Permits', id: 1, number: null, detail: '550' };
const line = { at: '2027-01-01', who: 'Marit', event: 'send', state: 'sent', detail: null };
test.each<[string, new () => object, object, string[]]>([
  ['a need', contract.Need, need, []],
  ['a need by remark', contract.Need, { ...need, detail: { code: 'due-again', fields: {} } }, []],
  ['a need of no kind', contract.Need, { ...need, kind: 'hunger' }, ['kind']],
  ['a remark that nobody knows', contract.Need, { ...need, detail: { code: 'of-tomorrow', fields: {} } }, ['detail']],
  ['a need without what may be null', contract.Need, { kind: 'bounced', count: 2, name: null, id: 1, detail: null }, ['number']],
  ['more than is told', contract.Need, { ...need, to: '/ledger' }, ['to']],
  ['a line of a copy’s story', contract.CopyEventLine, line, []],
  ['a line in no state', contract.CopyEventLine, { ...line, state: 'lost' }, ['state']],
  ['what a change came to', contract.ChangedAnswer, { changed: 3, step: 'a' }, []],
  ['what can be left out', contract.ChangedAnswer, { changed: 3 }, []],
  ['a text in place of a number', contract.ChangedAnswer, { changed: '3' }, ['changed']],
  ['a file that was kept', contract.StoredFileAnswer, { fileId: 'upload', fileName: 'a.csv' }, []],
])('%s is told from what it is not', (_, kind, value, wrong) => expect(faults(kind, value)).toEqual(wrong));

const stamp = { symbology: 'qr', pages: 'first', corner: 'top-right', fromSide: 8, fromEnd: 8, width: 22, inPrint: true };
const file = { fileId: 'a'.repeat(64), name: 'office.png', size: 10 };
test.each<[string, new () => object, object, string[]]>([
  ['a stamp', contract.StampPlan, stamp, []],
  ['a stamp too small to be read', contract.StampPlan, { ...stamp, width: 2 }, ['width']],
  ['a stamp nowhere', contract.StampPlan, { ...stamp, corner: 'middle' }, ['corner']],
  ['a picture', contract.PicturePlan, { template: 1, field: 'sign', file }, []],
  [
    'a picture by another name than its digest',
    contract.PicturePlan,
    { template: 1, field: 'sign', file: { ...file, fileId: '../key' } },
    ['file'],
  ],
  ['an output', contract.OutputPlan, { folder: '', file: 'x', stamp, pictures: [{ template: 1, field: 'sign', file }] }, []],
  ['an output with a wrong stamp', contract.OutputPlan, { folder: '', file: 'x', stamp: { ...stamp, pages: 'some' } }, ['stamp']],
  [
    'one picture too many',
    contract.OutputPlan,
    { folder: '', file: 'x', pictures: Array.from({ length: MOST_PICTURES + 1 }, () => ({ template: 1, field: 's', file })) },
    ['pictures'],
  ],
  ['a source of files', contract.SourceRequest, { fileIds: ['a'], name: 'x', reading: {} }, []],
  ['a source without a name', contract.SourceRequest, { fileIds: ['a'], name: '', reading: {} }, ['name']],
  [
    'a register',
    contract.RegisterRequest,
    { name: 'r', kind: 'folder', host: '', port: 0, databaseName: '', table: 'copies', user: '', tls: false, mailings: [] },
    [],
  ],
  [
    'a register whose table climbs',
    contract.RegisterRequest,
    { name: 'r', kind: 'folder', host: '', port: 0, databaseName: '', table: '../up', user: '', tls: false, mailings: [] },
    ['table'],
  ],
])('%s is taken or refused', (_, kind, value, wrong) => expect(faults(kind, value)).toEqual(wrong));
