import { count, counted, t } from '@mailbag/core/words';
import type { PickReason } from '@mailbag/contract';
import type { FieldMap } from '@mailbag/core';
import { SAMPLE_CODE, fillContext } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { ArrowLeft, Dices } from 'lucide-react';
import { useCallback, useMemo } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { firstCopy } from '../../features/map/record-copies';
import { recordWords } from '../../features/map/record-words';
import { useContactPages } from '../../features/map/use-contact-pages';
import { TrialPane, useTrial } from '../../features/trial/trial-pane';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Bar, Empty, Pane, Scroll, Small } from '../../ui/layout';
import { Split } from '../../ui/split';
import { LinkButton } from '../../ui/link-button';
import { Mark, Notice } from '../../ui/mark';
import { TrialButton } from './trial-run';

const WIDTH = 176;
const Grid = styled.ul`
  list-style: none;
  margin: 0;
  padding: 14px;
  display: grid;
  grid-template-columns: repeat(auto-fill, ${WIDTH + 12}px);
  gap: 16px 14px;
  background: ${color.ground};
  min-height: 100%;
  align-content: start;
  & > li > button {
    display: block;
    width: 100%;
    border: 0;
    padding: 6px;
    border-radius: 6px;
    background: none;
    text-align: left;
    cursor: pointer;
    color: inherit;
  }
  & > li > button:hover {
    background: ${color.kraft};
  }
  & > li > button:focus-visible {
    outline: 2px solid ${color.plum};
  }
`;
const Sheet = styled.div<{ $ratio: number }>`
  width: ${WIDTH}px;
  height: ${({ $ratio }) => Math.round(WIDTH * $ratio)}px;
  background: ${color.sheet};
  border: 1px solid ${color.line};
  margin-bottom: 6px;
  overflow: hidden;
  font-size: 12px;
  color: ${color.faded};
  & > img {
    width: 100%;
    display: block;
  }
`;
const Caption = styled.div`
  line-height: 17px;
  font-size: 13px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

const reasons: Record<PickReason, string> = {
  first: t`first`,
  last: t`last`,
  longest: t`longest`,
  emptiest: t`emptiest`,
  flagged: t`flagged`,
  value: t`value`,
  random: t`random`,
};
const chosenFirst: PickReason[] = ['first', 'last', 'longest', 'emptiest', 'random'];
const offered: PickReason[] = ['first', 'last', 'longest', 'emptiest', 'flagged', 'random'];

/** Many copies at once, those that are worth looking at before anything is made. */
export default function ContactPart({ work }: { work: MailingWork }) {
  const { mailing, plan, columns } = work;
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const templates = useMemo(
    () => plan.packet.flatMap((id) => mailing.templates.find((one) => one.id === id) ?? []),
    [plan.packet, mailing.templates],
  );
  const template = templates.find(({ id }) => id === Number(search.get('template'))) ?? templates[0];
  const page = Math.min(Math.max(1, Math.trunc(Number(search.get('page')) || 1)), template?.pageSizes.length ?? 1);
  // What is picked stands in the address, so that it comes back with it and can be sent to somebody.
  const why = (search.get('why')?.split(',') as PickReason[] | undefined) ?? chosenFirst;
  const column = search.get('column') ?? '';
  const seed = Number(search.get('seed') ?? 1) || 1;
  const put = (change: Record<string, string>): void =>
    setSearch(
      (before) => {
        for (const [name, value] of Object.entries(change)) before.set(name, value);
        return before;
      },
      { replace: true },
    );
  const wish = new URLSearchParams({
    why: [...why, ...(column === '' ? [] : ['value'])].join(','),
    column,
    random: search.get('random') ?? '8',
    seed: String(seed),
  }).toString();
  const { data, error, isFetching } = useQuery(queries.picks(mailing.id, wish));
  const map = template ? plan.maps[template.id] : undefined;
  const contextOf = useCallback((index: number) => fillContext(mailing.next, index, SAMPLE_CODE), [mailing.next]);
  const [when, copies] = template ? [plan.conditions?.[template.id] ?? null, plan.counts?.[template.id] ?? null] : [null, null];
  const { pages, error: drawingError } = useContactPages(
    template,
    { map: useMemo((): FieldMap => map ?? {}, [map]), columns, output: plan.output, sourceId: plan.sourceId ?? null },
    useMemo(
      () =>
        data?.items.map(({ index, record }) => ({ index, record: firstCopy({ when, count: copies }, record, columns, contextOf(index)) })),
      [data, when, copies, columns, contextOf],
    ),
    contextOf,
    page,
    WIDTH * 1.5,
  );
  const wordsOf = recordWords(columns, plan.keyColumn);
  const trial = useTrial(mailing.id);
  const nameOf = (index: number): string => {
    const record = data?.items.find((one) => one.index === index)?.record;
    const { key, names } = record ? wordsOf(record.cells) : { key: '', names: '' };
    return `${key} ${names}`.trim() || t`Record ${count(index + 1)}`;
  };
  const size = template?.pageSizes[page - 1];
  const shownPages = templates.flatMap(({ id, name, pageSizes }) =>
    pageSizes.map((_, at) => ({ id: `${id} ${at + 1}`, text: pageSizes.length > 1 ? t`${name}, page ${at + 1}` : name })),
  );
  const sheet = (
    <Pane aria-label={t`Contact sheet`}>
      <Bar style={{ flexWrap: 'wrap' }}>
        <LinkButton to={`/mailings/${mailing.id}/map`} $small $look="bare">
          <ArrowLeft size={14} />
          {t`Map`}
        </LinkButton>
        {offered.map((one) => (
          <Button
            key={one}
            small
            pressed={why.includes(one)}
            onPress={() =>
              put({
                why: (why.includes(one)
                  ? why.filter((other) => other !== one)
                  : offered.filter((other) => other === one || why.includes(other))
                ).join(','),
              })
            }
          >
            {reasons[one][0]!.toUpperCase() + reasons[one].slice(1)}
          </Button>
        ))}
        <Button
          small
          look="bare"
          isDisabled={!why.includes('random')}
          tip={t`Other random records`}
          onPress={() => put({ seed: String(seed + 1) })}
        >
          <Dices size={14} />
          {t`Others`}
        </Button>
        <Choice
          label={t`One for each value of`}
          hideLabel
          small
          items={[
            { id: '', text: t`no column` },
            ...columns.map(({ name, distinct }) => ({ id: name, text: name, detail: counted(distinct, 'value') })),
          ]}
          value={column === '' ? null : column}
          placeholder={t`Each value of …`}
          onChange={(name) => put({ column: name })}
        />
        <Small role="status">
          {data
            ? pages.size < data.items.length
              ? t`drawing ${pages.size} of ${data.items.length}`
              : `${counted(data.items.length, 'copy', 'copies')}${data.total > data.items.length ? t` of ${count(data.total)}` : ''}`
            : isFetching
              ? t`going through the records …`
              : ''}
        </Small>
        <div className="fill" />
        <TrialButton work={work} trial={trial} indexes={data?.items.map(({ index }) => index) ?? []} />
        {shownPages.length > 1 && (
          <Choice
            label={t`Page`}
            hideLabel
            small
            items={shownPages}
            value={template ? `${template.id} ${page}` : null}
            onChange={(id) => {
              const [one = '', number = ''] = id.split(' ');
              put({ template: one, page: number });
            }}
          />
        )}
      </Bar>
      {trial.make.error && <Notice tone="brick">{sentenceOf(trial.make.error)}</Notice>}
      {drawingError && <Notice tone="brick">{drawingError}</Notice>}
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
      <Scroll>
        {data?.items.length === 0 ? (
          <Empty title={t`No copy picked`}>{t`Choose above which copies to show: the first, the longest, some random ones.`}</Empty>
        ) : (
          <Grid>
            {data?.items.map(({ index, record, why: because, value }) => {
              const drawn = pages.get(index);
              const { key, names } = wordsOf(record.cells);
              const trouble = drawn?.notes.some(({ fit, characters }) => fit === 'overflows' || characters.length > 0);
              return (
                <li key={index}>
                  <button
                    title={t`Go to record ${count(index + 1)}`}
                    onClick={() => void navigate(`/mailings/${mailing.id}/map?record=${index}`)}
                  >
                    <Sheet $ratio={size ? size.height / size.width : 1.41}>
                      {drawn ? <img src={drawn.picture} alt="" /> : t`drawing …`}
                    </Sheet>
                    <Caption>
                      <b style={{ fontWeight: 600 }}>{key || t`Record ${count(index + 1)}`}</b> {names}
                    </Caption>
                    <Caption>
                      <Small>
                        {because
                          .map((one) => (one === 'value' ? `${column}: ${value === '' ? t`empty` : value}` : reasons[one]))
                          .join(' · ')}
                      </Small>{' '}
                      {trouble && <Mark $tone="brick">{t`does not fit`}</Mark>}
                    </Caption>
                  </button>
                </li>
              );
            })}
          </Grid>
        )}
      </Scroll>
    </Pane>
  );
  if (!trial.trial) return sheet;
  return (
    <Split $columns="minmax(0, 1fr) 330px">
      {sheet}
      <TrialPane mailingId={mailing.id} trial={trial} nameOf={nameOf} />
    </Split>
  );
}
