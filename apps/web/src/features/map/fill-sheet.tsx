import { counted, t } from '@mailbag/core/words';
import type { Column, Evaluation, Field, FieldMap, FillRule, Work } from '@mailbag/core';
import { fieldLabel } from '@mailbag/core';
import type { KeyboardEvent } from 'react';
import { useEffect, useState } from 'react';
import { VisuallyHidden } from 'react-aria-components';
import styled from 'styled-components';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Small } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { onArrowStops } from '../../ui/arrow-stops';
import { useShortcutHelp } from '../../ui/shortcuts';
import { useLatest } from '../../ui/use-latest';
import type { FieldMark } from './field-mark';
import { AnswerPieces } from './answer-pieces';
import { RuleBody } from './rules/loaded-rule-body';
import { RuleEditor } from './rules/rule-editor';
import type { PacketEntry } from './packet-entries';
import { PlacesList } from './places-list';
import { answerWords } from './sheet-entries';
import { SHEET_COLUMNS, SMALL_SCREEN, SheetRow } from './sheet-row';

const Sheet = styled.div`
  & > .head {
    display: grid;
    grid-template-columns: ${SHEET_COLUMNS};
    ${SMALL_SCREEN} {
      display: none;
    }
    position: sticky;
    top: 0;
    z-index: 2;
    background: ${color.sheet};
    font-size: 12px;
    line-height: 16px;
    color: ${color.faded};
    border-bottom: 1px solid ${color.line};
  }
  & > .head > div {
    padding: 6px 8px;
  }
  & > .group {
    position: sticky;
    top: 28px;
    ${SMALL_SCREEN} {
      top: 0;
    }
    z-index: 1;
    background: ${color.paper};
    padding: 5px 8px;
    border-bottom: 1px solid ${color.hair};
    font: 600 14px/18px ${font.head};
  }
  & > .editor {
    border-bottom: 1px solid ${color.hair};
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
  /** What can be done with its rule beside changing it. */
  handing: (entry: PacketEntry) => React.ReactNode;
  /** What a field takes over all records. */
  distribution: (template: number, field: Field) => React.ReactNode;
}

const KEYS = [
  { keys: t`↑ ↓ Home End`, what: t`From answer to answer` },
  { keys: 'Enter', what: t`Open or close the rule of an answer` },
  { keys: '→', what: t`To the buttons of a row` },
  { keys: t`Esc`, what: t`From a rule back to its row` },
];
const keyOf = ({ template, field }: PacketEntry): string => `${template.id} ${field.name}`;

/** From the editor of a rule back to its row. */
function backToRow(event: KeyboardEvent<HTMLElement>): void {
  if (event.key !== 'Escape' || event.defaultPrevented) return;
  const row = event.currentTarget.previousElementSibling;
  if (!(row instanceof HTMLElement)) return;
  event.preventDefault();
  row.focus();
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
  handing,
  distribution,
}: Props) {
  useShortcutHelp(KEYS);
  // There when the first rule is opened: rows below it would move once more, just when the next one is pressed.
  useEffect(() => RuleBody.ahead(), []);
  const [stop, setStop] = useState<string | null>(null);
  const acts = useLatest({ onChoose, onPoint, onRule, onStop: (entry: PacketEntry) => setStop(keyOf(entry)) });
  const stops = new Set(entries.map(keyOf));
  /** Tab comes to the row where somebody was last, else to the chosen one, else to the first. */
  const tabStop =
    [stop, chosen && `${chosen.template} ${chosen.field}`].find((key) => key && stops.has(key)) ?? (entries[0] && keyOf(entries[0]));
  const groups = [...Map.groupBy(entries, ({ template, field }) => `${template.id} ${field.page}`).values()];
  return (
    <Sheet role="treegrid" aria-label={t`Answers of the packet`} onKeyDown={onArrowStops}>
      <div className="head" role="row">
        <div role="columnheader">{t`Field`}</div>
        <div role="columnheader">{t`Filled with`}</div>
        <div role="columnheader">{whose}</div>
        <div role="columnheader">
          <VisuallyHidden>{t`Mark`}</VisuallyHidden>
        </div>
      </div>
      {groups.map((group) => {
        const { template: one, field: first } = group[0]!;
        return [
          <div className="group" role="row" aria-level={1} aria-expanded key={`${one.id} ${first.page}`}>
            <div role="gridcell" aria-colspan={4}>
              {one.name}{' '}
              <Small style={{ fontFamily: font.text, fontWeight: 400 }}>
                {first.page > 0 ? t`page ${first.page}` : t`on no page`} · {counted(group.length, 'answer')}
              </Small>
              {group.filter(({ suggested }) => suggested).length > 1 && (
                <Button
                  changes
                  small
                  look="bare"
                  onPress={() => onAccept(group)}
                >{t`Accept these ${group.filter(({ suggested }) => suggested).length}`}</Button>
              )}
            </div>
          </div>,
          ...group.map((entry) => {
            const { field, parts, also, rule, isMixed } = entry;
            const isChosen = chosen?.template === one.id && chosen.field === field.name;
            const evaluation = evaluations.get(one.id);
            return [
              <SheetRow
                key={`${one.id} ${field.name}`}
                entry={entry}
                words={answerWords(entry, evaluation)}
                mark={markFor(entry)}
                isChosen={isChosen}
                isPointed={pointed?.template === one.id && pointed.field === field.name}
                isStop={tabStop === keyOf(entry)}
                acts={acts}
              />,
              isChosen && (
                <div
                  className="editor"
                  role="row"
                  aria-level={3}
                  aria-label={t`Rule of ${fieldLabel(field)}`}
                  key={`${one.id} ${field.name} editor`}
                  onKeyDown={backToRow}
                >
                  <div role="gridcell" aria-colspan={4}>
                    <RuleEditor
                      field={field}
                      rule={rule}
                      columns={columns}
                      work={work}
                      locale={locale}
                      isSeveral={parts.length > 1}
                      onChange={(next) => onRule(entry, next)}
                    />
                    {handing(entry)}
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
                            : t`“${problem.untranslated.text}” is not among the values that are translated: ${problem.untranslated.accepted.join(', ')}.`}
                        </Notice>
                      ))}
                    {(rule ?? isMixed) && distribution(one.id, parts[0]!)}
                  </div>
                </div>
              ),
            ];
          }),
        ];
      })}
    </Sheet>
  );
}
