import type { TemplateDetail } from '@mailbag/contract';
import type { Field } from '@mailbag/core';
import { fieldLabel, isFillable, isRequired } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import type { Worksheet } from 'exceljs';
import type { Download } from '../files/download.js';
import { XLSX_TYPE } from '../files/download.js';

/** Rows that are made ready for typing. */
const ROWS = 500;
/** A list in a cell may be this long (ECMA-376 viewers); longer ones stand on a sheet of their own. */
const LONGEST_LIST = 250;
const REQUIRED = 'FFF4E9EF';

/** What may be chosen for a field; null: anything may be typed. */
const choicesOf = (field: Field): string[] | null => {
  if (field.kind === 'checkbox') return ['yes', 'no'];
  if (field.kind === 'radio') return field.options.length > 0 ? field.options.map(({ label }) => label) : field.onValues;
  if (field.kind === 'combo' || field.kind === 'list') return field.options.map(({ label }) => label);
  return null;
};

/** An empty sheet with a column for every answer of a packet: drop-downs for choices, required columns marked. */
@Injectable()
export class StarterSheets {
  async forPacket(name: string, templates: readonly TemplateDetail[]): Promise<Download> {
    const { default: ExcelJS } = await import('exceljs');
    const book = new ExcelJS.Workbook();
    const sheet = book.addWorksheet('Records', { views: [{ state: 'frozen', ySplit: 1 }] });
    const lists = book.addWorksheet('Choices', { state: 'hidden' });
    let column = 0;
    const seen = new Set<string>();
    for (const template of templates) {
      for (const field of template.fieldList) {
        if (!isFillable(field) || field.kind === 'signature') continue;
        const label = fieldLabel(field);
        // What several forms ask is answered once.
        if (seen.has(label.toLowerCase())) continue;
        seen.add(label.toLowerCase());
        this.column(sheet, lists, ++column, label, field, template.name);
      }
    }
    return { name: `Starter sheet ${name}.xlsx`, type: XLSX_TYPE, bytes: new Uint8Array(await book.xlsx.writeBuffer()) };
  }

  private column(sheet: Worksheet, lists: Worksheet, column: number, label: string, field: Field, template: string): void {
    const required = isRequired(field);
    const head = sheet.getCell(1, column);
    head.value = label;
    head.font = { bold: true };
    const limit = field.maxLength === null ? '' : ` At most ${field.maxLength} characters.`;
    head.note = `${template}: ${field.name}${required ? '. Must be filled.' : '.'}${limit}`;
    sheet.getColumn(column).width = Math.min(40, Math.max(12, label.length + 2));
    if (required) {
      head.fill = { type: 'pattern', pattern: 'solid', fgColor: { argb: REQUIRED } };
      head.border = { bottom: { style: 'medium' } };
    }
    const choices = choicesOf(field);
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
        allowBlank: !required,
        formulae: [formula],
        showErrorMessage: true,
        errorTitle: label,
        error: `Choose one of the list.`,
      };
  }
}
