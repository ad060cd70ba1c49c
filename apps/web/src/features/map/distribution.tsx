import { count, counted, plural, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { SurveyedField } from '@mailbag/contract';
import type { Field } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color } from '../../theme';
import { Small } from '../../ui/layout';
import { Mark, Say } from '../../ui/mark';
import { valueWords } from './field-mark';

const Frame = styled.section`
  background: ${color.plumWash};
  padding: 0 12px 12px;
  display: flex;
  flex-direction: column;
  gap: 6px;
  /* Three lines, as most fields have: rows below stay where they are when the numbers come. */
  min-height: 86px;
`;
const List = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 96px auto;
  gap: 2px 10px;
  align-items: center;
  font-size: 13px;
  & > span:first-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;
const Words = styled.span`
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;
const Share = styled.span`
  height: 8px;
  border-radius: 4px;
  background: ${color.line};
  overflow: hidden;
  & > i {
    display: block;
    height: 100%;
    background: ${color.plum};
  }
`;
const Number = styled.button`
  border: 0;
  background: none;
  padding: 2px 4px;
  border-radius: 4px;
  cursor: pointer;
  text-align: right;
  white-space: nowrap;
  color: ${color.plum};
  text-decoration: underline;
  text-underline-offset: 2px;
  &:focus-visible {
    outline: 2px solid ${color.plum};
  }
`;
const Records = styled.ul`
  grid-column: 1 / -1;
  margin: 0;
  padding: 6px;
  list-style: none;
  max-height: 156px;
  overflow: auto;
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: 6px;
  columns: 2;
  & button {
    border: 0;
    background: none;
    padding: 2px 4px;
    cursor: pointer;
    text-align: left;
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

interface Line {
  key: string;
  words: string;
  number: number;
  of: 'value' | 'empty' | 'stopped';
  value: string;
}

/** Where most have a value of their own, those that are shared say more than any list of them. */
function toldValues({ values, distinct }: SurveyedField, records: number): SurveyedField['values'] {
  return distinct > 12 && distinct > records / 2 ? values.filter(({ count: number }) => number > 1).slice(0, 6) : values;
}

function linesOf(field: Field, own: SurveyedField, records: number): Line[] {
  const { empty, stopped } = own;
  const isTick = field.kind === 'checkbox';
  return [
    ...toldValues(own, records).map(({ value, count: number }) => ({
      key: t`value ${value}`,
      words: valueWords(field, value),
      number,
      of: 'value' as const,
      value,
    })),
    ...(empty > 0 ? [{ key: 'empty', words: isTick ? t`not ticked` : t`left blank`, number: empty, of: 'empty' as const, value: '' }] : []),
    ...(stopped > 0 ? [{ key: 'stopped', words: 'stopped', number: stopped, of: 'stopped' as const, value: '' }] : []),
  ];
}

/** What a field takes over all records, each number with the records behind it. */
export function Distribution({
  mailing,
  template,
  field,
  about,
  onRecord,
}: {
  mailing: number;
  template: number;
  field: Field;
  /** Says of a record which one it is. */
  about: (cells: readonly { text: string }[]) => string;
  onRecord: (index: number) => void;
}) {
  const { data, error, isFetching } = useQuery(queries.survey(mailing));
  const [opened, setOpened] = useState<string | null>(null);
  const own = data?.fields.find((one) => one.template === template && one.field === field.name);
  if (error) return <Frame aria-label={t`Over all records`}>{sentenceOf(error)}</Frame>;
  if (!data || !own)
    return (
      <Frame aria-label={t`Over all records`} aria-busy={isFetching}>
        {isFetching && <Say>{t`Going through all records …`}</Say>}
      </Frame>
    );
  const lines = linesOf(field, own, data.records);
  const told = lines.reduce((sum, { number }) => sum + number, 0);
  const [first] = lines;
  return (
    <Frame aria-label={t`Over all records`} aria-busy={isFetching}>
      <div>
        <Small>
          {t`Over ${plural(data.records, 'record')}`}
          {own.distinct > 1 && t`, ${own.distinct >= 2000 ? t`2,000 or more` : count(own.distinct)} different values`}
        </Small>{' '}
        {lines.length === 1 && data.records > 1 && first && (
          <Mark $tone="ochre">{t`${count(first.number)} of ${count(data.records)}  ${first.words}: is that intended?`}</Mark>
        )}
      </div>
      <List>
        {lines.map((line) => (
          <DistributionLine
            key={line.key}
            line={line}
            records={data.records}
            isOpen={opened === line.key}
            onOpen={() => setOpened(opened === line.key ? null : line.key)}
            list={<CountedRecords mailing={mailing} template={template} field={field.name} line={line} about={about} onRecord={onRecord} />}
          />
        ))}
      </List>
      {told < data.records && (
        <Small>{t`${lines.length === 0 ? counted(data.records - told, 'record') : counted(data.records - told, 'further record')} with rarer values or one of their own.`}</Small>
      )}
      {own.longest && own.longest.value.length > 12 && (
        <Small>{phrase`Longest: ${(<Number onClick={() => onRecord(own.longest!.index)}>{valueWords(field, own.longest.value).slice(0, 60)}</Number>)}`}</Small>
      )}
    </Frame>
  );
}

function DistributionLine({
  line,
  records,
  isOpen,
  onOpen,
  list,
}: {
  line: Line;
  records: number;
  isOpen: boolean;
  onOpen: () => void;
  list: React.ReactNode;
}) {
  return (
    <>
      <Words title={line.words}>{line.words}</Words>
      <Share aria-hidden>
        <i style={{ width: `${(line.number / Math.max(1, records)) * 100}%` }} />
      </Share>
      <Number
        aria-expanded={isOpen}
        aria-label={t`${line.words}: ${count(line.number)} of ${count(records)}`}
        onClick={onOpen}
      >{t`${count(line.number)} of ${count(records)}`}</Number>
      {isOpen && list}
    </>
  );
}

function CountedRecords({
  mailing,
  template,
  field,
  line: { of, value },
  about,
  onRecord,
}: {
  mailing: number;
  template: number;
  field: string;
  line: Line;
  about: (cells: readonly { text: string }[]) => string;
  onRecord: (index: number) => void;
}) {
  const { data, error } = useQuery(queries.countedRecords(mailing, { template, field, of, value }));
  if (error) return <Records as="div">{sentenceOf(error)}</Records>;
  if (!data) return <Records as="div">{t`Looking for them …`}</Records>;
  return (
    <Records aria-label={t`Records behind the number`}>
      {data.items.map(({ index, record }) => (
        <li key={index}>
          <button onClick={() => onRecord(index)}>
            {count(index + 1)} · {about(record.cells)}
          </button>
        </li>
      ))}
      {data.total > data.items.length && <li>{t`and ${count(data.total - data.items.length)} more`}</li>}
    </Records>
  );
}
