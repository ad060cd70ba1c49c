import { plural, t } from '@mailbag/core/words';
import type { IntakePlan, IntakeSection } from '@mailbag/core';
import { joinSection, stepSection, withSection } from '@mailbag/core';
import { ArrowDown, ArrowUp, GitBranch, Ungroup } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { color, font } from '../../theme';
import { IconButton } from '../../ui/button';
import { Small } from '../../ui/layout';
import { useQuestionDrop } from './question-dragging';
import { WhenEditor } from './when-editor';

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 12px;
  background: ${color.paper};
  border-bottom: 1px solid ${color.line};
  & > input {
    font: 600 15px/22px ${font.head};
    border: 1px solid transparent;
    border-radius: 4px;
    background: none;
    padding: 3px 4px;
    min-width: 0;
    flex: 1;
  }
  & > input:hover,
  & > input:focus {
    border-color: ${color.line};
    background: ${color.sheet};
  }
`;

interface Props {
  section: IntakeSection;
  /** From 1. */
  step: number;
  /** As visitors count it; null: nothing is asked under it. */
  number: number | null;
  steps: number;
  count: number;
  plan: IntakePlan;
  change: (update: (plan: IntakePlan) => IntakePlan) => void;
}

/** The heading of a step, in place. */
export function SectionHead({ section, step, number, steps, count, plan, change }: Props) {
  const { id, title, when } = section;
  const [isOpen, setOpen] = useState(false);
  const { ref, isOver } = useQuestionDrop({ section: id });
  return (
    <>
      <Line ref={ref} style={isOver ? { boxShadow: `inset 0 -2px 0 ${color.plum}` } : undefined}>
        <input
          aria-label={t`Heading of step ${step}`}
          value={title}
          onChange={({ target }) => change((before) => withSection(before, id, { title: target.value }))}
        />
        <Small style={{ flex: 'none' }}>
          {number === null ? t`no step: nothing is asked` : t`step ${number} · ${plural(count, 'question')}`}
        </Small>
        <IconButton
          label={t`Ask ${title} only of some`}
          small
          changes
          pressed={when !== null}
          onPress={() => setOpen(!isOpen)}
          aria-expanded={isOpen || when !== null}
        >
          <GitBranch size={14} />
        </IconButton>
        <IconButton
          label={t`Move ${title} up`}
          small
          changes
          isDisabled={step === 1}
          onPress={() => change((before) => stepSection(before, id, -1))}
        >
          <ArrowUp size={14} />
        </IconButton>
        <IconButton
          label={t`Move ${title} down`}
          small
          changes
          isDisabled={step === steps}
          onPress={() => change((before) => stepSection(before, id, 1))}
        >
          <ArrowDown size={14} />
        </IconButton>
        <IconButton
          label={t`Remove the heading ${title}`}
          small
          changes
          isDisabled={steps === 1}
          onPress={() => change((before) => joinSection(before, id))}
        >
          <Ungroup size={14} />
        </IconButton>
      </Line>
      {(isOpen || when !== null) && (
        <div style={{ padding: '6px 16px 10px', borderBottom: `1px solid ${color.hair}` }}>
          <WhenEditor
            plan={plan}
            own={new Set(section.questions)}
            when={when}
            name={title}
            onChange={(next) => change((before) => withSection(before, id, { when: next }))}
          />
        </div>
      )}
    </>
  );
}
