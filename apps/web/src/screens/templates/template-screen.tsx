import type { Field } from '@mailbag/core';
import { fewNames, fieldLabel, kindWords, templateNoteSentence } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Info, Search, Tags, Trash2 } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { calculationWords, fieldLimits, formatWords, labelSourceWords, nameEnd } from '../../features/page/field-facts';
import { PdfPages } from '../../features/page/pdf-pages';
import { Zoom } from '../../features/page/zoom';
import { counted, kilobytes } from '../../features/when';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Confirm } from '../../ui/confirm';
import { TextInput } from '../../ui/field';
import { Bar, Empty, Facts, Head, Pane, Screen, Scroll, Small, Split } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { revealChosen } from '../../ui/reveal';
import { useCrumbs } from '../shell/crumbs';
import { FieldListMenu } from './field-list-menu';
import { TemplateWays } from './template-ways';

const Item = styled.button`
  display: block;
  width: 100%;
  text-align: left;
  border: 0;
  border-bottom: 1px solid ${color.hair};
  background: none;
  padding: 7px 12px;
  cursor: pointer;
  &:hover,
  &[data-pointed] {
    background: ${color.paper};
  }
  &[data-chosen] {
    background: ${color.plumWash};
  }
  & > code {
    display: block;
    color: ${color.faded};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & > div {
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
  & > div > span:first-child {
    flex: 1;
    min-width: 0;
  }
`;
const Group = styled.div`
  padding: 5px 12px;
  font: 600 14px/18px ${font.head};
  background: ${color.paper};
  border-bottom: 1px solid ${color.hair};
  position: sticky;
  top: 0;
`;
const ChosenFacts = styled(Facts)`
  padding: 0 12px 10px;
  background: ${color.plumWash};
  border-bottom: 1px solid ${color.hair};
`;

function FieldFacts({ field }: { field: Field }) {
  const line = (name: string, value: string): React.ReactNode =>
    value ? (
      <>
        <dt>{name}</dt>
        <dd>{value}</dd>
      </>
    ) : null;
  return (
    <ChosenFacts $names="92px">
      {line('Full name', field.name)}
      {line('Kind', kindWords(field))}
      {line('Tooltip', field.tooltip ?? '')}
      {line('Called so by', labelSourceWords(field))}
      {line('Under', field.section ?? '')}
      {line('Limits', fieldLimits(field).join(', '))}
      {line('Options', field.options.map((one) => (one.label === one.value ? one.value : `${one.label} (${one.value})`)).join(' · '))}
      {line('On-values', field.onValues.join(' · '))}
      {line('Value now', Array.isArray(field.value) ? field.value.join(', ') : (field.value ?? ''))}
      {line('Format', formatWords(field))}
      {line('Worked out', calculationWords(field))}
      {line('Pages', [...new Set(field.widgets.map((widget) => widget.page))].join(', '))}
    </ChosenFacts>
  );
}

