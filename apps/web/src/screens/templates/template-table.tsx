import type { TemplateSummary } from '@mailbag/contract';
import { templateNoteSentence } from '@mailbag/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Archive, Info, Search } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { VisuallyHidden } from 'react-aria-components';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { Thumbnail } from '../../features/page/thumbnail';
import { kilobytes, when } from '../../features/when';
import { color } from '../../theme';
import { ArchiveButton } from '../../ui/archive-button';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Bar, Empty, Row, Scroll, Small } from '../../ui/layout';
import { Mark, Notice } from '../../ui/mark';
import { Table } from '../../ui/table';

const Name = styled(Link)`
  font-weight: 600;
  color: ${color.ink};
  text-decoration: none;
`;

const orders = {
  newest: { text: 'Newest first', by: (one: TemplateSummary, other: TemplateSummary) => other.id - one.id },
  name: { text: 'By name', by: (one: TemplateSummary, other: TemplateSummary) => one.name.localeCompare(other.name) },
  fields: { text: 'Most fields first', by: (one: TemplateSummary, other: TemplateSummary) => other.fields - one.fields },
  used: { text: 'Most used first', by: (one: TemplateSummary, other: TemplateSummary) => other.usedBy.length - one.usedBy.length },
};
type Order = keyof typeof orders;

/** All templates, with their first pages: searched, sorted, and put away where they are not needed any more. */
export function TemplateTable({ templates }: { templates: readonly TemplateSummary[] }) {
  const [text, setText] = useState('');
  const [order, setOrder] = useState<Order>('newest');
  const [showsArchived, showArchived] = useState(false);
  const navigate = useNavigate();
  const client = useQueryClient();
  const archive = useMutation({
    mutationFn: ({ id, isArchived }: { id: number; isArchived: boolean }) => api.post(`/api/templates/${id}/archive`, { isArchived }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['templates'], exact: true }),
  });
  const archived = templates.filter(({ isArchived }) => isArchived).length;
  const wanted = text.trim().toLowerCase();
  const shown = templates
    .filter((one) => one.isArchived === (showsArchived && archived > 0))
    .filter((one) => `${one.name} ${one.fileName} ${one.usedBy.join(' ')}`.toLowerCase().includes(wanted))
    .sort(orders[order].by);
  return (
    <>
      <Bar>
        <Search size={15} color={color.faded} />
        <div style={{ width: 220 }}>
          <TextInput label="Find a template" hideLabel placeholder="Name, file or mailing" value={text} onChange={setText} />
        </div>
        <div className="fill" />
        {archived > 0 && (
          <Button small pressed={showsArchived} onPress={() => showArchived(!showsArchived)}>
            <Archive size={14} />
            Archived {archived}
          </Button>
        )}
        <Choice
          label="Sort"
          hideLabel
          small
          items={Object.entries(orders).map(([id, { text: words }]) => ({ id, text: words }))}
          value={order}
          onChange={(id) => setOrder(id as Order)}
        />
      </Bar>
      {archive.error && <Notice tone="brick">{sentenceOf(archive.error)}</Notice>}
      <Scroll>
        <Table>
          <thead>
            <tr>
              <th>Name</th>
              <th className="number">Pages</th>
              <th className="number">Fields</th>
              <th>In use by</th>
              <th>Came in</th>
              <th>
                <VisuallyHidden>Archive</VisuallyHidden>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((one) => (
              <tr key={one.id} data-link onClick={() => void navigate(`/templates/${one.id}`)}>
                <td>
                  <Row $gap={10} style={{ alignItems: 'flex-start' }}>
                    <Thumbnail templateId={one.id} revisionId={one.revisionId} />
                    <div style={{ minWidth: 0 }}>
                      <Name to={`/templates/${one.id}`} onClick={(event) => event.stopPropagation()}>
                        {one.name}
                      </Name>
                      <br />
                      <Small>
                        {one.fileName} · revision {one.revision} · {kilobytes(one.size)}
                      </Small>
                      {one.notes.length > 0 && (
                        <div>
                          <Mark $tone="ochre" title={one.notes.map(templateNoteSentence).join(' ')}>
                            <Info />
                            {one.notes.length === 1 ? '1 thing to know' : `${one.notes.length} things to know`}
                          </Mark>
                        </div>
                      )}
                    </div>
                  </Row>
                </td>
                <td className="number">{one.pages}</td>
                <td className="number">{one.fields}</td>
                <td>{one.usedBy.join(', ') || <Small>no mailing yet</Small>}</td>
                <td style={{ whiteSpace: 'nowrap' }}>{when(one.createdAt)}</td>
                <td onClick={(event) => event.stopPropagation()}>
                  <ArchiveButton
                    name={one.name}
                    isArchived={one.isArchived}
                    onArchive={(isArchived) => archive.mutate({ id: one.id, isArchived })}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
        {shown.length === 0 && (
          <Empty title="No template here">
            {wanted ? 'Search for a part of its name, its file or its mailing.' : 'All of them are archived.'}
          </Empty>
        )}
      </Scroll>
    </>
  );
}
