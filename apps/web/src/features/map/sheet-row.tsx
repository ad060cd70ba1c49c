import { counted, t } from '@mailbag/core/words';
import { fieldLabel } from '@mailbag/core';
import type { FillRule } from '@mailbag/core';
import { Sparkles } from 'lucide-react';
import type { RefObject } from 'react';
import { memo } from 'react';
import styled from 'styled-components';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Small } from '../../ui/layout';
import { Mark, Say } from '../../ui/mark';
import { nameEnd } from '../page/field-facts';
import { Confidence } from './confidence';
import { FieldHandle } from './field-handle';
import type { FieldMark } from './field-mark';
import type { PacketEntry } from './packet-entries';
import { RuleWords } from './rule-words';

/** Field, rule, value and mark: the same in each row. */
export const SHEET_COLUMNS = 'minmax(0, 34fr) minmax(0, 36fr) minmax(0, 22fr) 88px';
/** On a small screen the value and its mark stand below the field and its rule. */
export const SMALL_SCREEN = '@media (max-width: 560px)';

const RowLine = styled.div`
  display: grid;
  grid-template-columns: ${SHEET_COLUMNS};
  ${SMALL_SCREEN} {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
  /* Rows out of sight cost nothing; a form may have a thousand of them. */
  content-visibility: auto;
  contain-intrinsic-size: auto 43px;
  @media print {
    content-visibility: visible;
  }
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

interface Props {
  entry: PacketEntry;
  /** What stands in it for the record. */
  words: string;
  mark: FieldMark;
  isChosen: boolean;
  isPointed: boolean;
  /** The one that Tab comes to. */
  isStop: boolean;
  acts: RefObject<{
    onStop: (entry: PacketEntry) => void;
    onChoose: (template: number, field: string) => void;
    onPoint: (field: string | null) => void;
    onRule: (entry: PacketEntry, rule: FillRule | undefined) => void;
  }>;
}

/** What a row shows of an answer. */
const shownOf = ({ entry: { template, field, parts, also, isMixed, suggested }, words, mark, isChosen, isPointed, isStop }: Props): string =>
  JSON.stringify([template.id, field.name, parts.length, also.map((one) => one.template.id), isMixed, suggested, words, mark.tone, mark.word, isChosen, isPointed, isStop]); // prettier-ignore

/** An answer with its rule and its value for one record. It is drawn anew only when something of it is another: most of a sheet stays as one rule changes. */
export const SheetRow = memo(
  function SheetRow({ entry, words, mark, isChosen, isPointed, isStop, acts }: Props) {
    const { template, field, parts, also, rule, isMixed, suggested } = entry;
    const label = fieldLabel(field);
    const choose = (): void => acts.current.onChoose(template.id, field.name);
    return (
      <RowLine
        role="row"
        aria-level={2}
        aria-expanded={isChosen}
        tabIndex={isStop ? 0 : -1}
        data-stop
        data-row-template={template.id}
        data-row-field={field.name}
        data-chosen={isChosen || undefined}
        data-pointed={isPointed || undefined}
        onClick={choose}
        onKeyDown={(event) => {
          if (event.target !== event.currentTarget) return;
          if (event.key === 'Enter' || event.key === ' ') {
            event.preventDefault();
            choose();
          }
        }}
        onFocus={() => acts.current.onStop(entry)}
        onMouseEnter={() => acts.current.onPoint(field.name)}
        onMouseLeave={() => acts.current.onPoint(null)}
      >
        <div role="rowheader">
          <FieldHandle template={template.id} field={field.name} label={label} />
          {parts.length > 1 && <Small> {counted(parts.length, 'box', 'boxes')}</Small>}
          {also.length > 0 && <Small>{t` also in ${also.map((other) => other.template.name).join(', ')}`}</Small>}
          <code title={parts.map(({ name }) => name).join('\n')}>{parts.map(({ name }) => nameEnd(name)).join(' · ')}</code>
        </div>
        <div role="gridcell">
          {rule ? (
            <RuleWords rule={rule} />
          ) : suggested ? (
            <>
              <RuleWords rule={suggested.rule} />
              <Confidence confidence={suggested.confidence} why={suggested.why} />
              <span onClick={(event) => event.stopPropagation()}>
                <Button
                  small
                  look="plain"
                  excludeFromTabOrder
                  onPress={() => acts.current.onRule(entry, suggested.rule)}
                  aria-label={t`Accept the suggestion for ${label}`}
                >
                  <Sparkles size={12} />
                  {t`Accept`}
                </Button>
              </span>
            </>
          ) : (
            <Say>{isMixed ? t`box by box` : t`nothing yet`}</Say>
          )}
        </div>
        <div role="gridcell">{words}</div>
        <div role="gridcell">
          <Mark $tone={mark.tone}>
            {mark.icon}
            {mark.word}
          </Mark>
        </div>
      </RowLine>
    );
  },
  (before, now) => before.entry.rule === now.entry.rule && shownOf(before) === shownOf(now),
);
