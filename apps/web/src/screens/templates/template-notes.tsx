import { plural, t } from '@mailbag/core/words';
import type { TemplateNote } from '@mailbag/core';
import { fewNames, templateNoteSentence } from '@mailbag/core';
import { Info } from 'lucide-react';
import styled from 'styled-components';
import { color } from '../../theme';
import { Small } from '../../ui/layout';

const Line = styled.details`
  background: ${color.ochreWash};
  border-radius: 6px;
  padding: 6px 12px;
  & > summary {
    cursor: pointer;
    display: flex;
    gap: 8px;
    align-items: center;
    & > svg {
      color: ${color.ochre};
      flex: none;
    }
    & > span {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  }
  & > ul {
    margin: 6px 0 0;
    padding-left: 40px;
    max-height: 160px;
    overflow: auto;
  }
`;

/** What is to be known about a file, in one line that opens. */
export function TemplateNotes({ notes }: { notes: readonly TemplateNote[] }) {
  const [first] = notes;
  if (!first) return null;
  return (
    <Line>
      <summary>
        <Info size={16} />
        <span>{notes.length === 1 ? templateNoteSentence(first) : t`${plural(notes.length, 'thing')} to know about this file`}</span>
      </summary>
      <ul>
        {notes.map((note) => (
          <li key={note.code}>
            {templateNoteSentence(note)} {note.fields.length > 0 && <Small>{fewNames(note.fields)}</Small>}
          </li>
        ))}
      </ul>
    </Line>
  );
}
