import { plural, t } from '@mailbag/core/words';
import { phrase } from '../../../ui/phrase';
import type { LayoutAidsAnswer, LayoutAnswer, RevisionSummary, TemplateDetail } from '@mailbag/contract';
import { layoutPlaceWords } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Check } from 'lucide-react';
import { useParams } from 'react-router';
import { api, sentenceOf } from '../../../api/client';
import { queries } from '../../../api/queries';
import { SavedState } from '../../../features/editing/saved-state';
import { SavingNotices } from '../../../features/editing/saving-notices';
import { useDesk } from '../../../features/editing/use-desk';
import { Button } from '../../../ui/button';
import { Confirm } from '../../../ui/confirm';
import { Empty, Head, Pane, Screen, Scroll } from '../../../ui/layout';
import { Split } from '../../../ui/split';
import { LinkButton } from '../../../ui/link-button';
import { Loading } from '../../../ui/loading';
import { Notice } from '../../../ui/mark';
import { LOOKS_ONLY, useMayChange } from '../../../ui/rights';
import { useCrumbs } from '../../shell/crumbs';
import { TemplateWays } from '../template-ways';
import { BlanksList } from './blanks-list';
import { ChosenSettings } from './chosen-settings';
import { DrawingPages } from './drawing-pages';
import { DrawnList } from './drawn-list';
import { layoutDesks } from './layout-desks';
import { LayoutToolbar } from './layout-toolbar';
import { useLayoutBoard } from './use-layout-board';

const STALE = ['layout'];

