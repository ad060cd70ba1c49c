import type { ImportReport } from '@mailbag/contract';
import { columnKindName, findingTitle, sourceNoteSentence } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { CorrectionsService } from './corrections.service.js';
import { FindingLists } from '../mailings/finding-lists.service.js';
import { MailingChecks } from '../mailings/mailing-checks.service.js';
import { MailingsService } from '../mailings/mailings.service.js';
import type { Download } from '../files/download.js';
import { XLSX_TYPE } from '../files/download.js';
import { SourcesService } from '../sources/sources.service.js';

/** What came in of a source, what was skipped, and what the checks of each mailing say of it. */
@Injectable()
export class ImportReports {
  constructor(
    private readonly sources: SourcesService,
    private readonly corrections: CorrectionsService,
    private readonly mailings: MailingsService,
    private readonly checks: MailingChecks,
    private readonly findings: FindingLists,
  ) {}

  /** @throws MailbagError not-found */
  async of(id: number): Promise<ImportReport> {
    const source = await this.sources.detail(id);
    const using = (await this.mailings.list()).filter(({ sourceId }) => sourceId === id);
    return {
      source: source.name,
      readAt: source.readAt,
      count: source.count,
      columns: source.columns,
      notes: source.notes.map(sourceNoteSentence),
      changes: source.changes,
      corrections: await this.corrections.list(id),
      mailings: await Promise.all(
        using.map(async ({ id: mailingId, name }) => {
          const { records, stopped, looked, leftOut, groups } = await this.checks.checks(mailingId);
          const findings = groups
            .filter((group) => group.findings > 0)
            .map((group) => ({ title: findingTitle(group.code), severity: group.severity, records: group.records }));
          return { id: mailingId, name, clean: records - stopped - looked - leftOut, stopped, looked, leftOut, findings };
        }),
      ),
    };
  }

  /** The report as a sheet, with every finding in a row of its own. */
  async workbook(id: number): Promise<Download> {
    const report = await this.of(id);
    const { default: ExcelJS } = await import('exceljs');
    const book = new ExcelJS.Workbook();
    const sheet = (name: string, widths: number[], rows: (string | number)[][]): void => {
      const one = book.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 1 }] });
      one.addRows(rows);
      one.getRow(1).font = { bold: true };
      widths.forEach((width, index) => (one.getColumn(index + 1).width = width));
    };
    sheet(
      'Import',
      [26, 90],
      [
        ['What', 'How much'],
        ['Source', report.source],
        ['Read', report.readAt ?? 'not yet'],
        ['Records that came in', report.count],
        ...report.notes.map((note) => ['To know', note]),
        ...(report.changes
          ? [
              ['New records', report.changes.added],
              ['Records that are gone', report.changes.gone],
              ['Records with other values', report.changes.changed],
            ]
          : []),
      ],
    );
    sheet(
      'Columns',
      [26, 14, 10, 12, 60],
      [
        ['Column', 'Kind', 'Empty', 'Different', 'Examples'],
        ...report.columns.map(({ name, kind, empty, distinct, examples }) => [
          name,
          columnKindName(kind),
          empty,
          distinct,
          examples.join(', '),
        ]),
      ],
    );
    const rows: (string | number)[][] = [['Mailing', 'Row', 'Column', 'Value', 'Severity', 'What', 'Proposed']];
    for (const { id: mailingId, name } of report.mailings)
      for (const { finding } of (await this.findings.page(mailingId, {}, 0, 100_000)).items)
        rows.push([
          name,
          finding.row,
          finding.column ?? '',
          finding.value,
          finding.severity,
          findingTitle(finding.code),
          finding.mend ?? '',
        ]);
    sheet('Findings', [26, 8, 20, 30, 10, 34, 30], rows);
    sheet(
      'Corrections',
      [14, 20, 30, 30, 12, 20, 24],
      [
        ['Record', 'Column', 'As the source has it', 'Corrected', 'State', 'Who', 'When'],
        ...report.corrections.map(({ recordKey, column, was, value, state, who, at }) => [recordKey, column, was, value, state, who, at]),
      ],
    );
    return { name: `Import report ${report.source}.xlsx`, type: XLSX_TYPE, bytes: new Uint8Array(await book.xlsx.writeBuffer()) };
  }
}
