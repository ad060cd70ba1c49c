import type { Column, Evaluation, Field, FieldMap, FillRule, Work } from '@mailbag/core';
import { fieldLabel } from '@mailbag/core';
import { Sparkles } from 'lucide-react';
import styled from 'styled-components';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Small } from '../../ui/layout';
import { Mark, Notice, Say } from '../../ui/mark';
import { counted } from '../when';
import { Confidence } from './confidence';
import type { FieldMark } from './field-mark';
import { nameEnd } from '../page/field-facts';
import { AnswerPieces } from './answer-pieces';
import { RuleEditor } from './rules/rule-editor';
import { RuleWords } from './rule-words';
import type { PacketEntry } from './packet-entries';
import { FieldHandle } from './field-handle';
import { PlacesList } from './places-list';
import { answerWords } from './sheet-entries';

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

/** An answer by its first field. */
export interface ChosenField {
  template: number;
  field: string;
}

interface Props {
  entries: readonly PacketEntry[];
  columns: readonly Column[];
  /** The record that is looked at; null: there is none. */
  work: Work | null;
  /** How the office writes dates and numbers. BCP 47. */
  locale: string;
  /** Whose values stand there. */
  whose: string;
  maps: Readonly<Record<number, FieldMap>>;
  evaluations: ReadonlyMap<number, Evaluation | null>;
  markFor: (entry: PacketEntry) => FieldMark;
  chosen: ChosenField | null;
  /** Of the template that is shown. */
  pointed: ChosenField | null;
  onChoose: (template: number, field: string) => void;
  onPoint: (field: string | null) => void;
  onRule: (entry: PacketEntry, rule: FillRule | undefined) => void;
  /** One box of an answer is filled otherwise. */
  onPiece: (template: number, field: string, rule: FillRule | undefined) => void;
  /** Takes over what is suggested for several. */
  onAccept: (entries: readonly PacketEntry[]) => void;
  /** What a field takes over all records. */
  distribution: (template: number, field: Field) => React.ReactNode;
}

/** Every answer with its rule and its value for one record, a page a group; the chosen one opens its editor below it. */
export function FillSheet({
  entries,
  columns,
  work,
  locale,
  whose,
  maps,
  evaluations,
  markFor,
  chosen,
  pointed,
  onChoose,
  onPoint,
  onRule,
  onPiece,
  onAccept,
  distribution,
}: Props) {
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
              {first.page > 0 ? `page ${first.page}` : 'on no page'} · {counted(group.length, 'answer')}
            </Small>
            {group.filter(({ suggested }) => suggested).length > 1 && (
              <Button changes small look="bare" onPress={() => onAccept(group)}>
                Accept these {group.filter(({ suggested }) => suggested).length}
              </Button>
            )}
          </div>,
          ...group.map((entry) => {
            const { field, parts, also, rule, isMixed, suggested } = entry;
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
                data-row-template={one.id}
                data-row-field={field.name}
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
                  <FieldHandle template={one.id} field={field.name} label={fieldLabel(field)} />
                  {parts.length > 1 && <Small> {counted(parts.length, 'box', 'boxes')}</Small>}
                  {also.length > 0 && <Small> also in {also.map((other) => other.template.name).join(', ')}</Small>}
                  <code title={parts.map(({ name }) => name).join('\n')}>{parts.map(({ name }) => nameEnd(name)).join(' · ')}</code>
                </div>
                <div>
                  {rule ? (
                    <RuleWords rule={rule} />
                  ) : suggested ? (
                    <span onClick={(event) => event.stopPropagation()}>
                      <RuleWords rule={suggested.rule} />
                      <Confidence confidence={suggested.confidence} why={suggested.why} />
                      <Button
                        small
                        look="plain"
                        onPress={() => onRule(entry, suggested.rule)}
                        aria-label={`Accept the suggestion for ${fieldLabel(field)}`}
                      >
                        <Sparkles size={12} />
                        Accept
                      </Button>
                    </span>
                  ) : (
                    <Say>{isMixed ? 'box by box' : 'nothing yet'}</Say>
                  )}
                </div>
                <div>{answerWords(entry, evaluation)}</div>
                <div>
                  <Mark $tone={mark.tone}>
                    {mark.icon}
                    {mark.word}
                  </Mark>
                </div>
              </RowLine>,
              isChosen && (
                <div className="editor" key={`${one.id} ${field.name} editor`}>
                  <RuleEditor
                    field={field}
                    rule={rule}
                    columns={columns}
                    work={work}
                    locale={locale}
                    onChange={(next) => onRule(entry, next)}
                  />
                  {also.length > 0 && (
                    <PlacesList entry={entry} evaluations={evaluations} columns={columns} work={work} locale={locale} onRule={onRule} />
                  )}
                  {parts.length > 1 && also.length === 0 && (
                    <AnswerPieces
                      entry={entry}
                      map={maps[one.id] ?? {}}
                      evaluation={evaluation ?? null}
                      columns={columns}
                      work={work}
                      locale={locale}
                      onPiece={(name, next) => onPiece(one.id, name, next)}
                      onPoint={onPoint}
                    />
                  )}
                  {evaluation?.problems
                    .filter((problem) => parts.some(({ name }) => name === problem.field))
                    .slice(0, 1)
                    .map((problem) => (
                      <Notice key={problem.field} tone="brick">
                        {problem.cannot
                          ? problem.cannot.cannot
                          : `“${problem.untranslated.text}” is not among the values that are translated: ${problem.untranslated.accepted.join(', ')}.`}
                      </Notice>
                    ))}
                  {(rule ?? isMixed) && distribution(one.id, parts[0]!)}
                </div>
              ),
            ];
          }),
        ];
      })}
    </Sheet>
  );
}