export default function LayoutScreen() {
  const id = Number(useParams().id);
  const { data: template } = useQuery(queries.template(id));
  const { data: layout, error } = useQuery(queries.layout(id));
  const { data: aids, error: aidsError } = useQuery({ ...queries.layoutAids(id, layout?.baseId ?? 0), enabled: layout !== undefined });
  useCrumbs({ text: t`Templates`, to: '/templates' }, { text: template?.name ?? '…', to: `/templates/${id}` }, { text: t`Layout` });
  if (error && !layout) return <Empty title={t`This layout cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!template || !layout) return <Loading what={t`the layout`} />;
  return <LayoutDesk template={template} answer={layout} aids={aids} aidsFault={aidsError ? sentenceOf(aidsError) : null} />;
}

function LayoutDesk({
  template,
  answer,
  aids,
  aidsFault,
}: {
  template: TemplateDetail;
  answer: LayoutAnswer;
  aids: LayoutAidsAnswer | undefined;
  aidsFault: string | null;
}) {
  const { id } = template;
  const client = useQueryClient();
  const mayChange = useMayChange();
  const { data: bytes } = useQuery(queries.templatePdf(id, answer.baseId));
  const editor = useDesk(layoutDesks, id, { version: answer.version, document: answer.layout }, 'layout', STALE);
  const board = useLayoutBoard(answer, aids, editor);
  const again = async (): Promise<void> => {
    await Promise.all([client.invalidateQueries({ queryKey: ['layout', id] }), client.invalidateQueries({ queryKey: ['templates'] })]);
  };
  const use = useMutation({
    mutationFn: async () => {
      await editor.settle();
      // The version as it is seen here: what somebody else draws in this moment is looked at first.
      const { version } = await client.fetchQuery({ ...queries.layout(id), staleTime: 0 });
      return api.post<RevisionSummary>(`/api/templates/${id}/layout/use`, { version });
    },
    onSettled: again,
  });
  const discard = useMutation({
    mutationFn: async () => {
      // A step like any other, so that it can be taken back.
      editor.change(() => answer.inUse);
      await editor.settle();
      await api.remove(`/api/templates/${id}/layout`);
    },
    onSettled: again,
  });
  const fault = use.error ?? discard.error;
  const isEmpty = board.drawn.length === 0;
  return (
    <Screen ref={board.board}>
      <Head
        title={template.name}
        note={
          !mayChange ? (
            <span role="status">{LOOKS_ONLY}</span>
          ) : answer.isDraft || editor.saving.state !== 'saved' ? (
            <SavedState saving={editor.saving} />
          ) : isEmpty ? (
            t`Nothing drawn yet`
          ) : (
            t`In use as it is`
          )
        }
      >
        <TemplateWays id={id} revisions={answer.latest} />
        {answer.isDraft && (
          <Confirm
            title={t`Discard what you drew?`}
            text={t`The layout goes back to what revision ${answer.latest} has. Ctrl+Z takes that back as long as this window is open.`}
            yes={t`Discard it`}
            onYes={() => discard.mutate()}
          >
            <Button small changes>{t`Discard`}</Button>
          </Confirm>
        )}
        <Button look="go" changes isDisabled={!answer.isDraft || isEmpty || use.isPending} onPress={() => use.mutate()}>
          {use.isPending ? t`Writing the fields …` : t`Take into use as revision ${answer.latest + 1}`}
        </Button>
      </Head>
      {(fault || use.data || answer.isOvertaken || aidsFault) && (
        <div style={{ padding: '0 16px 10px', display: 'grid', gap: 6 }}>
          {fault && <Notice tone="brick">{sentenceOf(fault)}</Notice>}
          {aidsFault && <Notice tone="ochre">{t`No blanks were looked for: ${aidsFault}`}</Notice>}
          {answer.isOvertaken && (
            <Notice tone="ochre">{t`This is drawn on revision ${answer.baseNumber}. Revision ${answer.latest} came in since. Taken into use, what you see here becomes the latest; discarded, you start on revision ${answer.latest}.`}</Notice>
          )}
          {use.data && !answer.isDraft && !use.isPending && (
            <Notice
              tone="moss"
              icon={<Check size={16} />}
            >{phrase`Revision ${use.data.number} is in use, with ${plural(use.data.fields, 'field')}. Mailings go on with the revision that they were mapped for until you take them over. ${(<LinkButton to={`/templates/${id}/revisions`} $small>{t`See what changes for them`}</LinkButton>)}`}</Notice>
          )}
        </div>
      )}
      <SavingNotices editor={editor} placeWords={(place) => layoutPlaceWords(place, board.layout)} />
      <LayoutToolbar
        tool={board.tool}
        onTool={board.setTool}
        onPlace={board.place}
        zoom={board.zoom}
        onZoom={board.setZoom}
        undo={editor.undo}
        redo={editor.redo}
      />
      <Split $columns="250px minmax(0, 1fr) 232px">
        <Pane aria-label={t`What is drawn`}>
          <Scroll>
            <DrawnList drawn={board.drawn} chosen={board.chosen} onChoose={board.choose} onOrder={board.orderTo} />
            <BlanksList board={board} aids={aids} isLooking={!aids && aidsFault === null} />
          </Scroll>
        </Pane>
        <Pane aria-label={t`Pages of the template`}>
          <DrawingPages
            bytes={bytes ?? null}
            pages={board.pages}
            scans={aids?.pages.map(({ isScan }) => isScan) ?? []}
            items={board.items}
            lines={board.lines}
            own={board.ownByPage}
            blanks={board.blanks}
            pointedBlank={board.pointedBlank}
            chosen={board.chosen}
            tool={board.tool}
            zoom={board.zoom}
            onChoose={board.choose}
            onMove={board.move}
            onDraw={(page, box, at, goesOn) => {
              if (board.tool !== 'select' && board.tool !== 'take') board.draw(board.tool, page, box, at, { goesOn });
            }}
            onTakeBlanks={board.takeBlanks}
            groundRef={board.ground}
          />
        </Pane>
        <Pane aria-label={t`Settings of what is chosen`}>
          <Scroll>
            <ChosenSettings board={board} />
          </Scroll>
        </Pane>
      </Split>
    </Screen>
  );
}
