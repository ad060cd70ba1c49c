import type { IntakeAnswers, IntakeQuestion } from '@mailbag/core/intake';
import { NO, YES, askedSections, isPictureKind } from '@mailbag/core/intake';
import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';
import styled from 'styled-components';
import { answerWords } from './answer-words';
import type { PublicPage } from './api';
import { OfficeText } from './office-text';
import type { Say } from './words';

/** Whoever prints the page gets all of it, to read or to fill in by hand. */
const Printed = styled.div`
  display: none;
  @media print {
    display: block;
    font-size: 11pt;
    line-height: 15pt;
    & h2 {
      margin: 18pt 0 6pt;
    }
    & > section > div {
      break-inside: avoid;
      margin: 0 0 9pt;
    }
    & b {
      display: block;
    }
    & small {
      display: block;
      font-size: 9pt;
      line-height: 12pt;
    }
    & i {
      display: block;
      height: 20pt;
      border-bottom: 0.7pt solid #000;
    }
    & i[data-box] {
      height: 60pt;
      border: 0.7pt solid #000;
    }
    & img {
      max-height: 60pt;
    }
  }
`;
/** Lines for a long answer by hand. */
const LINES = 4;

/** Whether the page is being printed. It is told before the printer takes it. */
function usePrinting(): boolean {
  const [isPrinting, setPrinting] = useState(false);
  useEffect(() => {
    const media = window.matchMedia('print');
    const tell = (is: boolean) => () => flushSync(() => setPrinting(is));
    const follow = (): void => flushSync(() => setPrinting(media.matches));
    const [before, after] = [tell(true), tell(false)];
    media.addEventListener('change', follow);
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      media.removeEventListener('change', follow);
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  }, []);
  return isPrinting;
}

/** All questions of a page on paper, with what was answered so far. */
export function PrintedForm({ page: { plan }, answers, say }: { page: PublicPage; answers: IntakeAnswers; say: Say }) {
  const isPrinting = usePrinting();
  if (!isPrinting) return null;
  return (
    <Printed data-printed>
      <h1>
        <OfficeText>{plan.title.trim() || plan.name}</OfficeText>
      </h1>
      <p style={{ whiteSpace: 'pre-line' }}>
        <OfficeText>{plan.intro}</OfficeText>
      </p>
      {askedSections(plan)
        .filter(({ questions }) => questions.length > 0)
        .map(({ section, questions }) => (
          <section key={section.id}>
            <h2>
              <OfficeText>{section.title}</OfficeText>
            </h2>
            {questions.map((question) => (
              <div key={question.id}>
                <b>
                  <OfficeText>{question.words}</OfficeText>
                  {!question.required && question.kind !== 'notice' && ` (${say('optional')})`}
                </b>
                {question.help && (
                  <small>
                    <OfficeText>{question.help}</OfficeText>
                  </small>
                )}
                <Answer question={question} answer={answers[question.id]} say={say} />
              </div>
            ))}
          </section>
        ))}
    </Printed>
  );
}

function Answer({ question, answer, say }: { question: IntakeQuestion; answer: IntakeAnswers[string] | undefined; say: Say }) {
  const { kind, options } = question;
  if (kind === 'notice') return null;
  const choices =
    kind === 'yes or no'
      ? [YES, NO].map((value) => ({ value, say: say(value as 'yes' | 'no') }))
      : kind === 'consent'
        ? [{ value: YES, say: say('agree') }]
        : options;
  if (choices.length > 0) {
    const chosen = Array.isArray(answer) ? answer : [answer];
    return (
      <>
        {choices.map((choice) => (
          <span key={choice.value} style={{ marginInlineEnd: '14pt' }}>
            {chosen.includes(choice.value) ? '☒' : '☐'} {options.length > 0 ? <OfficeText>{choice.say}</OfficeText> : choice.say}{' '}
          </span>
        ))}
      </>
    );
  }
  if (isPictureKind(kind)) return answer ? <img src={String(answer)} alt={question.words} /> : <i data-box />;
  const words = answerWords(question, answer, say);
  if (words !== '') return <span style={{ whiteSpace: 'pre-line' }}>{words}</span>;
  return (
    <>
      {Array.from({ length: kind === 'long text' ? LINES : 1 }, (_, at) => (
        <i key={at} />
      ))}
    </>
  );
}
