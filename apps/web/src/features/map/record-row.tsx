import { t } from '@mailbag/core/words';
import type { ChangedValue } from '@mailbag/contract';
import type { Column, SourceRecord } from '@mailbag/core';
import styled from 'styled-components';
import { color } from '../../theme';

const Frame = styled.dl`
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  max-height: 152px;
  overflow: auto;
  border-bottom: 1px solid ${color.line};
  & > div {
    padding: 3px 10px;
    border-right: 1px solid ${color.hair};
    border-bottom: 1px solid ${color.hair};
    min-width: 0;
  }
  & > div[data-feeds] {
    background: ${color.plumWash};
    box-shadow: inset 3px 0 0 ${color.plum};
  }
  & dd > del {
    color: ${color.faded};
    margin-right: 6px;
  }
  & dt {
    font-size: 12px;
    line-height: 16px;
    color: ${color.faded};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & dd {
    margin: 0;
    line-height: 18px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** The source's own row beside the page. @param feeds columns that feed the box that is pointed at or chosen */
export function RecordRow({
  columns,
  record,
  feeds,
  changed,
}: {
  columns: readonly Column[];
  record: SourceRecord;
  feeds: readonly string[];
  /** Values that are others than in its last copy. */
  changed: readonly ChangedValue[];
}) {
  return (
    <Frame aria-label={t`Row of the source`}>
      {columns.map(({ name }, at) => {
        const text = record.cells[at]?.text ?? '';
        const isFeeding = feeds.includes(name);
        const before = changed.find(({ column }) => column === name);
        return (
          <div key={name} data-feeds={isFeeding || undefined}>
            <dt title={name}>
              {name}
              {isFeeding && t` · in this box`}
              {before && t` · changed since its last copy`}
            </dt>
            <dd title={text}>
              {before && <del>{before.was || t`empty`}</del>}
              {text || '—'}
            </dd>
          </div>
        );
      })}
    </Frame>
  );
}
