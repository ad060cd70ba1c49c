import { counted, t } from '@mailbag/core/words';
import type { IntakeKind, IntakeQuestion } from '@mailbag/core';
import { addQuestion, askedSections, orderedQuestions, stepQuestion } from '@mailbag/core';
import { Eye, FileText, GitBranch, PenLine, Plus, Smartphone } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Bar, Pane, Scroll, Small } from '../../ui/layout';
import { Split } from '../../ui/split';
import { revealChosen } from '../../ui/reveal';
import { useKey } from '../../ui/use-key';
import { FormBeside } from './form-beside';
import type { IntakeWork } from './intake-work';
import { QuestionDragging } from './question-dragging';
import { QuestionRow } from './question-row';
import { SectionHead } from './section-head';
import { VisitorFrame } from './visitor-frame';
import { WhatHangs } from './what-hangs';

const List = styled.div`
  display: flex;
  flex-direction: column;
`;
const NEW_KIND: IntakeKind = 'text';

/** The questions of an intake on the left; on the right the form whose boxes they fill, or the page as a visitor sees it. */
export function QuestionsPart({ work }: { work: IntakeWork }) {
  const { document: plan, change } = work;
  const [search, setSearch] = useSearchParams();
  const chosen = search.get('question');
  const asked = search.get('view');
  const view = asked === 'page' || asked === 'hangs' ? asked : 'form';
  const isDrawing = search.get('draw') === 'box';
  const [text, setText] = useState('');
  const [showsAway, setShowsAway] = useState(false);
  const list = useRef<HTMLDivElement>(null);
  const set = (next: Record<string, string | null>): void =>
    setSearch(
      (before) => {
        const search = new URLSearchParams(before);
        for (const [name, value] of Object.entries(next)) {
          if (value === null) search.delete(name);
          else search.set(name, value);
        }
        return search;
      },
      { replace: true },
    );
  const choose = (id: string | null): void => set({ question: id });
  const draw = (id: string | null): void => set({ question: id, view: null, draw: 'box' });
  const all = useMemo(() => orderedQuestions(plan), [plan]);
  const away = all.filter(({ isAway }) => isAway).length;
  const doubtful = all.filter(({ doubt, isAway }) => doubt !== '' && !isAway);
  useEffect(() => revealChosen(list.current), [chosen]);
  useKey('v', t`Page or form beside the questions`, () => set({ view: view === 'form' ? 'page' : null }));

  const isWanted = ({ words, column, isAway }: IntakeQuestion): boolean =>
    (showsAway || !isAway) && `${words} ${column}`.toLowerCase().includes(text.trim().toLowerCase());
  const nextDoubt = (): void => {
    const at = doubtful.findIndex(({ id }) => id === chosen);
    choose(doubtful[(at + 1) % doubtful.length]?.id ?? null);
  };
  const add = (): void => {
    const section = plan.sections.find(({ questions }) => chosen !== null && questions.includes(chosen)) ?? plan.sections.at(-1);
    if (!section) return;
    const added = addQuestion(plan, section.id, chosen, t`New question`, NEW_KIND);
    change(() => added.plan);
    choose(added.id);
  };
  /** Steps that visitors meet, by the ids of their sections. */
  const steps = askedSections(plan).flatMap(({ section, questions }) => (questions.length > 0 ? [section.id] : []));
  return (
    <Split $columns="minmax(420px, 9fr) minmax(0, 8fr)">
      <Pane aria-label={t`Questions`}>
        <Bar>
          <div style={{ width: 170 }}>
            <TextInput label={t`Find a question`} hideLabel placeholder={t`Find a question`} value={text} onChange={setText} />
          </div>
          {doubtful.length > 0 && (
            <Button small onPress={nextDoubt}>
              <Eye size={14} />
              {t`${doubtful.length} to look at`}
            </Button>
          )}
          {away > 0 && (
            <Button small pressed={showsAway} onPress={() => setShowsAway(!showsAway)}>
              {counted(away, 'put away', 'put away')}
            </Button>
          )}
          <div className="fill" />
          {all.every(({ kind, isAway }) => kind !== 'signature' || isAway) && (
            <Button small changes onPress={() => draw(null)}>
              <PenLine size={14} />
              {t`Signature`}
            </Button>
          )}
          <Button small changes onPress={add}>
            <Plus size={14} />
            {t`Question`}
          </Button>
        </Bar>
        <Scroll ref={list}>
          <QuestionDragging plan={plan} change={change}>
            <List>
              {plan.sections.map((section, at) => {
                const number = steps.indexOf(section.id) + 1;
                const own = section.questions.flatMap((id) => plan.questions[id] ?? []).filter(isWanted);
                if (own.length === 0 && text.trim() !== '') return null;
                return (
                  <section key={section.id} aria-label={section.title}>
                    <SectionHead
                      section={section}
                      step={at + 1}
                      number={number === 0 ? null : number}
                      steps={plan.sections.length}
                      count={own.length}
                      plan={plan}
                      change={change}
                    />
                    {own.map((question) => (
                      <QuestionRow
                        key={question.id}
                        question={question}
                        work={work}
                        isChosen={question.id === chosen}
                        onChoose={() => choose(question.id === chosen ? null : question.id)}
                        onChooseOther={choose}
                        onDraw={() => draw(question.id)}
                        onStep={(by) => change((before) => stepQuestion(before, question.id, by))}
                      />
                    ))}
                  </section>
                );
              })}
              {all.filter(isWanted).length === 0 && (
                <Small style={{ padding: 16, color: color.faded }}>
                  {text.trim() ? t`No question matches.` : t`Nothing is asked yet.`}
                </Small>
              )}
            </List>
          </QuestionDragging>
        </Scroll>
      </Pane>
      <Pane aria-label={{ form: t`The form`, page: t`The page`, hangs: t`What depends on what` }[view]}>
        <Bar>
          <Button small pressed={view === 'form'} tip={t`Switch with V`} onPress={() => set({ view: null })}>
            <FileText size={14} />
            {t`The form`}
          </Button>
          <Button small pressed={view === 'page'} tip={t`Switch with V`} onPress={() => set({ view: 'page' })}>
            <Smartphone size={14} />
            {t`The page`}
          </Button>
          <Button small pressed={view === 'hangs'} onPress={() => set({ view: 'hangs' })}>
            <GitBranch size={14} />
            {t`What depends on what`}
          </Button>
        </Bar>
        {view === 'form' ? (
          <FormBeside
            key={isDrawing ? 'drawing' : 'shown'}
            work={work}
            chosen={chosen === null ? null : (plan.questions[chosen] ?? null)}
            onChoose={choose}
            isDrawing={isDrawing}
            onDrawn={(id) => set({ question: id, draw: null })}
          />
        ) : view === 'hangs' ? (
          <WhatHangs work={work} chosen={chosen} onChoose={choose} />
        ) : (
          <VisitorFrame work={work} question={chosen} />
        )}
      </Pane>
    </Split>
  );
}
