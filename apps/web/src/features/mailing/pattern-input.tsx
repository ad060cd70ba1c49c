import { t } from '@mailbag/core/words';
import type { Column, letterExtras } from '@mailbag/core';
import { patternExtras } from '@mailbag/core';
import { Braces } from 'lucide-react';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { color } from '../../theme';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Offers } from '../../ui/offers';

const Frame = styled.div`
  position: relative;
`;
const Corner = styled.div`
  position: absolute;
  right: 0;
  top: -8px;
  display: flex;
  align-items: center;
  gap: 4px;
  color: ${color.faded};
`;
export const extraWords: Record<(typeof letterExtras)[number], string> = {
  code: t`Copy code`,
  template: t`Name of the template`,
  batch: t`Number of the batch`,
  number: t`Running number`,
  today: t`Date of the batch`,
  link: t`Personal link of the recipient`,
  replaces: t`Code of the copy that this one replaces`,
  replaced_on: t`Date of the copy that this one replaces`,
};

/** A text with data in it. Columns are offered as soon as two braces are typed, and in a menu. */
export function PatternInput({
  label,
  value,
  onChange,
  columns,
  rows,
  error,
  help,
  extras = patternExtras,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  columns: readonly Column[];
  rows?: number;
  error?: string | null;
  help?: string;
  /** Names beside the columns. */
  extras?: readonly (keyof typeof extraWords)[];
}) {
  const input = useRef<HTMLInputElement & HTMLTextAreaElement>(null);
  const [open, setOpen] = useState<{ from: number; text: string } | null>(null);
  const [at, setAt] = useState(0);
  const names = [
    ...columns.map(({ name, slug }) => ({ slug, text: name })),
    ...extras.map((slug) => ({ slug: slug as string, text: extraWords[slug] })),
  ];
  const offers = open
    ? names.filter(({ slug, text }) => `${slug} ${text}`.toLowerCase().includes(open.text.toLowerCase())).slice(0, 40)
    : [];

  const insert = (slug: string, from: number, to: number): void => {
    const piece = `{{ ${slug} }}`;
    onChange(value.slice(0, from) + piece + value.slice(to).replace(/^\s*\}\}/, ''));
    setOpen(null);
    requestAnimationFrame(() => {
      input.current?.focus();
      input.current?.setSelectionRange(from + piece.length, from + piece.length);
    });
  };
  const typed = (next: string): void => {
    onChange(next);
    const caret = input.current?.selectionStart ?? next.length;
    const found = /\{\{\s*([\p{L}\p{N}_]*)$/u.exec(next.slice(0, caret));
    setOpen(found ? { from: found.index, text: found[1]! } : null);
    setAt(0);
  };
  return (
    <Frame>
      <TextInput
        label={label}
        value={value}
        onChange={typed}
        mono={!rows}
        inputRef={input}
        error={error ?? null}
        {...(rows ? { rows } : {})}
        {...(help ? { help } : {})}
        onBlur={() => setTimeout(() => setOpen(null), 150)}
        onKeyDown={(event) => {
          if (offers.length === 0 || !open) return;
          if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
            event.preventDefault();
            setAt((at + (event.key === 'ArrowDown' ? 1 : offers.length - 1)) % offers.length);
          } else if (event.key === 'Enter' || event.key === 'Tab') {
            event.preventDefault();
            insert(offers[at]!.slug, open.from, input.current?.selectionStart ?? value.length);
          } else if (event.key === 'Escape') setOpen(null);
        }}
      />
      <Corner>
        <Braces size={13} />
        <Choice
          label={t`Put a column into ${label.toLowerCase()}`}
          hideLabel
          small
          items={names.map(({ slug, text }) => ({ id: slug, text, detail: `{{ ${slug} }}` }))}
          value={null}
          placeholder={t`Insert`}
          onChange={(slug) => {
            const caret = input.current?.selectionStart ?? value.length;
            insert(slug, caret, caret);
          }}
        />
      </Corner>
      {offers.length > 0 && (
        <Offers
          items={offers}
          chosen={at}
          onChoose={({ slug }) => insert(slug, open!.from, input.current?.selectionStart ?? value.length)}
          style={{ position: 'absolute', left: 0, top: '100%' }}
        />
      )}
    </Frame>
  );
}
