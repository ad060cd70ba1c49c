import { plural, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { SourceFileAnswer, SourceSummary } from '@mailbag/contract';
import type { TableReading } from '@mailbag/core';
import { columnLetters, headingNames } from '@mailbag/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Database, FileSpreadsheet } from 'lucide-react';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { DropFiles } from '../../ui/drop';
import { TextInput } from '../../ui/field';
import { Card, PartsBar, Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { AddDatabase } from './add-database';

const Excerpt = styled.table`
  border-collapse: collapse;
  font-size: 13px;
  & td {
    border: 1px solid ${color.hair};
    padding: 2px 8px;
    max-width: 200px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & td:first-child {
    padding: 0;
    position: sticky;
    left: 0;
    background: ${color.paper};
  }
  & td > button {
    border: 0;
    background: none;
    width: 100%;
    padding: 2px 8px;
    color: ${color.faded};
    cursor: pointer;
  }
  & tr[data-headings] td {
    background: ${color.kraft};
    font-weight: 600;
  }
  & tr[data-above] td {
    color: ${color.faded};
  }
`;

const delimiters: Record<string, string> = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' };
const encodings = [
  'utf-8',
  'windows-1252',
  'windows-1250',
  'windows-1251',
  'windows-1253',
  'windows-1254',
  'iso-8859-2',
  'windows-1257',
  'koi8-r',
  'macintosh',
  'ibm850',
  'ibm852',
  'utf-16le',
  'utf-16be',
  'shift_jis',
  'euc-jp',
  'gb18030',
  'big5',
  'euc-kr',
];

const columnRoleItems = [
  { id: 'l', text: t`Labels` },
  { id: 'n', text: t`Technical names` },
  { id: 'v', text: t`Values` },
  { id: '-', text: t`None of these` },
];
const replaced = (roles: string, index: number, role: string): string => `${roles.slice(0, index)}${role}${roles.slice(index + 1)}`;

const accepted = ['.xlsx', '.xls', '.xlsb', '.ods', '.csv', '.tsv', '.txt', '.xfdf', '.fdf', '.xml', '.json', '.pdf'];

/** Where records come from: files, or a database. */
export function AddSource({ onAdded }: { onAdded: (id: number) => void }) {
  const [from, setFrom] = useState<'file' | 'database'>('file');
  return (
    <Stack>
      <Row role="group" aria-label={t`Where the records come from`}>
        <Button small pressed={from === 'file'} onPress={() => setFrom('file')}>
          <FileSpreadsheet size={14} />
          {t`Files`}
        </Button>
        <Button
          small
          pressed={from === 'database'}
          onPress={() => setFrom('database')}
        >{phrase`${(<Database size={14} />)}A database`}</Button>
      </Row>
      {from === 'file' ? <AddFiles onAdded={onAdded} /> : <AddDatabase onAdded={onAdded} />}
    </Stack>
  );
}

/** Takes files, shows the first rows, and lets a person say how they are read before they are accepted. */
function AddFiles({ onAdded }: { onAdded: (id: number) => void }) {
  const client = useQueryClient();
  const [share, setShare] = useState(0);
  const [files, setFiles] = useState<SourceFileAnswer[]>([]);
  const [refused, setRefused] = useState<readonly string[]>([]);
  const file = files[0] ?? null;
  const [name, setName] = useState('');
  const [onePer, setOnePer] = useState<string | null>(null);
  const take = useMutation({
    mutationFn: async (chosen: readonly File[]) => {
      const answers: SourceFileAnswer[] = [];
      const refused: string[] = [];
      for (const [index, one] of chosen.entries()) {
        try {
          const progress = (share: number): void => setShare((index + share) / chosen.length);
          answers.push(await api.upload<SourceFileAnswer>('/api/sources/files', one, progress));
        } catch (error) {
          // One bad file among many is told; the others go on.
          if (chosen.length === 1) throw error;
          refused.push(sentenceOf(error));
        }
      }
      setRefused(refused);
      return answers;
    },
    onSuccess: (answers) => {
      setFiles(answers);
      setName(answers.length === 1 ? answers[0]!.fileName : t`${answers.length} files`);
    },
  });
  const headings = useMemo(() => headingsOf(file), [file]);
  /** The column whose rows become one record; null: each row is one. */
  const perKey = onePer !== null && headings.includes(onePer) ? onePer : null;
  const look = useMutation({
    mutationFn: (reading: TableReading) => {
      const query = new URLSearchParams(
        Object.entries(reading).flatMap(([key, value]) => (value === undefined || value === null ? [] : [[key, String(value)]])),
      );
      return api.getSlowly<SourceFileAnswer>(`/api/sources/files/${file!.fileId}/excerpt?${query}`);
    },
    onSuccess: (answer: SourceFileAnswer) => setFiles([answer, ...files.slice(1)]),
  });
  const add = useMutation({
    mutationFn: () =>
      api.post<SourceSummary>('/api/sources', {
        fileIds: files.map(({ fileId }) => fileId),
        name,
        reading: { ...readingOf(file!), ...(perKey !== null && { onePer: perKey }) },
      }),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: ['sources'] });
      setFiles([]);
      onAdded(id);
    },
  });

  if (!file) {
    return (
      <Stack>
        <DropFiles
          accept={accepted}
          label={t`Choose a sheet`}
          several
          onFiles={(chosen) => take.mutate(chosen)}
        >{t`Drop a workbook, a CSV file or form data here (XFDF, FDF, XML, JSON). Several filled PDFs or form files become one source.`}</DropFiles>
        {take.isPending && (
          <Notice tone="plain">
            {share < 1 ? t`Uploading, ${Math.round(share * 100)} %` : t`Its first rows are being read …`}
            <PartsBar label={t`Upload`} total={1} parts={[{ share, color: color.plum, name: 'sent' }]} />
          </Notice>
        )}
        {take.error && <Notice tone="brick">{sentenceOf(take.error)}</Notice>}
        {refused.length > 0 && (
          <Notice tone="ochre">{t`${plural(refused.length, 'file')} skipped: ${refused.slice(0, 5).join(' ')}`}</Notice>
        )}
      </Stack>
    );
  }
  const { excerpt } = file;
  const reading = readingOf(file);
  const error = look.error ?? add.error;
  return (
    <Card style={{ padding: 16, gap: 12 }}>
      <Row $gap={12} style={{ alignItems: 'flex-end', flexWrap: 'wrap' }}>
        <div style={{ width: 240 }}>
          <TextInput label={t`Name of the source`} value={name} onChange={setName} />
        </div>
        {excerpt.sheets.length > 0 && (
          <Choice
            label={t`Sheet`}
            items={excerpt.sheets.map((sheet) => ({
              id: sheet.name,
              text: sheet.name,
              ...(sheet.hidden ? { detail: t`hidden in the workbook` } : {}),
            }))}
            value={excerpt.sheet}
            onChange={(sheet) => look.mutate({ sheet })}
          />
        )}
        {excerpt.sheets.length > 0 && (
          <Choice
            label={t`Laid out as`}
            items={[
              { id: 'table', text: t`A table`, detail: t`headings across, one record per row` },
              { id: 'pairs', text: t`Labels and values`, detail: t`down the page, one record per sheet` },
            ]}
            value={excerpt.layout}
            onChange={(layout) =>
              look.mutate({ ...(excerpt.sheet === null ? {} : { sheet: excerpt.sheet }), layout: layout as 'table' | 'pairs' })
            }
          />
        )}
        {excerpt.encoding && (
          <>
            <Choice
              label={t`Encoding`}
              items={[...new Set([excerpt.encoding, ...encodings])].map((id) => ({ id, text: id }))}
              value={excerpt.encoding}
              onChange={(encoding) => look.mutate({ ...reading, encoding })}
            />
            <Choice
              label={t`Columns divided by`}
              items={Object.entries(delimiters).map(([id, text]) => ({ id, text }))}
              value={excerpt.delimiter}
              onChange={(delimiter) => look.mutate({ ...reading, delimiter })}
            />
          </>
        )}
        {headings.length > 0 && (
          <Choice
            label={t`One record for`}
            items={[
              { id: '', text: t`Each row` },
              ...headings.map((text) => ({
                id: `=${text}`,
                text: t`All rows with the same ${text}`,
                detail: t`what differs stands in numbered columns`,
              })),
            ]}
            value={perKey === null ? '' : `=${perKey}`}
            onChange={(id) => setOnePer(id === '' ? null : String(id).slice(1))}
          />
        )}
        <div style={{ flex: 1 }} />
        <Button onPress={() => setFiles([])}>{t`Choose another file`}</Button>
        <Button changes look="go" isDisabled={add.isPending || !name.trim()} onPress={() => add.mutate()}>{t`Read the records`}</Button>
      </Row>
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
      {refused.length > 0 && <Notice tone="ochre">{t`${plural(refused.length, 'file')} skipped: ${refused.slice(0, 5).join(' ')}`}</Notice>}
      <Small>
        {files.length > 1
          ? t`${files.length} files become one source, with one record or more each. The first one is shown.`
          : excerpt.layout === 'pairs'
            ? t`Say above each column what it holds: names stand for the labels where there are any, in the order of their values. Every sheet becomes a record.`
            : excerpt.headingRow === 0
              ? t`The names of the values are the columns.`
              : t`The headings stand in row ${excerpt.headingRow}. If not, choose the number of the row that names the columns.`}
        {perKey !== null && t` Columns in which the rows of one ${perKey} differ stand once for each of them, numbered.`}
      </Small>
      <div style={{ overflow: 'auto', maxHeight: 320 }}>
        <Excerpt aria-label={t`First rows`}>
          {excerpt.roles !== null && (
            <thead>
              <tr>
                <td />
                {[...excerpt.roles].map((role, index) => (
                  <td key={index}>
                    <Choice
                      small
                      hideLabel
                      label={t`Column ${columnLetters(index)} holds`}
                      items={columnRoleItems}
                      value={role}
                      onChange={(chosen) => look.mutate({ ...reading, roles: replaced(excerpt.roles!, index, String(chosen)) })}
                    />
                  </td>
                ))}
              </tr>
            </thead>
          )}
          <tbody>
            {excerpt.rows.map((row) => (
              <tr
                key={row.row}
                data-headings={row.row === excerpt.headingRow || undefined}
                data-above={row.row < excerpt.headingRow || undefined}
              >
                <td>
                  <button
                    aria-label={t`Headings in row ${row.row}`}
                    aria-pressed={row.row === excerpt.headingRow}
                    onClick={() => look.mutate({ ...reading, headingRow: row.row })}
                  >
                    {row.row}
                  </button>
                </td>
                {row.cells.slice(0, 40).map((cell, index) => (
                  <td key={index}>{cell}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </Excerpt>
      </div>
    </Card>
  );
}

/** The columns of a table, as they will be called; none: its records are not rows. */
function headingsOf(file: SourceFileAnswer | null): string[] {
  if (!file || file.excerpt.layout !== 'table' || file.excerpt.headingRow === 0) return [];
  const { rows, headingRow } = file.excerpt;
  const cells = rows.find(({ row }) => row === headingRow)?.cells ?? [];
  const { names } = headingNames(cells);
  return names.filter((_, index) => cells[index]!.trim() !== '');
}

const readingOf = ({ excerpt }: SourceFileAnswer): TableReading => ({
  ...(excerpt.headingRow === 0 ? {} : { headingRow: excerpt.headingRow }),
  ...(excerpt.sheets.length === 0 ? {} : { layout: excerpt.layout }),
  ...(excerpt.roles === null ? {} : { roles: excerpt.roles }),
  ...(excerpt.sheet === null ? {} : { sheet: excerpt.sheet }),
  ...(excerpt.encoding === null ? {} : { encoding: excerpt.encoding }),
  ...(excerpt.delimiter === null ? {} : { delimiter: excerpt.delimiter }),
});
