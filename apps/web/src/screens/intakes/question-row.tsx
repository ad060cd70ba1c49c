import { counted, plural, t, translated } from '@mailbag/core/words';
import type { IntakeQuestion } from '@mailbag/core';
import { placesOfAnswer } from '@mailbag/core';
import { ArrowDown, ArrowUp, GitBranch } from 'lucide-react';
import styled from 'styled-components';
import { SureBar } from '../../features/map/confidence';
import { color } from '../../theme';
import { IconButton } from '../../ui/button';
import { Small } from '../../ui/layout';
import { Mark } from '../../ui/mark';
import type { IntakeWork } from './intake-work';
import { QuestionGrip, useQuestionDrop } from './question-dragging';
import { QuestionSettings } from './question-settings';

const Line = styled.div`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  border-bottom: 1px solid ${color.hair};
  &[data-over] {
    box-shadow: inset 0 2px 0 ${color.plum};
  }
  &[data-chosen] {
    background: ${color.plumWash};
  }
  & > button {
    text-align: start;
    border: 0;
    background: none;
    padding: 7px 8px 7px 4px;
    cursor: pointer;
    min-width: 0;
  }
  & > button:hover {
    background: ${color.paper};
  }
  &[data-chosen] > button {
    background: none;
  }
  & > button > b {
    display: block;
    font-weight: 600;
    overflow-wrap: anywhere;
  }
  &[data-away] > button > b {
    color: ${color.faded};
    font-weight: 400;
  }
  & > div {
    display: flex;
    align-items: center;
    gap: 4px;
    padding: 0 12px 0 0;
  }
`;

/** What stands below the words of a question. */
function detailOf({ intake: { places, templates }, document: plan }: IntakeWork, question: IntakeQuestion): string {
  if (question.isAway) return question.filled ? t`put away · filled from other answers` : t`put away`;
  const own = placesOfAnswer(plan, question, places);
  if (own.length === 0) return question.kind === 'e-mail' ? t`not on the form · for the copy that is mailed` : t`not on the form`;
  const forms = new Set(own.map(({ template }) => template)).size;
  const boxes = t`fills ${plural(own.length, 'box', 'boxes')}`;
  const more = question.options.length > 0 ? ` · ${counted(question.options.length, 'option')}` : '';
  return `${boxes}${templates.length > 1 ? t` on ${plural(forms, 'form')}` : ''}${more}${question.required ? ` · ${t`required`}` : ''}`;
}

interface Props {
  question: IntakeQuestion;
  work: IntakeWork;
  isChosen: boolean;
  onChoose: () => void;
  onChooseOther: (id: string | null) => void;
  onDraw: () => void;
  onStep: (by: -1 | 1) => void;
}

/** A question in the list; chosen, it is worked on in place. It is dragged by its grip; Alt with the arrows moves it. */
export function QuestionRow({ question, work, isChosen, onChoose, onChooseOther, onDraw, onStep }: Props) {
  const { words, kind, doubt, isAway, when, sure } = question;
  const { ref, isOver } = useQuestionDrop({ question: question.id });
  return (
    <>
      <Line ref={ref} data-chosen={isChosen || undefined} data-away={isAway || undefined} data-over={isOver || undefined}>
        <QuestionGrip id={question.id} />
        <button
          type="button"
          aria-expanded={isChosen}
          onClick={onChoose}
          onKeyDown={(event) => {
            if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
            event.preventDefault();
            onStep(event.key === 'ArrowUp' ? -1 : 1);
          }}
        >
          <b>{words || t`No words yet`}</b>
          <Small>{detailOf(work, question)}</Small>
        </button>
        <div>
          {when !== null && (
            <Mark $tone="plum">
              <GitBranch />
              {t`for some`}
            </Mark>
          )}
          {sure && !isAway && <SureBar confidence={sure.part} label={t`${Math.round(sure.part * 100)} % sure: ${translated(sure.why)}`} />}
          {doubt !== '' && !isAway && <Mark $tone="ochre">{t`look`}</Mark>}
          {!isAway && placesOfAnswer(work.document, question, work.intake.places).length === 0 && <Mark $tone="plain">{t`added`}</Mark>}
          <Mark $tone="slate">{translated(kind)}</Mark>
          <IconButton label={t`Move ${words} up (Alt+Up)`} small changes onPress={() => onStep(-1)}>
            <ArrowUp size={14} />
          </IconButton>
          <IconButton label={t`Move ${words} down (Alt+Down)`} small changes onPress={() => onStep(1)}>
            <ArrowDown size={14} />
          </IconButton>
        </div>
      </Line>
      {isChosen && <QuestionSettings question={question} work={work} onChoose={onChooseOther} onDraw={onDraw} />}
    </>
  );
}
