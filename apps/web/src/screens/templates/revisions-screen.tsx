import { counted, plural, t } from '@mailbag/core/words';
import type { RevisionSummary, RevisionUploadAnswer } from '@mailbag/contract';
import type { Field, FieldChange, FieldPair } from '@mailbag/core';
import { fieldLabel } from '@mailbag/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Check, Upload, X } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { nameEnd } from '../../features/page/field-facts';
import { PdfPages } from '../../features/page/pdf-pages';
import { when } from '../../features/when';
import type { Tone } from '../../theme';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { DropFiles } from '../../ui/drop';
import { Bar, Empty, Head, Pane, Row, Screen, Scroll, Small, Stack } from '../../ui/layout';
import { Split } from '../../ui/split';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { revealChosen } from '../../ui/reveal';
import { useCrumbs } from '../shell/crumbs';
import { TemplateWays } from './template-ways';
import { ChangeLine as Line, ChangesHeading as Heading } from './change-line';
import { PairLines } from './pair-lines';
import { RevisionList } from './revision-list';
import { RevisionMailing } from './revision-mailings';
import type { Settled } from './settled-pairs';
import { settle } from './settled-pairs';

const Printed = styled.p<{ $was: boolean }>`
  margin: 0;
  padding: 4px 12px;
  font-size: 13px;
  line-height: 18px;
  border-bottom: 1px solid ${color.hair};
  color: ${({ $was }) => ($was ? color.faded : color.ink)};
  text-decoration: ${({ $was }) => ($was ? 'line-through' : 'none')};
`;

const changeWords: Record<FieldChange, string> = {
  renamed: t`renamed`,
  moved: t`moved`,
  retyped: t`another kind`,
  options: t`other options`,
  limit: t`another limit`,
  page: t`another page`,
  required: t`required or not`,
};

/** A field of either edition that is looked at. */
interface Looked {
  old: string | null;
  new: string | null;
}

