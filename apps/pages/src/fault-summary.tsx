import type { ShownSection } from '@mailbag/core/intake';
import { useEffect, useRef } from 'react';
import type { Fault } from './api';
import { faultWords } from './question';
import { Summary } from './styles';
import type { Say } from './words';

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
                const focus = (): void => document.getElementById(`q-${question.id}`)?.focus();
                if (own === step) focus();
                else setTimeout(focus, 0);
              }}
            >
              {question.words}
            </a>
            : {faultWords(fault, question, say)}
          </li>
        ))}
      </ul>
    </Summary>
  );
}
