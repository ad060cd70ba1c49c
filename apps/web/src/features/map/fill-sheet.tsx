import type { TemplateDetail } from '@mailbag/contract';
import type { Column, Evaluation, Field, FillRule } from '@mailbag/core';
import { fieldLabel } from '@mailbag/core';
import { Sparkles } from 'lucide-react';
import styled from 'styled-components';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Small } from '../../ui/layout';
import { Mark, Notice, Say } from '../../ui/mark';
import { counted } from '../when';
import type { FieldMark } from './field-mark';
import { valueWords } from './field-mark';
import { RuleEditor } from './rule-editor';
import { RuleWords } from './rule-words';

const Sheet = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 34fr) minmax(0, 36fr) minmax(0, 22fr) 88px;
  & > .head {
    position: sticky;
    top: 0;
    z-index: 2;
    background: ${color.sheet};
    font-size: 12px;
    line-height: 16px;
    color: ${color.faded};
    padding: 6px 8px;
    border-bottom: 1px solid ${color.line};
  }
  & > .group {
    grid-column: 1 / -1;
    position: sticky;
    top: 28px;
    z-index: 1;
    background: ${color.paper};
    padding: 5px 8px;
    border-bottom: 1px solid ${color.hair};
    font: 600 14px/18px ${font.head};
  }
  & > .editor {
    grid-column: 1 / -1;
    border-bottom: 1px solid ${color.hair};
  }
`;
const RowLine = styled.div`
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: subgrid;
  border: 0;
  border-bottom: 1px solid ${color.hair};
  background: none;
  text-align: left;
  cursor: pointer;
  & > div {
    padding: 5px 8px;
    line-height: 18px;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  & code {
    display: block;
    color: ${color.faded};
    line-height: 14px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &:hover,
  &[data-pointed] {
    background: ${color.paper};
  }
  &[data-chosen] {
    background: ${color.plumWash};
  }
`;

/** A field of a template of the packet, with what fills it. */
export interface SheetEntry {
  template: TemplateDetail;
  field: Field;
  rule: FillRule | undefined;
  suggested: FillRule | undefined;
}
export interface ChosenField {
  template: number;
  field: string;
}

interface Props {
  entries: readonly SheetEntry[];
  columns: readonly Column[];
  /** Whose values stand there. */
  whose: string;
  evaluations: ReadonlyMap<number, Evaluation | null>;
  markFor: (entry: SheetEntry) => FieldMark;
  chosen: ChosenField | null;
  /** Of the template that is shown. */
  pointed: ChosenField | null;
  onChoose: (template: number, field: string) => void;
  onPoint: (field: string | null) => void;
  onRule: (template: number, field: string, rule: FillRule | undefined) => void;
}

/** Every field with its rule and its value for one record, a page a group; the chosen one opens its editor below it. */
export function FillSheet({ entries, columns, whose, evaluations, markFor, chosen, pointed, onChoose, onPoint, onRule }: Props) {
  const groups = [...Map.groupBy(entries, ({ template, field }) => `${template.id} ${field.page}`).values()];
  return (
    <Sheet>
      <div className="head">Field</div>
      <div className="head">Filled with</div>
      <div className="head">{whose}</div>
      <div className="head" />
      {groups.map((group) => {
        const { template: one, field: first } = group[0]!;
        return [
          <div className="group" key={`${one.id} ${first.page}`}>
            {one.name}{' '}
            <Small style={{ fontFamily: font.text, fontWeight: 400 }}>
              {first.page > 0 ? `page ${first.page}` : 'on no page'} · {counted(group.length, 'field')}
            </Small>
          </div>,
          ...group.map((entry) => {
            const { field, rule, suggested } = entry;
            const isChosen = chosen?.template === one.id && chosen.field === field.name;
            const evaluation = evaluations.get(one.id);
            const mark = markFor(entry);
            return [
              <RowLine
                key={`${one.id} ${field.name}`}
                role="button"
                tabIndex={0}
                aria-expanded={isChosen}
                aria-label={fieldLabel(field)}
                data-chosen={isChosen || undefined}
                data-pointed={(pointed?.template === one.id && pointed.field === field.name) || undefined}
                onClick={() => onChoose(one.id, field.name)}
                onKeyDown={(event) => {
                  if (event.target !== event.currentTarget) return;
                  if (event.key === 'Enter' || event.key === ' ') {
                    event.preventDefault();
                    onChoose(one.id, field.name);
                  }
                }}
                onMouseEnter={() => onPoint(field.name)}
                onMouseLeave={() => onPoint(null)}
              >
                <div>
                  {fieldLabel(field)}
                  <code title={field.name}>{field.name}</code>
                </div>
                <div>
                  {rule ? (
                    <RuleWords rule={rule} />
                  ) : suggested ? (
                    <span onClick={(event) => event.stopPropagation()}>
                      <RuleWords rule={suggested} />
                      <Button
                        small
                        look="plain"
                        onPress={() => onRule(one.id, field.name, suggested)}
                        aria-label={`Accept the suggestion for ${fieldLabel(field)}`}
                      >
                        <Sparkles size={12} />
                        Accept
                      </Button>
                    </span>
                  ) : (
                    <Say>nothing yet</Say>
                  )}
                </div>
                <div>{valueWords(field, evaluation?.values[field.name])}</div>
                <div>
                  <Mark $tone={mark.tone}>
                    {mark.icon}
                    {mark.word}
                  </Mark>
                </div>
              </RowLine>,
              isChosen && (
                <div className="editor" key={`${one.id} ${field.name} editor`}>
                  <RuleEditor field={field} rule={rule} columns={columns} onChange={(next) => onRule(one.id, field.name, next)} />
                  {evaluation?.problems
                    .filter((problem) => problem.field === field.name)
                    .map((problem) => (
                      <Notice key={problem.field} tone="brick">
                        “{problem.untranslated.text}” is not among the values that are translated:{' '}
                        {problem.untranslated.accepted.join(', ')}.
                      </Notice>
                    ))}
                </div>
              ),
            ];
          }),
        ];
      })}
    </Sheet>
  );
}