export default function RevisionsScreen() {
  const id = Number(useParams().id);
  const { data: template } = useQuery(queries.template(id));
  const { data: revisions, error } = useQuery(queries.templateRevisions(id));
  useCrumbs({ text: t`Templates`, to: '/templates' }, { text: template?.name ?? '…', to: `/templates/${id}` }, { text: t`Revisions` });
  const [search, setSearch] = useSearchParams();
  const client = useQueryClient();
  const [coming, setComing] = useState<{ share: number } | { text: string; isFault: boolean } | null>(null);
  const bring = async ([file]: File[]): Promise<void> => {
    if (!file) return;
    setComing({ share: 0 });
    try {
      const { known, revision } = await api.upload<RevisionUploadAnswer>(`/api/templates/${id}/revisions`, file, (share) =>
        setComing({ share }),
      );
      setComing(known ? { text: t`${file.name} is here already, as revision ${revision.number}.`, isFault: false } : null);
      await client.invalidateQueries({ queryKey: ['templates'] });
    } catch (fault) {
      setComing({ text: sentenceOf(fault), isFault: true });
    }
  };

  if (error && !revisions) return <Empty title={t`The revisions cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!template || !revisions) return <Loading what={t`the revisions`} />;
  const [latest] = revisions;
  const after = revisions.find((one) => one.id === Number(search.get('to'))) ?? latest!;
  const before =
    revisions.find((one) => one.id === Number(search.get('from')) && one.id !== after.id) ??
    revisions.find((one) => one.number < after.number) ??
    null;
  const dropZone = (
    <DropFiles
      accept={['application/pdf']}
      label={t`Choose the new edition`}
      onFiles={(files) => void bring(files)}
    >{t`Drop the new edition of this form here. Mailings go on with the one they were mapped for until you take them over.`}</DropFiles>
  );
  return (
    <Screen>
      <Head title={t`Revisions of ${template.name}`} note={counted(revisions.length, 'revision')}>
        {before && (
          <FileTrigger acceptedFileTypes={['application/pdf']} onSelect={(files) => void bring([...(files ?? [])])}>
            <Button changes small>
              <Upload size={14} />
              {t`Upload a new edition`}
            </Button>
          </FileTrigger>
        )}
        <TemplateWays id={id} revisions={revisions.length} />
      </Head>
      {coming && (
        <div style={{ padding: '0 16px 10px' }}>
          {'share' in coming ? (
            <Notice tone="plain">{t`Reading the new edition … ${Math.round(coming.share * 100)} % sent`}</Notice>
          ) : (
            <Notice tone={coming.isFault ? 'brick' : 'ochre'}>{coming.text}</Notice>
          )}
        </div>
      )}
      {before ? (
        <Comparing
          key={`${before.id} ${after.id}`}
          templateId={id}
          revisions={revisions}
          before={before}
          after={after}
          onChoose={(from, to) => setSearch({ from: String(from), to: String(to) })}
        />
      ) : (
        <Stack $gap={12} style={{ padding: '0 16px', maxWidth: 560 }}>
          <p
            style={{ margin: 0 }}
          >{t`There is one edition of this form so far: ${latest!.fileName}, ${plural(latest!.fields, 'field')}, here since ${when(latest!.createdAt)}. When its author sends a new one, bring it here: it is compared field by field, and your maps go along.`}</p>
          {dropZone}
        </Stack>
      )}
    </Screen>
  );
}

function Comparing({
  templateId,
  revisions,
  before,
  after,
  onChoose,
}: {
  templateId: number;
  revisions: readonly RevisionSummary[];
  before: RevisionSummary;
  after: RevisionSummary;
  onChoose: (from: number, to: number) => void;
}) {
  const { data: was } = useQuery(queries.templateRevision(templateId, before.id));
  const { data: now } = useQuery(queries.templateRevision(templateId, after.id));
  const { data: wasPdf } = useQuery(queries.templatePdf(templateId, before.id));
  const { data: nowPdf } = useQuery(queries.templatePdf(templateId, after.id));
  const { data, error, refetch } = useQuery(queries.editions(templateId, before.id, after.id));
  const [settled, setSettled] = useState<Settled>(new Map());
  const [looked, setLooked] = useState<Looked>({ old: null, new: null });
  const list = useRef<HTMLDivElement>(null);
  const board = useRef<HTMLDivElement>(null);
  useEffect(() => revealChosen(list.current), [looked]);
  const found = useMemo(() => (data ? settle(data.comparison, settled) : null), [data, settled]);
  const tones = useMemo(() => {
    const of = (side: 'old' | 'new'): Map<string, Tone> =>
      new Map<string, Tone>([
        ...(found?.changed ?? []).map((pair): [string, Tone] => [pair[side], 'plum']),
        ...(found?.doubtful ?? []).map((pair): [string, Tone] => [pair[side], 'ochre']),
        ...((side === 'old' ? found?.gone : found?.added) ?? []).map((name): [string, Tone] => [name, side === 'old' ? 'brick' : 'moss']),
      ]);
    return { old: of('old'), new: of('new') };
  }, [found]);
  const fieldsOf = useMemo(() => {
    const named = (fields: readonly Field[] = []): Map<string, Field> => new Map(fields.map((field) => [field.name, field]));
    return { old: named(was?.fieldList), new: named(now?.fieldList) };
  }, [was, now]);

  if (error && !data)
    return (
      <Empty title={t`The editions cannot be compared`} action={<Button onPress={() => void refetch()}>{t`Try again`}</Button>}>
        {sentenceOf(error)}
      </Empty>
    );
  if (!data || !found) return <Loading what={t`the comparison`} />;
  const say = (side: 'old' | 'new', name: string): string => {
    const field = fieldsOf[side].get(name);
    return field ? fieldLabel(field) : name;
  };
  const lookAt = (side: 'old' | 'new', name: string): void => {
    const pair = [...found.doubtful, ...found.changed, ...found.renamed, ...found.same].find((one) => one[side] === name);
    setLooked(pair ? { old: pair.old, new: pair.new } : side === 'old' ? { old: name, new: looked.new } : { old: looked.old, new: name });
  };
  const decide = (old: string, name: string | null): void => setSettled(new Map(settled).set(old, name));
  const canJoin = looked.old !== null && looked.new !== null && found.gone.includes(looked.old) && found.added.includes(looked.new);
  const pairLine = (pair: FieldPair, isDoubtful = false): React.ReactNode => (
    <Line key={pair.old} data-chosen={looked.old === pair.old || undefined}>
      <button onClick={() => setLooked({ old: pair.old, new: pair.new })}>
        <div>
          {say('new', pair.new)}
          {say('old', pair.old) !== say('new', pair.new) && <Small>{t` was ${say('old', pair.old)}`}</Small>}
        </div>
        {pair.old !== pair.new && (
          <Small>
            <code>{nameEnd(pair.old)}</code> → <code>{nameEnd(pair.new)}</code>
          </Small>
        )}
      </button>
      {isDoubtful ? (
        <>
          <Button changes small onPress={() => decide(pair.old, pair.new)}>
            <Check size={14} />
            {t`Same field`}
          </Button>
          <Button changes small onPress={() => decide(pair.old, null)}>
            <X size={14} />
            {t`Another`}
          </Button>
        </>
      ) : (
        <Small>{pair.changes.map((change) => changeWords[change]).join(', ')}</Small>
      )}
    </Line>
  );
  const nameLine = (side: 'old' | 'new', name: string): React.ReactNode => (
    <Line key={name} data-chosen={looked[side] === name || undefined}>
      <button onClick={() => lookAt(side, name)}>
        <div>{say(side, name)}</div>
        <Small>
          <code>{nameEnd(name)}</code>
        </Small>
      </button>
      <Mark $tone={side === 'old' ? 'brick' : 'moss'}>{side === 'old' ? t`gone` : t`new`}</Mark>
    </Line>
  );
  return (
    <Split $columns="380px minmax(0, 1fr) minmax(0, 1fr)" ref={board} style={{ position: 'relative' }}>
      <Pane aria-label={t`What changed`}>
        <Scroll ref={list}>
          {data.comparison.likeness < 0.1 && (
            <div style={{ padding: 12 }}>
              <Notice tone="ochre">{t`Revision ${after.number} has next to nothing in common with revision ${before.number}. If it is another form, upload it as a template of its own.`}</Notice>
            </div>
          )}
          {found.doubtful.length > 0 && (
            <section aria-label={t`To settle`}>
              <Heading>{t`To settle (${found.doubtful.length})`}</Heading>
              {found.doubtful.map((pair) => pairLine(pair, true))}
            </section>
          )}
          {(found.gone.length > 0 || found.added.length > 0) && (
            <section aria-label={t`Gone and new`}>
              <Heading>{t`Gone (${found.gone.length}) and new (${found.added.length})`}</Heading>
              {found.gone.map((name) => nameLine('old', name))}
              {found.added.map((name) => nameLine('new', name))}
              {found.gone.length > 0 && found.added.length > 0 && (
                <Row style={{ padding: '8px 12px' }}>
                  <Small style={{ flex: 1 }}>{t`Choose one that is gone and one that is new if they are the same field.`}</Small>
                  <Button changes small isDisabled={!canJoin} onPress={() => decide(looked.old!, looked.new)}>{t`Same field`}</Button>
                </Row>
              )}
            </section>
          )}
          <section aria-label={t`Mailings`}>
            <Heading>{t`Mailings that fill revision ${before.number}`}</Heading>
            <Stack $gap={12} style={{ padding: 12 }}>
              {found.doubtful.length > 0 && before.usedBy.length > 0 && (
                <Small>{t`${plural(found.doubtful.length, 'pair is', 'pairs are')} not settled yet; their rules stay behind until they are.`}</Small>
              )}
              {before.usedBy.length === 0 && <Small>{t`No mailing fills it any more.`}</Small>}
              <Uses before={before} after={after} templateId={templateId} pairs={found.pairs} />
            </Stack>
          </section>
          {found.changed.length > 0 && (
            <section aria-label={t`Changed`}>
              <Heading>{t`Changed (${found.changed.length})`}</Heading>
              {found.changed.map((pair) => pairLine(pair))}
            </section>
          )}
          {found.renamed.length > 0 && (
            <section aria-label={t`Renamed`}>
              <Heading>{t`Only renamed, or on another page (${found.renamed.length})`}</Heading>
              {found.renamed.map((pair) => pairLine(pair))}
            </section>
          )}
          <section aria-label={t`The same`}>
            <Heading>{t`The same (${found.same.length})`}</Heading>
            {found.same.map((pair) => pairLine(pair))}
          </section>
          <section aria-label={t`Print`}>
            <Heading>{t`What the form says`}</Heading>
            {data.print.gone.length + data.print.added.length === 0 && (
              <Printed $was={false}>{t`Every line is printed as before.`}</Printed>
            )}
            {data.print.gone.map((line, at) => (
              <Printed key={`gone ${at}`} $was>
                {line.text}
              </Printed>
            ))}
            {data.print.added.map((line, at) => (
              <Printed key={`added ${at}`} $was={false}>
                {line.text}
              </Printed>
            ))}
          </section>
          <RevisionList templateId={templateId} revisions={revisions} before={before} after={after} onChoose={onChoose} />
        </Scroll>
      </Pane>
      {(['old', 'new'] as const).map((side) => {
        const [detail, pdf, revision] = side === 'old' ? [was, wasPdf, before] : [now, nowPdf, after];
        return (
          <Pane key={side} aria-label={t`Revision ${revision.number}`} data-side={side}>
            <Bar>
              <b>{t`Revision ${revision.number}`}</b>
              <Small>{revision.fileName}</Small>
            </Bar>
            {detail ? (
              <PdfPages
                bytes={pdf ?? null}
                pages={detail.pageSizes}
                fields={detail.fieldList}
                chosen={looked[side]}
                marks={tones[side]}
                onChoose={(name) => lookAt(side, name)}
              />
            ) : (
              <Loading what={t`the pages`} />
            )}
          </Pane>
        );
      })}
      <PairLines board={board} pairs={found.pairs} tones={tones.new} looked={looked} />
    </Split>
  );
}

/** Mailings as they stood when the screen was opened, so that one that was taken over can be taken back here. */
function Uses({
  before,
  after,
  templateId,
  pairs,
}: {
  before: RevisionSummary;
  after: RevisionSummary;
  templateId: number;
  pairs: readonly { old: string; new: string }[];
}) {
  const [first] = useState(before.usedBy);
  const uses = [...first, ...before.usedBy.filter((use) => !first.some(({ id }) => id === use.id))];
  return uses.map((use) => (
    <RevisionMailing key={use.id} use={use} target={{ templateId, revisionId: after.id, number: after.number, pairs }} />
  ));
}
