import { t } from '@mailbag/core/words';
import type { Column, Evaluation, FieldMap, FillRule, Work } from '@mailbag/core';
import { answerReason, pieceWords } from '@mailbag/core';
import { useState } from 'react';
import styled from 'styled-components';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Small } from '../../ui/layout';
import { nameEnd } from '../page/field-facts';
import { valueWords } from './field-mark';
import { RuleEditor } from './rules/rule-editor';
import type { SheetEntry } from './sheet-entries';

const Frame = styled.div`
  background: ${color.plumWash};
  padding: 0 12px 10px;
`;
const Line = styled.div`
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  font-size: 13px;
  padding: 2px 0;
  & code {
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

/** The boxes of an answer: which piece each takes and what stands in it; one of them can be filled otherwise. */
export function AnswerPieces({
  entry: { answer, parts },
  map,
  evaluation,
  columns,
  work,
  locale,
  onPiece,
  onPoint,
}: {
  entry: SheetEntry;
  map: FieldMap;
  evaluation: Evaluation | null;
  columns: readonly Column[];
  work: Work | null;
  locale: string;
  onPiece: (field: string, rule: FillRule | undefined) => void;
  onPoint: (field: string | null) => void;
}) {
  const [opened, setOpened] = useState<string | null>(null);
  return (
    <Frame>
      <Small>{answerReason(answer.reason)}</Small>
      {answer.parts.map(({ field: name, piece, option }, index) => (
        <div key={name} onMouseEnter={() => onPoint(name)} onMouseLeave={() => onPoint(null)}>
          <Line>
            <span>{piece ? pieceWords(piece) : option ? option.label : t`all of it`}</span>
            <code title={name}>{nameEnd(name)}</code>
            <span>{valueWords(parts[index]!, evaluation?.values[name])}</span>
            <Button small look="bare" aria-expanded={opened === name} onPress={() => setOpened(opened === name ? null : name)}>
              {opened === name ? t`Close` : t`Fill differently`}
            </Button>
          </Line>
          {opened === name && (
            <RuleEditor
              field={parts[index]!}
              rule={map[name]}
              columns={columns}
              work={work}
              locale={locale}
              onChange={(next) => onPiece(name, next)}
            />
          )}
        </div>
      ))}
    </Frame>
  );
}
