import { t } from '@mailbag/core/words';
import type { Condition, HangingQuestion, IntakePlan } from '@mailbag/core';
import { conditionSentence, hangingQuestions } from '@mailbag/core';
import styled from 'styled-components';
import { SentenceWords } from '../../features/map/rule-words';
import { color } from '../../theme';
import { Scroll, Small } from '../../ui/layout';
import type { IntakeWork } from './intake-work';
import { wordsOfColumn } from './intake-work';
import { WhenEditor } from './when-editor';
import { WithMailing } from './with-mailing';

const Tree = styled.ul`
  list-style: none;
  margin: 0;
  padding: 12px 16px;
  display: grid;
  gap: 10px;
  & ul {
    list-style: none;
    margin: 0;
    padding: 0 0 0 18px;
    border-inline-start: 2px solid ${color.line};
    margin-inline-start: 10px;
  }
  & ul > li {
    position: relative;
    padding-top: 8px;
  }
  & ul > li::before {
    content: '';
    position: absolute;
    inset-inline-start: -18px;
    top: 26px;
    width: 14px;
    border-top: 2px solid ${color.line};
  }
`;
const Card = styled.button`
  display: block;
  text-align: start;
  max-width: 420px;
  padding: 6px 10px;
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: 4px;
  cursor: pointer;
  overflow-wrap: anywhere;
  &[data-chosen] {
    background: ${color.plumWash};
    border-color: ${color.plum};
  }
  & > b {
    display: block;
    font-weight: 600;
  }
`;

const Forms = styled.section`
  padding: 4px 16px 20px;
  display: grid;
  gap: 10px;
  max-width: 560px;
`;
const FormCard = styled.div`
  padding: 8px 10px;
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: 4px;
  & > b {
    display: block;
  }
`;

interface TreeProps {
  plan: IntakePlan;
  chosen: string | null;
  onChoose: (id: string) => void;
}

interface Props {
  work: IntakeWork;
  chosen: string | null;
  onChoose: (id: string) => void;
}

/** Which questions are asked, and which forms are made, only after what others are answered, as a picture. */
export function WhatHangs({ work: { document: plan, intake }, chosen, onChoose }: Props) {
  const roots = hangingQuestions(plan);
  return (
    <Scroll>
      {roots.length === 0 ? (
        <Small
          style={{ padding: 16, maxWidth: 460, display: 'block' }}
        >{t`Every question is asked of everybody. To ask one only of some, open it and press “Only for some …”; then it stands here below the question that decides about it.`}</Small>
      ) : (
        <Tree aria-label={t`What depends on what`}>
          {roots.map((node) => (
            <Node key={node.question.id} node={node} plan={plan} chosen={chosen} onChoose={onChoose} />
          ))}
        </Tree>
      )}
      <Forms aria-label={t`Forms that are filled`}>
        <h2>{t`Forms`}</h2>
        <WithMailing id={intake.mailingId} part="questions">
          {({ plan: mailing, change }) =>
            intake.templates.map(({ id, name }) => (
              <FormCard key={id}>
                <b>{name}</b>
                {!mailing.conditions?.[id] && <Small>{t`is filled in for every answer`}</Small>}
                <WhenEditor
                  plan={plan}
                  own={new Set()}
                  when={mailing.conditions?.[id] ?? null}
                  name={name}
                  isForm
                  onChange={(when) =>
                    change((before) => {
                      const { [id]: _before, ...others } = before.conditions ?? {};
                      return { ...before, conditions: when === null ? others : { ...others, [id]: when } };
                    })
                  }
                />
              </FormCard>
            ))
          }
        </WithMailing>
      </Forms>
    </Scroll>
  );
}

function Node({ node: { question, hanging }, plan, chosen, onChoose }: TreeProps & { node: HangingQuestion }) {
  const section = plan.sections.find(({ questions }) => questions.includes(question.id));
  const conditions = [section?.when, question.when].filter((when): when is Condition => when != null);
  return (
    <li>
      <Card type="button" data-chosen={question.id === chosen || undefined} onClick={() => onChoose(question.id)}>
        <b>{question.words}</b>
        {conditions.map((condition, at) => (
          <Small key={at}>
            {at === 0 ? t`when ` : t`and when `}
            <SentenceWords
              parts={conditionSentence(condition, (rule) => [{ text: rule.kind === 'column' ? wordsOfColumn(plan, rule.column) : '…' }])}
            />{' '}
          </Small>
        ))}
      </Card>
      {hanging.length > 0 && (
        <ul>
          {hanging.map((node) => (
            <Node key={node.question.id} node={node} plan={plan} chosen={chosen} onChoose={onChoose} />
          ))}
        </ul>
      )}
    </li>
  );
}
