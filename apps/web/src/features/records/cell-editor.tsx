import { t } from '@mailbag/core/words';
import type { CorrectionAnswer } from '@mailbag/contract';
import { Undo2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { color } from '../../theme';
import { when } from '../when';

const Cell = styled.div<{ $corrected: boolean }>`
  position: relative;
  min-height: 26px;
  padding: 3px 8px;
  border-radius: 3px;
  cursor: text;
  white-space: pre;
  overflow: hidden;
  text-overflow: ellipsis;
  box-shadow: inset 0 0 0 1px transparent;
  &:hover,
  &:focus-visible {
    box-shadow: inset 0 0 0 1px ${color.line};
  }
  /* The folded corner of a value that was changed here. */
  ${({ $corrected }) =>
    $corrected &&
    `background: ${color.mossWash};
     &::after { content: ''; position: absolute; right: 0; top: 0; border: 5px solid ${color.moss}; border-left-color: transparent; border-bottom-color: transparent; }`}
`;
const Line = styled.input`
  width: 100%;
  min-height: 26px;
  padding: 3px 7px;
  border: 0;
  border-radius: 3px;
  outline: 2px solid ${color.plum};
  outline-offset: -1px;
  background: ${color.sheet};
`;
const Undo = styled.button`
  position: absolute;
  right: 8px;
  top: 3px;
  border: 0;
  padding: 2px 4px;
  border-radius: 3px;
  background: ${color.sheet};
  color: ${color.ink};
  cursor: pointer;
  opacity: 0;
  ${Cell}:hover &, ${Cell}:focus-within &, &:focus-visible {
    opacity: 1;
  }
`;

/** What a corrected value tells of itself. */
export const correctionWords = ({ was, who, at }: CorrectionAnswer): string => t`Was “${was || t`empty`}”. Changed by ${who}, ${when(at)}.`;

/** A value that is changed in place: Enter or a double click begins, Enter keeps, Escape leaves it as it was. */
export function CellEditor({
  label,
  text,
  correction,
  onSave,
  onUndo,
  startWith = null,
  onDone,
}: {
  label: string;
  text: string;
  correction: CorrectionAnswer | null;
  onSave: (value: string) => void;
  onUndo: (id: number) => void;
  /** Begin at once, with this text. */
  startWith?: string | null;
  /** @param step where one goes on from a key; null: the focus has gone elsewhere */
  onDone?: (step: { down: number; right: number } | null) => void;
}) {
  const [draft, setDraft] = useState<string | null>(startWith);
  const line = useRef<HTMLInputElement>(null);
  const isOpen = draft !== null;
  useEffect(() => {
    if (isOpen) line.current?.focus();
  }, [isOpen]);
  /** Leaving the line by a key takes the focus away, which would end it a second time. */
  const isEnded = useRef(false);
  const begin = (): void => {
    isEnded.current = false;
    setDraft(text);
  };
  const end = (save: boolean, step: { down: number; right: number } | null): void => {
    if (isEnded.current) return;
    isEnded.current = true;
    if (save && draft !== null && draft !== text) onSave(draft);
    setDraft(null);
    onDone?.(step);
  };
  if (draft !== null)
    return (
      <Line
        ref={line}
        aria-label={label}
        value={draft}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={() => end(true, null)}
        onClick={(event) => event.stopPropagation()}
        onKeyDown={(event) => {
          event.stopPropagation();
          const way = event.shiftKey ? -1 : 1;
          if (event.key === 'Enter') end(true, { down: way, right: 0 });
          if (event.key === 'Escape') end(false, { down: 0, right: 0 });
          // In a sheet Tab goes on to the next value; elsewhere it leaves.
          if (event.key === 'Tab' && onDone) {
            event.preventDefault();
            end(true, { down: 0, right: way });
          }
        }}
      />
    );
  return (
    <Cell
      $corrected={correction !== null}
      role="button"
      tabIndex={0}
      aria-label={t`${label}: ${text || t`empty`}. Press Enter to change it.`}
      title={correction ? correctionWords(correction) : text}
      onDoubleClick={begin}
      onClick={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === 'F2') {
          event.preventDefault();
          begin();
        }
      }}
    >
      {text || <span style={{ color: color.faded }}>{t`empty`}</span>}
      {correction && (
        <Undo aria-label={t`Undo: ${label}`} title={t`Back to “${correction.was || t`empty`}”`} onClick={() => onUndo(correction.id)}>
          <Undo2 size={13} />
        </Undo>
      )}
    </Cell>
  );
}