export default function TemplateScreen() {
  const id = Number(useParams().id);
  const { data: template, error } = useQuery(queries.template(id));
  const { data: pdf } = useQuery({ ...queries.templatePdf(id, template?.revisionId ?? 0), enabled: template !== undefined });
  useCrumbs({ text: 'Templates', to: '/templates' }, { text: template?.name ?? '…' });
  const [chosen, setChosen] = useState<string | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  const [named, setNamed] = useState(true);
  const [zoom, setZoom] = useState(1);
  const [text, setText] = useState('');
  const list = useRef<HTMLDivElement>(null);
  const client = useQueryClient();
  const navigate = useNavigate();
  const remove = useMutation({
    mutationFn: () => api.remove(`/api/templates/${id}`),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['templates'], exact: true });
      void navigate('/templates');
    },
  });

  const groups = useMemo(() => {
    const wanted = text.trim().toLowerCase();
    const fields = (template?.fieldList ?? []).filter(
      (field) =>
        !wanted ||
        `${field.name} ${field.tooltip ?? ''} ${field.label ?? ''} ${field.section ?? ''} ${kindWords(field)}`
          .toLowerCase()
          .includes(wanted),
    );
    return [...Map.groupBy(fields, (field) => field.page)].sort(([a], [b]) => a - b);
  }, [template, text]);
  useEffect(() => {
    revealChosen(list.current);
  }, [chosen]);

  if (error && !template) return <Empty title="This template cannot be shown">{sentenceOf(error)}</Empty>;
  if (!template) return <Loading what="the template" />;
  return (
    <Screen>
      <Head
        title={template.name}
        note={`${template.fileName} · revision ${template.revision} · ${counted(template.pages, 'page')} · ${counted(template.fields, 'field')} · ${kilobytes(template.size)}`}
      >
        <FieldListMenu id={id} revisionId={template.revisionId} />
        <TemplateWays id={id} revisions={template.revision} />
        <Confirm
          title={`Remove “${template.name}”?`}
          text="Copies that were made from it stay."
          yes="Remove the template"
          onYes={() => remove.mutate()}
        >
          <Button changes look="danger" small>
            <Trash2 size={14} />
            Remove
          </Button>
        </Confirm>
      </Head>
      {(template.notes.length > 0 || remove.error) && (
        <div style={{ padding: '0 16px 10px', display: 'grid', gap: 6 }}>
          {remove.error && <Notice tone="brick">{sentenceOf(remove.error)}</Notice>}
          {template.notes.map((note) => (
            <Notice key={note.code} tone="ochre" icon={<Info size={16} />}>
              {templateNoteSentence(note)} {note.fields.length > 0 && <Small>{fewNames(note.fields)}</Small>}
            </Notice>
          ))}
        </div>
      )}
      <Split $columns="380px minmax(0, 1fr)">
        <Pane aria-label="Fields">
          <Bar>
            <Search size={15} color={color.faded} />
            <div style={{ flex: 1 }}>
              <TextInput label="Find a field" hideLabel placeholder="Name, label or kind" value={text} onChange={setText} />
            </div>
          </Bar>
          <Scroll ref={list}>
            {groups.length === 0 && (
              <Empty title="No field has that name">Search for a part of its name, its tooltip, its printed label or its kind.</Empty>
            )}
            {groups.map(([page, fields]) => (
              <div key={page}>
                <Group>
                  {page === 0 ? 'On no page' : `Page ${page}`} <Small>{counted(fields.length, 'field')}</Small>
                </Group>
                {fields.map((field) => (
                  <div key={field.name}>
                    <Item
                      data-chosen={field.name === chosen || undefined}
                      data-pointed={field.name === pointed || undefined}
                      aria-expanded={field.name === chosen}
                      onClick={() => setChosen(field.name === chosen ? null : field.name)}
                      onMouseEnter={() => setPointed(field.name)}
                      onMouseLeave={() => setPointed(null)}
                    >
                      <div>
                        <span>{fieldLabel(field)}</span>
                        {field.flags.includes('required') && <Mark $tone="brick">required</Mark>}
                        <Small>{kindWords(field)}</Small>
                      </div>
                      <code title={field.name}>{nameEnd(field.name)}</code>
                    </Item>
                    {field.name === chosen && <FieldFacts field={field} />}
                  </div>
                ))}
              </div>
            ))}
          </Scroll>
        </Pane>
        <Pane aria-label="Pages of the template">
          <Bar>
            <Button small pressed={named} onPress={() => setNamed(!named)}>
              <Tags size={14} />
              Names on the page
            </Button>
            <div className="fill" />
            <Zoom zoom={zoom} onZoom={setZoom} />
          </Bar>
          <PdfPages
            bytes={pdf ?? null}
            pages={template.pageSizes}
            fields={template.fieldList}
            chosen={chosen}
            pointed={pointed}
            onChoose={setChosen}
            onPoint={setPointed}
            named={named}
            zoom={zoom}
          />
        </Pane>
      </Split>
    </Screen>
  );
}
