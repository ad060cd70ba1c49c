import type { ShownSection } from '@mailbag/core/intake';
import { useEffect, useRef } from 'react';
import type { Fault } from './api';
import { OfficeText } from './office-text';
import { faultWords } from './question';
import { Summary } from './styles';
import type { Say } from './words';

const focusOn = (question: string): void => document.getElementById(`q-${question}`)?.focus();
/** Goes to a question whose step is just being shown. */
export const focusSoon = (question: string): void => void setTimeout(() => focusOn(question), 50);

interface SummaryProps {
  faults: readonly Fault[];
  sections: readonly ShownSection[];
  step: number;
  say: Say;
  onGo: (step: number) => void;
}
/** What needs another look, each leading to its question. */
export function FaultSummary({ faults, sections, step, say, onGo }: SummaryProps) {
  const box = useRef<HTMLElement>(null);
  useEffect(() => {
    box.current?.focus();
    box.current?.scrollIntoView({ block: 'nearest' });
    // Once, when it is summed up: whoever mends one answer after the other keeps the place where they type.
  }, []);
  const lines = sections.flatMap(({ questions }, at) =>
    questions.flatMap((question) => {
      const fault = faults.find((one) => one.question === question.id);
      return fault ? [{ question, fault, step: at + 1 }] : [];
    }),
  );
  if (lines.length === 0) return null;
  return (
    <Summary ref={box} role="alert" tabIndex={-1}>
      <strong>{say('faults', { count: lines.length })}</strong>
      <ul>
        {lines.map(({ question, fault, step: own }) => (
          <li key={question.id}>
            <a
              href={`#q-${question.id}`}
              onClick={(event) => {
                event.preventDefault();
                onGo(own);
                if (own === step) focusOn(question.id);
                else focusSoon(question.id);
              }}
            >
              <OfficeText>{question.words}</OfficeText>
            </a>
            : {faultWords(fault, question, say)}
          </li>
        ))}
      </ul>
    </Summary>
  );
}
