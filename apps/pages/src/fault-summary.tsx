import type { ShownSection } from '@mailbag/core/intake';
import { useEffect, useRef } from 'react';
import type { Fault } from './api';
import { OfficeText } from './office-text';
import { faultWords } from './question';
import { Summary } from './styles';
import type { Say } from './words';

interface SummaryProps {
  faults: readonly Fault[];
  sections: readonly ShownSection[];
  say: Say;
  /** Somebody wants to change an answer. */
  onQuestion: (id: string) => void;
}
/** What needs another look, each leading to its question. */
export function FaultSummary({ faults, sections, say, onQuestion }: SummaryProps) {
  const box = useRef<HTMLElement>(null);
  useEffect(() => {
    box.current?.focus();
    box.current?.scrollIntoView({ block: 'nearest' });
    // Once, when it is summed up: whoever mends one answer after the other keeps the place where they type.
  }, []);
  const lines = sections.flatMap(({ questions }) =>
    questions.flatMap((question) => {
      const fault = faults.find((one) => one.question === question.id);
      return fault ? [{ question, fault }] : [];
    }),
  );
  if (lines.length === 0) return null;
  return (
    <Summary ref={box} role="alert" tabIndex={-1}>
      <strong>{say('faults', { count: lines.length })}</strong>
      <ul>
        {lines.map(({ question, fault }) => (
          <li key={question.id}>
            <a
              href={`#q-${question.id}`}
              onClick={(event) => {
                event.preventDefault();
                onQuestion(question.id);
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
