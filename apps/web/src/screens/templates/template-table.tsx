import { t } from '@mailbag/core/words';
import type { TemplateSummary } from '@mailbag/contract';
import { templateNoteSentence } from '@mailbag/core';
import { Info } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { sentenceOf } from '../../api/client';
import { Thumbnail } from '../../features/page/thumbnail';
import { AwayPicked } from '../../features/away-picked';
import { WastebasketLink, useDeleting } from '../../features/deleting';
import { useArchive } from '../../features/use-archive';
import { kilobytes, when } from '../../features/when';
import { ArchiveButton, ArchivedSwitch } from '../../ui/archive-button';
import { Empty, Row, Small } from '../../ui/layout';
import type { ListColumn } from '../../ui/list/column';
import { List } from '../../ui/list/list';
import { Mark, Notice } from '../../ui/mark';

const addressOf = ({ id }: TemplateSummary): string => `/templates/${id}`;
const keyOf = ({ id }: TemplateSummary): number => id;
const nameOf = ({ name }: TemplateSummary): string => name;

const columns: readonly ListColumn<TemplateSummary>[] = [
  {
    id: 'name',
    head: t`Name`,
    minWidth: 190,
    share: 3,
    isFixed: true,
    text: nameOf,
    cell: (one) => (
      <Row $gap={10} style={{ alignItems: 'flex-start', flexWrap: 'nowrap' }}>
        <Thumbnail templateId={one.id} revisionId={one.revisionId} />
        <div style={{ minWidth: 0 }}>
          <Link data-name="" to={addressOf(one)}>
            {one.name}
          </Link>
          <br />
          <Small>{t`${one.fileName} · revision ${one.revision} · ${kilobytes(one.size)}`}</Small>
          {one.notes.length > 0 && (
            <div>
              <Mark $tone="ochre" title={one.notes.map(templateNoteSentence).join(' ')}>
                <Info />
                {one.notes.length === 1 ? t`1 thing to know` : t`${one.notes.length} things to know`}
              </Mark>
            </div>
          )}
        </div>
      </Row>
    ),
  },
  { id: 'file', head: t`File`, minWidth: 120, share: 2, isExtra: true, text: ({ fileName }) => fileName },
  {
    id: 'size',
    head: t`Size`,
    minWidth: 70,
    isNumber: true,
    isExtra: true,
    text: ({ size }) => kilobytes(size),
    value: ({ size }) => size,
  },
  { id: 'pages', head: t`Pages`, minWidth: 52, isNumber: true, text: ({ pages }) => String(pages), value: ({ pages }) => pages },
  { id: 'fields', head: t`Fields`, minWidth: 52, isNumber: true, text: ({ fields }) => String(fields), value: ({ fields }) => fields },
  {
    id: 'used',
    head: t`In use by`,
    minWidth: 110,
    share: 2,
    text: ({ usedBy }) => usedBy.join(', '),
    cell: ({ usedBy }) => usedBy.join(', ') || <Small>{t`no mailing yet`}</Small>,
    value: ({ usedBy }) => (usedBy.length > 0 ? usedBy.join(', ') : null),
  },
  { id: 'came', head: t`Added`, minWidth: 104, text: ({ createdAt }) => when(createdAt), value: ({ id }) => id },
];

/** All templates, with their first pages: searched, sorted, and put away where they are not needed any more. */
export function TemplateTable({ templates }: { templates: readonly TemplateSummary[] }) {
  const [showsArchived, showArchived] = useState(false);
  const archive = useArchive('templates');
  const deleting = useDeleting('template');
  const archived = templates.filter(({ isArchived }) => isArchived).length;
  const isInArchive = showsArchived && archived > 0;
  const tools: ListColumn<TemplateSummary> = {
    id: 'tools',
    head: t`Archive`,
    minWidth: 36,
    isTools: true,
    text: () => '',
    cell: (one) => (
      <ArchiveButton
        name={one.name}
        isArchived={one.isArchived}
        onArchive={(isArchived) => archive.mutate({ ids: [one.id], isArchived })}
      />
    ),
  };
  const shown = useMemo(
    () => templates.filter((one) => one.isArchived === isInArchive).sort((one, other) => other.id - one.id),
    [templates, isInArchive],
  );
  return (
    <>
      {(archive.error ?? deleting.error) && <Notice tone="brick">{sentenceOf((archive.error ?? deleting.error)!)}</Notice>}
      <List
        id="templates"
        label={t`templates`}
        noun={['template', 'templates']}
        columns={[...columns, tools]}
        rows={shown}
        keyOf={keyOf}
        nameOf={nameOf}
        to={addressOf}
        searchHint={t`Name, file or mailing`}
        tools={
          <>
            <ArchivedSwitch count={archived} isOn={showsArchived} onSwitch={showArchived} />
            <WastebasketLink kind="template" />
          </>
        }
        actions={(picked, done) => (
          <AwayPicked picked={picked} onDone={done} isInArchive={isInArchive} archive={archive} deleting={deleting} />
        )}
        empty={(isSearch) => (
          <Empty title={t`No template here`}>
            {isSearch ? t`Search for a part of its name, its file or its mailing.` : t`All of them are archived.`}
          </Empty>
        )}
      />
    </>
  );
}
