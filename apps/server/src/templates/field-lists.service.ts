import type { Field } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, csvLine, fieldLabel, safeName, writeFdf, writeXfdf, writeXml } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { answerSheet } from '../files/answer-column.js';
import type { Download } from '../files/download.js';
import { XLSX_TYPE } from '../files/download.js';
import { templateFile } from '../files/template-file.js';
import { Pool } from '../work/pool.js';
import { fieldColumn, isTyped } from './field-columns.js';
import { TemplatesService } from './templates.service.js';

/** What a field holds in the template, as form data says it. */
const valueOf = ({ value }: Field): string | string[] => value ?? '';

/** The fields of a template to be taken elsewhere: each of the formats can be filled in and brought back as records. */
@Injectable()
export class FieldLists {
  constructor(
    private readonly templates: TemplatesService,
    private readonly pool: Pool,
  ) {}

  /** @param revisionId left out: the latest @throws MailbagError not-found, pdf-* */
  async of(id: number, format: string, revisionId?: number): Promise<Download> {
    const { name, fileName, hash, fieldList, pageSizes } = await this.templates.detail(id, revisionId);
    const base = `${safeName(name)} fields`;
    const fields = fieldList.filter(isTyped);
    const values = new Map(fields.map((field) => [field.name, valueOf(field)]));
    const text = (content: string): Uint8Array => new TextEncoder().encode(content);
    switch (format) {
      case 'csv':
        // RFC 4180 with a byte order mark, by which spreadsheets know UTF-8.
        return { name: `${base}.csv`, type: 'text/csv; charset=utf-8', bytes: text(`\ufeff${csvLine(fields.map((field) => field.name))}`) };
      case 'xlsx':
        return {
          name: `${base}.xlsx`,
          type: XLSX_TYPE,
          bytes: await answerSheet(fields.map((field) => fieldColumn(field, field.name, fieldLabel(field)))),
        };
      case 'xfdf':
        return { name: `${base}.xfdf`, type: 'application/vnd.adobe.xfdf', bytes: writeXfdf(values, fileName) };
      case 'fdf':
        return { name: `${base}.fdf`, type: 'application/vnd.fdf', bytes: writeFdf(values, fileName) };
      case 'xml':
        return { name: `${base}.xml`, type: 'application/xml', bytes: writeXml(values) };
      case 'json':
        return {
          name: `${base}.json`,
          type: 'application/json',
          bytes: text(`${JSON.stringify([Object.fromEntries(values)], null, 2)}\n`),
        };
      case 'pdf':
        return {
          name: `${safeName(name)} marked.pdf`,
          type: 'application/pdf',
          bytes: await this.pool.run('markedPdf', { key: templateFile(hash), file: fileName, pages: pageSizes, fields: fieldList }),
        };
      default:
        throw new MailbagError('not-found', { what: t`format ${format}` });
    }
  }
}
