import { plural, t } from '@mailbag/core/words';
import type { IntakeDetail } from '@mailbag/contract';
import { askedSections } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ExternalLink, Globe } from 'lucide-react';
import { Navigate, NavLink, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { DeleteThis, useDeleting } from '../../features/deleting';
import { SavedState } from '../../features/editing/saved-state';
import { SavingNotices } from '../../features/editing/saving-notices';
import { UndoButtons } from '../../features/editing/undo-buttons';
import { useDesk } from '../../features/editing/use-desk';
import { color, radius, narrow } from '../../theme';
import { Button } from '../../ui/button';
import { Empty, Head, Screen } from '../../ui/layout';
import { FileButton } from '../../ui/link-button';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { LOOKS_ONLY, useMayChange } from '../../ui/rights';
import { useUndoKeys } from '../../ui/use-undo-keys';
import { useCrumbs } from '../shell/crumbs';
import { AfterPart } from './after-part';
import { AnswersPart } from './answers-part';
import { intakeDesks } from './intake-desks';
import type { IntakeWork } from './intake-work';
import { intakePlaceWords } from './intake-work';
import { LanguagesPart, languagesInShort } from './languages-part';
import { PagePart } from './page-part';
import { QuestionsPart } from './questions-part';

const STALE = ['intakes'];

const Parts = styled.nav`
  margin: 0 16px 10px;
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  ${narrow} {
    grid-template-columns: repeat(auto-fit, minmax(128px, 1fr));
  }
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: ${radius};
  overflow: hidden;
  & > a {
    padding: 7px 12px;
    color: ${color.ink};
    text-decoration: none;
    border-inline-start: 1px dashed ${color.line};
    border-bottom: 3px solid transparent;
    min-width: 0;
  }
  & > a:first-child {
    border-inline-start: 0;
  }
  & > a.active {
    background: ${color.plumWash};
    border-bottom-color: ${color.plum};
  }
  & small {
    display: block;
    font-size: 12px;
    line-height: 16px;
    color: ${color.faded};
  }
  & > a.active small {
    color: ${color.plum};
  }
  & span {
    display: block;
    font-weight: 600;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** What the parts are called, on the screen and in the title of the window. */
const partNames = { questions: t`Questions`, page: t`Page`, after: t`After submitting`, languages: t`Languages`, answers: t`Answers` };

export default function IntakeScreen() {
  const id = Number(useParams().id);
  const { data, error } = useQuery(queries.intake(id));
  const { part = '' } = useParams();
  useCrumbs(
    { text: t`Intakes`, to: '/intakes' },
    { text: data?.name ?? '…' },
    { text: (partNames as Record<string, string>)[part] ?? '', isPart: true },
  );
  if (error && !data) return <Empty title={t`This intake cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!data) return <Loading what={t`the intake`} />;
  return <IntakeDesk key={id} intake={data} />;
}

function IntakeDesk({ intake }: { intake: IntakeDetail }) {
  const { part } = useParams();
  const mayChange = useMayChange();
  const client = useQueryClient();
  const editor = useDesk(intakeDesks, intake.id, { version: intake.version, document: intake.plan }, part ?? 'questions', STALE);
  const { document: plan, undo, redo, saving, settle } = editor;
  useUndoKeys(undo, redo);
  const publish = useMutation({
    mutationFn: async () => {
      await settle();
      return api.post<IntakeDetail>(`/api/intakes/${intake.id}/publish`);
    },
    onSuccess: async (told) => {
      client.setQueryData(queries.intake(intake.id).queryKey, told);
      await client.invalidateQueries({ queryKey: ['intakes'] });
    },
  });
  const navigate = useNavigate();
  const deleting = useDeleting('intake', () => void navigate('/intakes'));
  const work: IntakeWork = { ...editor, intake };
  const asked = askedSections(plan).flatMap(({ questions }) => questions);
  const doubts = asked.filter(({ doubt }) => doubt !== '').length;
  const isAhead = intake.isPublished && (intake.isAhead || saving.state !== 'saved');
  const parts: Record<string, React.ReactNode> = {
    questions: <QuestionsPart work={work} />,
    page: <PagePart work={work} />,
    after: <AfterPart work={work} />,
    languages: <LanguagesPart work={work} />,
    answers: <AnswersPart intake={intake} />,
  };
  if (!part || !(part in parts)) return <Navigate to={`/intakes/${intake.id}/questions`} replace />;
  return (
    <Screen>
      <Head
        title={plan.name}
        note={
          <>
            {intake.isPublished ? <Mark $tone="moss">{t`published`}</Mark> : <Mark $tone="slate">{t`draft`}</Mark>}{' '}
            {isAhead && t`changes not published yet · `}
            {mayChange ? <SavedState saving={saving} /> : <span role="status">{LOOKS_ONLY}</span>}
          </>
        }
      >
        <UndoButtons undo={undo} redo={redo} />
        <DeleteThis
          name={plan.name}
          text={
            intake.answers > 0
              ? t`It takes ${plural(intake.answers, 'answer')} with it, and its page goes offline. Copies that were made stay in the ledger.`
              : t`Its page goes offline.`
          }
          isBusy={deleting.isPending}
          onDelete={() => deleting.mutate([{ id: intake.id, name: plan.name }])}
        />
        {intake.isPublished && (
          <FileButton href={`/in/${intake.word}`} target="_blank" rel="noreferrer">
            <ExternalLink size={14} />
            {t`/in/${intake.word}`}
          </FileButton>
        )}
        <Button changes look="go" isDisabled={publish.isPending || (intake.isPublished && !isAhead)} onPress={() => publish.mutate()}>
          <Globe size={16} />
          {publish.isPending ? t`Publishing …` : intake.isPublished ? t`Publish changes` : t`Publish`}
        </Button>
      </Head>
      <Parts aria-label={t`Parts of the intake`}>
        <NavLink to={`/intakes/${intake.id}/questions`}>
          <small>{partNames.questions}</small>
          <span>
            {asked.length}
            {doubts > 0 && t` · ${doubts} to look at`}
          </span>
        </NavLink>
        <NavLink to={`/intakes/${intake.id}/page`}>
          <small>{partNames.page}</small>
          <span>{t`${plural(askedSections(plan).filter(({ questions }) => questions.length > 0).length, 'step')} · /in/${intake.word}`}</span>
        </NavLink>
        <NavLink to={`/intakes/${intake.id}/after`}>
          <small>{partNames.after}</small>
          <span>{plan.after.atOnce ? t`copies at once` : t`answers gather`}</span>
        </NavLink>
        <NavLink to={`/intakes/${intake.id}/languages`}>
          <small>{partNames.languages}</small>
          <span>{languagesInShort(plan)}</span>
        </NavLink>
        <NavLink to={`/intakes/${intake.id}/answers`}>
          <small>{partNames.answers}</small>
          <span>{t`${intake.answers} received`}</span>
        </NavLink>
      </Parts>
      {deleting.error && (
        <div style={{ padding: '0 16px 10px' }}>
          <Notice tone="brick">{sentenceOf(deleting.error)}</Notice>
        </div>
      )}
      {publish.error && (
        <div style={{ padding: '0 16px 10px' }}>
          <Notice tone="brick">{sentenceOf(publish.error)}</Notice>
        </div>
      )}
      <SavingNotices editor={editor} placeWords={(place) => intakePlaceWords(plan, place.map(String))} />
      {parts[part]}
    </Screen>
  );
}
