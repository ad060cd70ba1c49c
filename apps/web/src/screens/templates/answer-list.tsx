import { counted, t } from '@mailbag/core/words';
import type { Answer, Field } from '@mailbag/core';
import { answerReason, fieldLabel, kindWords, pieceWords } from '@mailbag/core';
import { ChevronDown, ChevronRight, Split } from 'lucide-react';
import { Fragment } from 'react';
import styled from 'styled-components';
import { nameEnd } from '../../features/page/field-facts';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Small } from '../../ui/layout';
import { Mark } from '../../ui/mark';
import { FieldFacts } from './field-facts-list';

const Item = styled.button`
  display: block;
  width: 100%;
  /* Of two thousand rows only those in sight are laid out. */
  content-visibility: auto;
  contain-intrinsic-size: auto 52px;
  text-align: left;
  border: 0;
  border-bottom: 1px solid ${color.hair};
  background: none;
  padding: 7px 12px;
  cursor: pointer;
  &:hover,
  &[data-pointed] {
    background: ${color.paper};
  }
  &[data-chosen] {
    background: ${color.plumWash};
  }
  & > code {
    display: block;
    color: ${color.faded};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & > div {
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
  & > div > span:first-child {
    flex: 1;
    min-width: 0;
  }
`;
const Group = styled.div`
  padding: 5px 12px;
  font: 600 14px/18px ${font.head};
  background: ${color.paper};
  border-bottom: 1px solid ${color.hair};
  position: sticky;
  top: 0;
  /* Rows that are laid out when they come into sight are painted as things of their own. */
  z-index: 1;
  & > span {
    font: 400 12px/16px ${font.text};
    margin-left: 4px;
  }
`;
const Line = styled.div`
  display: flex;
  align-items: center;
  & > input {
    margin: 0 0 0 12px;
    width: 16px;
    height: 16px;
    accent-color: ${color.plum};
  }
`;
const Opened = styled.div`
  background: ${color.plumWash};
  border-bottom: 1px solid ${color.hair};
  padding: 4px 12px 8px 32px;
  display: grid;
  gap: 4px;
  font-size: 13px;
  & button.piece {
    display: flex;
    gap: 8px;
    border: 0;
    background: none;
    padding: 2px 0;
    text-align: left;
    cursor: pointer;
    & > code {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    &[data-chosen] {
      font-weight: 600;
    }
  }
`;

/** Fields that are being picked to be one answer, in the order in which they were; null: none are. */
export type Picking = readonly string[] | null;

export interface AnswerListProps {
  answers: readonly Answer[];
  fields: ReadonlyMap<string, Field>;
  chosen: string | null;
  pointed: string | null;
  onChoose: (field: string | null) => void;
  onPoint: (field: string | null) => void;
  picking: Picking;
  onPick: (fields: readonly string[]) => void;
  onTakeApart: (field: string) => void;
}

const pageOf = ({ parts }: Answer, fields: ReadonlyMap<string, Field>): number => fields.get(parts[0]!.field)?.page ?? 0;

/** The answers of a form, a page a group. What stands over several boxes is one row that opens. */
export function AnswerList(props: AnswerListProps) {
  const { answers, fields, chosen, pointed, onChoose, onPoint, picking, onPick, onTakeApart } = props;
  const groups = [...Map.groupBy(answers, (answer) => pageOf(answer, fields))].sort(([a], [b]) => a - b);
  return groups.map(([page, here]) => (
    <div key={page}>
      <Group>
        {page === 0 ? t`On no page` : t`Page ${page}`} <Small>{counted(here.length, 'answer')}</Small>
      </Group>
      {here.map((answer) => {
        const names = answer.parts.map(({ field }) => field);
        const [first] = names as [string];
        const field = fields.get(first)!;
        const isChosen = chosen !== null && names.includes(chosen);
        const isSeveral = names.length > 1;
        const label = answer.label ?? fieldLabel(field);
        const isPicked = picking !== null && names.every((name) => picking.includes(name));
        return (
          <Fragment key={first}>
            <Line>
              {picking !== null && (
                <input
                  type="checkbox"
                  aria-label={t`Join ${label}, ${nameEnd(first)}`}
                  checked={isPicked}
                  onChange={() => onPick(isPicked ? picking.filter((name) => !names.includes(name)) : [...picking, ...names])}
                />
              )}
              <Item
                data-chosen={isChosen || undefined}
                data-pointed={(pointed !== null && names.includes(pointed)) || undefined}
                aria-expanded={isChosen}
                onClick={() => onChoose(isChosen ? null : first)}
                onMouseEnter={() => onPoint(first)}
                onMouseLeave={() => onPoint(null)}
              >
                <div>
                  <span>{label}</span>
                  {names.some((name) => fields.get(name)?.flags.includes('required')) && <Mark $tone="brick">{t`required`}</Mark>}
                  <Small>{isSeveral ? counted(names.length, 'box', 'boxes') : kindWords(field)}</Small>
                  {isSeveral && (isChosen ? <ChevronDown size={14} /> : <ChevronRight size={14} />)}
                </div>
                <code title={first}>{isSeveral ? names.map(nameEnd).join(' · ') : nameEnd(first)}</code>
              </Item>
            </Line>
            {isChosen && isSeveral && (
              <Opened>
                <Small>{answerReason(answer.reason)}</Small>
                {answer.parts.map(({ field: name, piece, option }) => (
                  <button
                    key={name}
                    type="button"
                    className="piece"
                    data-chosen={name === chosen || undefined}
                    onClick={() => onChoose(name)}
                    onMouseEnter={() => onPoint(name)}
                    onMouseLeave={() => onPoint(null)}
                  >
                    <span>{piece ? pieceWords(piece) : option ? option.label : t`all of it`}</span>
                    <code title={name}>{nameEnd(name)}</code>
                  </button>
                ))}
                <div>
                  <Button small changes onPress={() => onTakeApart(first)} tip={t`Each box is an answer of its own`}>
                    <Split size={14} />
                    {t`Split up`}
                  </Button>
                </div>
              </Opened>
            )}
            {isChosen && <FieldFacts field={fields.get(chosen)!} />}
          </Fragment>
        );
      })}
    </div>
  ));
}
