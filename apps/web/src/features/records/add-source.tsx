import type { SourceFileAnswer, SourceSummary } from '@mailbag/contract';
import type { TableReading } from '@mailbag/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { DropFiles } from '../../ui/drop';
import { TextInput } from '../../ui/field';
import { Card, PartsBar, Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';

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
  'macintosh',
  'utf-16le',
  'utf-16be',
  'shift_jis',
  'gbk',
];

/** Takes a workbook or a CSV file, shows its first rows, and lets a person say how it is read before it is accepted. */
export function AddSource({ onAdded }: { onAdded: (id: number) => void }) {
  const client = useQueryClient();
  const [share, setShare] = useState(0);
  const [file, setFile] = useState<SourceFileAnswer | null>(null);
  const [name, setName] = useState('');
  const take = useMutation({
    mutationFn: (chosen: File) => api.upload<SourceFileAnswer>('/api/sources/files', chosen, setShare),
    onSuccess: (answer) => {
      setFile(answer);
      setName(answer.fileName);
    },
  });
  const look = useMutation({
    mutationFn: (reading: TableReading) => {
      const query = new URLSearchParams(
        Object.entries(reading).flatMap(([key, value]) => (value === undefined || value === null ? [] : [[key, String(value)]])),
      );
      return api.get<SourceFileAnswer>(`/api/sources/files/${file!.fileId}/excerpt?${query}`);
    },
    onSuccess: setFile,
  });
  const add = useMutation({
    mutationFn: () => api.post<SourceSummary>('/api/sources', { fileIds: [file!.fileId], name, reading: readingOf(file!) }),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: ['sources'] });
      setFile(null);
      onAdded(id);
    },
  });

  if (!file) {
    return (
      <Stack>
        <DropFiles
          accept={['.xlsx', '.csv', '.tsv', '.txt', 'text/csv', 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet']}
          label="Choose a sheet"
          onFiles={([one]) => one && take.mutate(one)}
        >
          Drop a workbook (.xlsx) or a CSV file here
        </DropFiles>
        {take.isPending && (
          <Notice tone="plain">
            {share < 1 ? `On its way, ${Math.round(share * 100)} %` : 'Its first rows are being read …'}
            <PartsBar label="Upload" total={1} parts={[{ share, color: color.plum, name: 'sent' }]} />
          </Notice>
        )}
        {take.error && <Notice tone="brick">{sentenceOf(take.error)}</Notice>}
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
          <TextInput label="Name of the source" value={name} onChange={setName} />
        </div>
        {excerpt.sheets.length > 0 && (
          <Choice
            label="Sheet"
            items={excerpt.sheets.map((sheet) => ({
              id: sheet.name,
              text: sheet.name,
              ...(sheet.hidden ? { detail: 'hidden in the workbook' } : {}),
            }))}
            value={excerpt.sheet}
            onChange={(sheet) => look.mutate({ sheet })}
          />
        )}
        {excerpt.encoding && (
          <>
            <Choice
              label="Encoding"
              items={[...new Set([excerpt.encoding, ...encodings])].map((id) => ({ id, text: id }))}
              value={excerpt.encoding}
              onChange={(encoding) => look.mutate({ ...reading, encoding })}
            />
            <Choice
              label="Columns divided by"
              items={Object.entries(delimiters).map(([id, text]) => ({ id, text }))}
              value={excerpt.delimiter}
              onChange={(delimiter) => look.mutate({ ...reading, delimiter })}
            />
          </>
        )}
        <div style={{ flex: 1 }} />
        <Button onPress={() => setFile(null)}>Choose another file</Button>
        <Button look="go" isDisabled={add.isPending || !name.trim()} onPress={() => add.mutate()}>
          Read the records
        </Button>
      </Row>
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
      <Small>The headings stand in row {excerpt.headingRow}. If not, choose the number of the row that names the columns.</Small>
      <div style={{ overflow: 'auto', maxHeight: 320 }}>
        <Excerpt aria-label="First rows">
          <tbody>
            {excerpt.rows.map((row) => (
              <tr
                key={row.row}
                data-headings={row.row === excerpt.headingRow || undefined}
                data-above={row.row < excerpt.headingRow || undefined}
              >
                <td>
                  <button
                    aria-label={`Headings in row ${row.row}`}
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

const readingOf = ({ excerpt }: SourceFileAnswer): TableReading => ({
  headingRow: excerpt.headingRow,
  ...(excerpt.sheet === null ? {} : { sheet: excerpt.sheet }),
  ...(excerpt.encoding === null ? {} : { encoding: excerpt.encoding }),
  ...(excerpt.delimiter === null ? {} : { delimiter: excerpt.delimiter }),
});
