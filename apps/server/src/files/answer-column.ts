import type { Worksheet } from 'exceljs';

/** A column of an empty sheet that is to be filled in. */
export interface AnswerColumn {
  heading: string;
  /** Shown when the heading is pointed at. */
  note: string;
  isRequired: boolean;
  /** What may be chosen; null: anything may be typed. */
  choices: readonly string[] | null;
}

/** Rows that are made ready for typing. */
const ROWS = 500;
/** A list in a cell may be this long (ECMA-376 viewers); longer ones stand on a sheet of their own. */
const LONGEST_LIST = 250;
const REQUIRED = 'FFF4E9EF';

/** Makes a column ready: a drop-down for choices, text where anything may be typed. @param lists the sheet that holds long lists of choices @param column 1-based */
export function addAnswerColumn(
  sheet: Worksheet,
  lists: Worksheet,
  column: number,
  { heading, note, isRequired, choices }: AnswerColumn,
): void {
  const head = sheet.getCell(1, column);
  head.value = heading;
  head.font = { bold: true };
  head.note = note;
  sheet.getColumn(column).width = Math.min(40, Math.max(12, heading.length + 2));
  if (isRequired) {
    head.fill = { type: 'pattern', pattern: 'solid', fgColor: { argb: REQUIRED } };
    head.border = { bottom: { style: 'medium' } };
  }
  if (!choices || choices.length === 0) {
    // Text, so that leading zeros stay.
    sheet.getColumn(column).numFmt = '@';
    return;
  }
  const inline = choices.join(',');
  const isShort = inline.length <= LONGEST_LIST && choices.every((choice) => !/[",]/.test(choice));
  const letter = lists.getColumn(column).letter;
  if (!isShort) choices.forEach((choice, index) => (lists.getCell(index + 1, column).value = choice));
  const formula = isShort ? `"${inline}"` : `Choices!$${letter}$1:$${letter}$${choices.length}`;
  for (let row = 2; row <= ROWS + 1; row++)
    sheet.getCell(row, column).dataValidation = {
      type: 'list',
      allowBlank: !isRequired,
      formulae: [formula],
      showErrorMessage: true,
      errorTitle: heading,
      error: `Choose one of the list.`,
    };
}

/** An empty workbook of such columns. */
export async function answerSheet(columns: readonly AnswerColumn[]): Promise<Uint8Array> {
  // Only who asks for a sheet needs it, and it takes a quarter of a second to load.
  const { default: ExcelJS } = await import('exceljs');
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Records', { views: [{ state: 'frozen', ySplit: 1 }] });
  const lists = book.addWorksheet('Choices', { state: 'hidden' });
  columns.forEach((column, index) => addAnswerColumn(sheet, lists, index + 1, column));
  return new Uint8Array(await book.xlsx.writeBuffer());
}
