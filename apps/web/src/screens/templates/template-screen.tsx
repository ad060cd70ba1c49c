import { plural, t } from '@mailbag/core/words';
import type { TemplateDetail } from '@mailbag/contract';
import type { Answer, Joining } from '@mailbag/core';
import { joiningName, joiningsFor, kindWords } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Combine, Search, Tags } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { DeleteThis, useDeleting } from '../../features/deleting';
import { PdfPages } from '../../features/page/pdf-pages';
import { Zoom } from '../../features/page/zoom';
import { kilobytes } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Bar, Empty, Head, Pane, Screen, Scroll } from '../../ui/layout';
import { Rename } from '../../features/rename';
import { Split } from '../../ui/split';
import { LinkButton } from '../../ui/link-button';
import { Loading } from '../../ui/loading';
import { Notice, Say } from '../../ui/mark';
import { revealChosen } from '../../ui/reveal';
import { useCrumbs } from '../shell/crumbs';
import type { Picking } from './answer-list';
import { AnswerList } from './answer-list';
import { FieldListMenu } from './field-list-menu';
import { TemplateNotes } from './template-notes';
import { TemplateWays } from './template-ways';
import { useAddress } from '../../ui/use-address';

export default function TemplateScreen() {
  const id = Number(useParams().id);
  const { data: template, error } = useQuery(queries.template(id));
  useCrumbs({ text: t`Templates`, to: '/templates' }, { text: template?.name ?? '…' });
  if (error && !template) return <Empty title={t`This template cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!template) return <Loading what={t`the template`} />;
  return <TemplateFields template={template} />;
}

function TemplateFields({ template }: { template: TemplateDetail }) {
  const { id, revisionId } = template;
  const { data: pdf } = useQuery(queries.templatePdf(id, revisionId));
  const { query, put } = useAddress();
  const chosen = query.get('field');
  const setChosen = (field: string | null): void => put({ field });
  const [pointed, setPointed] = useState<string | null>(null);
  const [picking, setPicking] = useState<Picking>(null);
  const [named, setNamed] = useState(true);
  const [zoom, setZoom] = useState(1);
  const [text, setText] = useState('');
  const list = useRef<HTMLDivElement>(null);
  const client = useQueryClient();
  const navigate = useNavigate();
  const deleting = useDeleting('template', () => void navigate('/templates'));
  const rename = useMutation({
    mutationFn: (name: string) => api.patch(`/api/templates/${id}`, { name }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['templates'] }),
  });
  const join = useMutation({
    mutationFn: (wish: { fields: readonly string[]; as: Joining | null }) =>
      api.post<TemplateDetail>(`/api/templates/${id}/answers`, { revisionId, ...wish }),
    onSuccess: (told) => {
      client.setQueryData(queries.template(id).queryKey, told);
      setPicking(null);
    },
  });

  const fields = useMemo(() => new Map(template.fieldList.map((field) => [field.name, field])), [template.fieldList]);
  const answers = useMemo((): Answer[] => {
    const told = new Set(template.answers.flatMap(({ parts }) => parts.map(({ field }) => field)));
    // Buttons belong to no answer, and are fields all the same.
    const others = template.fieldList
      .filter(({ name }) => !told.has(name))
      .map(({ name, label, section = null }): Answer => ({
        label,
        section,
        parts: [{ field: name, piece: null, option: null }],
        reason: 'alone',
      }));
    return [...template.answers, ...others];
  }, [template]);
  const shown = useMemo(() => {
    const wanted = text.trim().toLowerCase();
    if (!wanted) return answers;
    return answers.filter((answer) =>
      answer.parts.some(({ field: name }) => {
        const field = fields.get(name)!;
        return `${name} ${answer.label ?? ''} ${field.tooltip ?? ''} ${field.label ?? ''} ${field.section ?? ''} ${kindWords(field)}`
          .toLowerCase()
          .includes(wanted);
      }),
    );
  }, [answers, fields, text]);
  useEffect(() => {
    revealChosen(list.current);
  }, [chosen]);
  const piecesOf = (name: string | null): string[] =>
    name === null ? [] : (answers.find(({ parts }) => parts.some(({ field }) => field === name))?.parts.map(({ field }) => field) ?? []);
  const picked = picking ?? [];
  const ways = joiningsFor(picked.flatMap((name) => fields.get(name) ?? []));
  const fault = deleting.error ?? rename.error ?? join.error;

  return (
    <Screen>
      <Head
        title={template.name}
        note={t`${template.fileName} · revision ${template.revision} · ${plural(template.pages, 'page')} · ${plural(template.fields, 'field')} · ${kilobytes(template.size)}`}
      >
        <FieldListMenu id={id} revisionId={revisionId} fileName={template.fileName} />
        <TemplateWays id={id} revisions={template.revision} />
        <Rename name={template.name} onRename={rename.mutate} />
        <DeleteThis
          name={template.name}
          text={t`Copies that were made from it stay.`}
          isBusy={deleting.isPending}
          onDelete={() => deleting.mutate([{ id, name: template.name }])}
        />
      </Head>
      {(template.notes.length > 0 || fault) && (
        <div style={{ padding: '0 16px 10px', display: 'grid', gap: 6 }}>
          {fault && <Notice tone="brick">{sentenceOf(fault)}</Notice>}
          <TemplateNotes notes={template.notes} />
        </div>
      )}
      <Split $columns="380px minmax(0, 1fr)">
        <Pane aria-label={t`Fields`}>
          <Bar>
            <Search size={15} color={color.faded} />
            <div style={{ flex: 1 }}>
              <TextInput label={t`Find a field`} hideLabel placeholder={t`Name, label or kind`} value={text} onChange={setText} />
            </div>
            {template.fields > 1 && (
              <Button
                small
                changes
                pressed={picking !== null}
                tip={t`Boxes that are one answer, such as day, month and year`}
                onPress={() => setPicking(picking ? null : [])}
              >
                <Combine size={14} />
                {t`Join`}
              </Button>
            )}
          </Bar>
          {picking !== null && (
            <Bar>
              {picked.length < 2 ? (
                <Say>{t`Pick the boxes of one answer, in their order.`}</Say>
              ) : ways.length === 0 ? (
                <Say>{t`These cannot be one answer: ticks and texts do not go together.`}</Say>
              ) : (
                <Choice
                  label={t`Join ${picked.length} fields as`}
                  hideLabel
                  placeholder={t`Join ${picked.length} fields as …`}
                  items={ways.map((way) => ({ id: way, text: joiningName(way) }))}
                  value={null}
                  onChange={(as) => join.mutate({ fields: picked, as: as as Joining })}
                />
              )}
              <div className="fill" />
              <Button small onPress={() => setPicking(null)}>{t`Cancel`}</Button>
            </Bar>
          )}
          <Scroll ref={list}>
            {template.fields === 0 ? (
              <Empty
                title={t`No fields yet`}
                action={<LinkButton to={`/templates/${id}/layout`}>{t`Draw its fields`}</LinkButton>}
              >{t`This file is filled by hand so far. Mailbag finds its blanks, and you say which become fields.`}</Empty>
            ) : (
              shown.length === 0 && (
                <Empty title={t`No field matches`}>{t`Search for a part of its name, its tooltip, its printed label or its kind.`}</Empty>
              )
            )}
            <AnswerList
              answers={shown}
              fields={fields}
              chosen={chosen}
              pointed={pointed}
              onChoose={setChosen}
              onPoint={setPointed}
              picking={picking}
              onPick={setPicking}
              onTakeApart={(field) => join.mutate({ fields: [field], as: null })}
            />
          </Scroll>
        </Pane>
        <Pane aria-label={t`Pages of the template`}>
          <Bar>
            <Button small pressed={named} onPress={() => setNamed(!named)}>
              <Tags size={14} />
              {t`Names on the page`}
            </Button>
            <div className="fill" />
            <Zoom zoom={zoom} onZoom={setZoom} />
          </Bar>
          <PdfPages
            bytes={pdf ?? null}
            pages={template.pageSizes}
            fields={template.fieldList}
            chosen={chosen}
            also={[...piecesOf(chosen), ...piecesOf(pointed), ...picked]}
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
