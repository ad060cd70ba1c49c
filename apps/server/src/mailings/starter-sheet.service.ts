import type { TemplateDetail } from '@mailbag/contract';
import { fieldLabel } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { answerSheet } from '../files/answer-column.js';
import type { Download } from '../files/download.js';
import { XLSX_TYPE } from '../files/download.js';
import { fieldColumn, isTyped } from '../templates/field-columns.js';

/** An empty sheet with a column for every answer of a packet: drop-downs for choices, required columns marked. */
@Injectable()
export class StarterSheets {
  async forPacket(name: string, templates: readonly TemplateDetail[]): Promise<Download> {
    const seen = new Set<string>();
    const columns = templates.flatMap((template) =>
      template.fieldList.filter(isTyped).flatMap((field) => {
        const label = fieldLabel(field);
        // What several forms ask is answered once.
        if (seen.has(label.toLowerCase())) return [];
        seen.add(label.toLowerCase());
        return [fieldColumn(field, label, `${template.name}: ${field.name}`)];
      }),
    );
    return { name: `Starter sheet ${name}.xlsx`, type: XLSX_TYPE, bytes: await answerSheet(columns) };
  }
}
