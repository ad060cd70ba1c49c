import { plural, t } from '@mailbag/core/words';
import type { Column, Evaluation, FillRule, Work } from '@mailbag/core';
import { useState } from 'react';
import styled from 'styled-components';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Small } from '../../ui/layout';
import type { PacketEntry } from './packet-entries';
import { placesOf } from './packet-entries';
import { RuleEditor } from './rules/rule-editor';
import { answerWords } from './sheet-entries';

const Frame = styled.div`
  background: ${color.plumWash};
  padding: 0 12px 10px;
`;
const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  font-size: 13px;
  padding: 2px 0;
  & > span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** The templates of the packet that ask for the same answer: one rule fills them all, unless one is filled otherwise. */
export function PlacesList({
  entry,
  evaluations,
  columns,
  work,
  locale,
  onRule,
}: {
  entry: PacketEntry;
  evaluations: ReadonlyMap<number, Evaluation | null>;
  columns: readonly Column[];
  work: Work | null;
  locale: string;
  onRule: (entry: PacketEntry, rule: FillRule | undefined) => void;
}) {
  const [opened, setOpened] = useState<number | null>(null);
  const places = placesOf(entry);
  return (
    <Frame role="group" aria-label={t`Places of the answer`}>
      <Small>{t`One answer in ${plural(places.length, 'template')}: what is chosen above fills them all.`}</Small>
      {places.map((place) => {
        const { id, name } = place.template;
        return (
          <div key={id}>
            <Line>
              <span title={name}>{t`${name}, page ${place.field.page}`}</span>
              <span>{answerWords(place, evaluations.get(id))}</span>
              <Button
                changes
                small
                look="bare"
                aria-expanded={opened === id}
                aria-label={opened === id ? t`Close ${name}` : t`Fill ${name} differently`}
                onPress={() => setOpened(opened === id ? null : id)}
              >
                {opened === id ? t`Close` : t`Fill differently`}
              </Button>
            </Line>
            {opened === id && (
              <RuleEditor
                field={place.field}
                rule={place.rule}
                columns={columns}
                work={work}
                locale={locale}
                onChange={(rule) => onRule({ ...place, also: [] }, rule)}
              />
            )}
          </div>
        );
      })}
    </Frame>
  );
}
