import ExcelJS from 'exceljs';
import type { Tenancy } from './tenancies.js';

const columns: [heading: string, width: number, format: string | null, value: (one: Tenancy) => string | number | Date][] = [
  ['Plot', 8, null, (one) => one.plot],
  ['Site', 16, null, (one) => one.site],
  ['Area m²', 9, '0', (one) => one.area],
  ['First name', 16, null, (one) => one.firstName],
  ['Surname', 20, null, (one) => one.surname],
  ['E-mail', 30, null, (one) => one.email],
  ['Telephone', 16, null, (one) => one.phone],
  ['Street', 22, null, (one) => one.street],
  ['Postal code', 12, null, (one) => one.postalCode],
  ['Town', 18, null, (one) => one.town],
  ['Born', 12, 'dd.mm.yyyy', (one) => one.born],
  ['Concession', 18, null, (one) => one.concession],
  ['Yearly rent', 12, '#,##0.00 "€"', (one) => one.rent],
  ['Water charge', 12, '#,##0.00 "€"', (one) => one.water],
  ['To pay', 12, '#,##0.00 "€"', (one) => one.total],
  ['Key deposit', 12, '#,##0.00 "€"', (one) => one.deposit],
  ['Water supply', 12, null, (one) => one.waterSupply],
  ['Greenhouse', 12, null, (one) => one.greenhouse],
  ['Shed', 8, null, (one) => one.shed],
  ['Start', 12, 'dd.mm.yyyy', (one) => one.start],
  ['Until', 12, 'dd.mm.yyyy', (one) => one.until],
  ['IBAN', 26, null, (one) => one.iban],
  ['Collection day', 18, null, (one) => one.collectionDay],
  ['Payment', 14, null, (one) => one.payment],
  ['Remarks', 40, null, (one) => one.remarks],
];

/** A workbook as an office has it: a title above the headings, formats on the cells, a second sheet with notes. */
export async function tenancyWorkbook(rows: readonly Tenancy[]): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  book.created = book.modified = new Date(Date.UTC(2026, 10, 2));
  const sheet = book.addWorksheet('2027');
  sheet.getCell('A1').value = 'Tenancies 2027, Larkmere Allotment Office';
  sheet.getCell('A1').font = { bold: true, size: 14 };
  columns.forEach(([heading, width], index) => {
    sheet.getColumn(index + 1).width = width;
    const cell = sheet.getCell(3, index + 1);
    cell.value = heading;
    cell.font = { bold: true };
  });
  rows.forEach((one, at) => {
    columns.forEach(([, , format, value], index) => {
      const cell = sheet.getCell(at + 4, index + 1);
      cell.value = value(one);
      if (format && typeof cell.value !== 'string') cell.numFmt = format;
    });
  });
  const notes = book.addWorksheet('Notes');
  notes.getCell('A1').value = 'Rent is 0.82 € a square metre, less a concession, plus water.';
  return new Uint8Array(await book.xlsx.writeBuffer());
}

/** A short list as CSV, with semicolons as some offices write it. */
export function permitList(rows: readonly Tenancy[]): Uint8Array {
  const lines = [
    [
      'Plot',
      'Site',
      'Tenant',
      'E-mail',
      'Street',
      'Postal code',
      'Town',
      'Wants',
      'Shed',
      'Greenhouse',
      'Roof',
      'Valid until',
      'Conditions',
    ],
  ];
  const roofs = ['Felt', 'Green roof', 'Corrugated sheet'];
  rows.forEach((one, index) => {
    lines.push([
      one.plot,
      one.site.trim(),
      `${one.firstName} ${one.surname}`,
      // One mailbox is gone since, and one recipient is away; both are told some time after sending.
      index === 5 ? `gone.${one.email}` : index === 11 ? `away.${one.email}` : one.email,
      one.street,
      String(one.postalCode),
      one.town,
      index % 9 === 3 ? 'paper' : 'mail',
      'yes',
      index % 3 === 0 ? 'yes' : 'no',
      roofs[index % 3]!,
      '31.12.2036',
      index % 4 === 0 ? 'Rain is collected in a butt; the door opens to the path.' : '',
    ]);
  });
  const cell = (text: string): string => (/[;"\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text);
  return new TextEncoder().encode(`${lines.map((line) => line.map(cell).join(';')).join('\r\n')}\r\n`);
}
