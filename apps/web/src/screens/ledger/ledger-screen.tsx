import { count, counted, t, translated } from '@mailbag/core/words';
import { copyStates, troubles } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { Search, X } from 'lucide-react';
import { useEffect, useEffectEvent, useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { queries } from '../../api/queries';
import { CopySheet } from '../../features/copies/copy-sheet';
import { CopyTable } from '../../features/copies/copy-table';
import type { LedgerFilter } from '../../features/copies/ledger-filter';
import { filterQuery, isNarrowed, readFilter } from '../../features/copies/ledger-filter';
import { stateLooks } from '../../features/copies/state-mark';
import { color, tones } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Empty, Head, Row, Screen, Small } from '../../ui/layout';
import { useCrumbs } from '../shell/crumbs';
import { BulkActions, statesOf } from './bulk-actions';
import { LedgerFiles } from './ledger-files';
import { SavedViews } from './saved-views';

const Filters = styled(Row)`
  padding: 0 16px 12px;
  & > svg {
    color: ${color.faded};
  }
`;
const States = styled(Row)`
  gap: 4px;
  overflow-x: auto;
`;

/** Milliseconds without a key until what was typed is searched for. */
const STILL = 120;

const troubleDetails: Record<(typeof troubles)[number], string> = {
  address: t`the address is wrong or gone`,
  mailbox: t`the mailbox is full or closed`,
  'their server': t`the recipient’s mail server`,
  network: t`the way to their server`,
  protocol: t`the servers do not understand each other`,
  content: t`the message itself, such as its size`,
  policy: t`rules of their server`,
  'our side': t`our own mail server`,
};

export default function LedgerScreen() {
  useCrumbs({ text: t`Ledger` });
  const [search, setSearch] = useSearchParams();
  const filter = readFilter(search);
  const chosen = search.get('copy') ? Number(search.get('copy')) : null;
  const [text, setText] = useState(filter.text);
  const set = (changes: Partial<Record<keyof LedgerFilter | 'copy', string | number | null>>): void =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [key, value] of Object.entries(changes)) {
          if (value === null || value === '') next.delete(key);
          else next.set(key, String(value));
        }
        return next;
      },
      { replace: true },
    );
  const moveTo = useEffectEvent((typed: string) => {
    if (typed !== filter.text) set({ text: typed });
  });
  // Only what is typed moves the address.
  useEffect(() => {
    const timer = setTimeout(() => moveTo(text), STILL);
    return () => clearTimeout(timer);
  }, [text]);
  // Find leads here with another text in the address.
  useEffect(() => setText(filter.text), [filter.text]);

  const query = filterQuery(filter);
  const { sort: _, ...meant } = filter;
  const given = Object.fromEntries(Object.entries(meant).filter(([, value]) => value !== null && value !== ''));
  const narrowed = isNarrowed(filter);
  const [more, setMore] = useState(filter.from !== null || filter.to !== null || filter.trouble !== null || filter.paper !== null);
  const { data: counts } = useQuery(queries.ledgerCounts(filterQuery(meant)));
  const { data: mailings } = useQuery(queries.mailings());
  const { data: batch } = useQuery({ ...queries.batch(filter.batch ?? 0), enabled: filter.batch !== null });
  return (
    <Screen>
      <Head
        title={t`Ledger`}
        note={
          counts
            ? `${counted(counts.total, 'copy', 'copies')}${narrowed ? t` · ${counts.atLeast ? t`more than ` : ''}${count(counts.atLeast ? 10_000 : counts.matching)} match the filters` : ''}`
            : ''
        }
      />
      <Filters data-print="no">
        <Search size={15} />
        <div style={{ width: 280 }}>
          <TextInput
            label={t`Search the ledger`}
            hideLabel
            placeholder={t`Name, code, file, anything in it`}
            value={text}
            onChange={setText}
          />
        </div>
        <Choice
          label={t`State`}
          hideLabel
          items={[{ id: '', text: t`Any state` }, ...copyStates.map((state) => ({ id: state, text: translated(state) }))]}
          value={filter.state ?? ''}
          onChange={(state) => set({ state })}
        />
        <Choice
          label={t`Mailing`}
          hideLabel
          items={[{ id: '', text: t`Any mailing` }, ...(mailings ?? []).map((one) => ({ id: String(one.id), text: one.name }))]}
          value={filter.mailing ? String(filter.mailing) : ''}
          onChange={(mailing) => set({ mailing })}
        />
        <Choice
          label={t`Trouble`}
          hideLabel
          items={[
            { id: '', text: t`Any trouble` },
            ...troubles.map((trouble) => ({ id: trouble, text: translated(trouble), detail: troubleDetails[trouble] })),
          ]}
          value={filter.trouble ?? ''}
          onChange={(trouble) => set({ trouble })}
        />
        <Button small pressed={more} onPress={() => setMore(!more)} style={{ height: 32 }}>{t`Days and paper`}</Button>
        {filter.batch !== null && (
          <Button
            small
            onPress={() => set({ batch: null })}
            aria-label={t`Remove the filter batch ${batch?.number ?? filter.batch}`}
            style={{ height: 32, background: color.kraft }}
          >
            {t`Batch ${batch?.number ?? '…'}`}
            <X size={13} />
          </Button>
        )}
        {narrowed && (
          <Button
            look="bare"
            onPress={() => {
              setText('');
              set({
                text: null,
                state: null,
                batch: null,
                mailing: null,
                template: null,
                trouble: null,
                from: null,
                to: null,
                paper: null,
              });
            }}
          >{t`Show all`}</Button>
        )}
      </Filters>
      {more && (
        <Filters data-print="no">
          <Small>{t`changed from`}</Small>
          <div style={{ width: 150 }}>
            <TextInput label={t`Changed from`} hideLabel type="date" value={filter.from ?? ''} onChange={(from) => set({ from })} />
          </div>
          <Small>{t`to`}</Small>
          <div style={{ width: 150 }}>
            <TextInput label={t`Changed to`} hideLabel type="date" value={filter.to ?? ''} onChange={(to) => set({ to })} />
          </div>
          <Button
            small
            pressed={filter.paper === 'yes'}
            onPress={() => set({ paper: filter.paper ? null : 'yes' })}
            style={{ height: 32 }}
          >{t`waits for paper`}</Button>
        </Filters>
      )}
      <SavedViews filter={query} />
      {counts && narrowed && (
        <Row style={{ padding: '0 16px 10px', flexWrap: 'wrap' }} role="group" aria-label={t`With all of these`} data-print="no">
          <Small>{t`With ${counts.atLeast ? t`more than ${count(10_000)}` : counted(counts.matching, 'copy', 'copies')}:`}</Small>
          <BulkActions key={query} meant={{ filter: given }} byState={counts.byState} state={filter.state} />
          {counts.matching > 0 && <LedgerFiles query={new URLSearchParams(filterQuery(meant))} />}
        </Row>
      )}
      <div
        style={{
          flex: 1,
          minHeight: 0,
          display: 'grid',
          gridTemplateColumns: chosen ? 'minmax(0, 1fr) 400px' : 'minmax(0, 1fr)',
          gridTemplateRows: 'minmax(0, 1fr)',
          borderTop: `1px solid ${color.line}`,
        }}
      >
        <div style={{ minHeight: 0, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
          <CopyTable
            filter={filterQuery(meant)}
            sort={filter.sort}
            chosen={chosen}
            onChoose={(copy) => set({ copy })}
            actions={(picked) => <BulkActions meant={{ ids: picked.map(({ id }) => id) }} byState={statesOf(picked)} state={null} />}
            lead={
              <States role="group" aria-label={t`Copies by state`}>
                {copyStates
                  .filter((state) => counts?.byState[state])
                  .map((state) => (
                    <Button
                      key={state}
                      small
                      look="bare"
                      pressed={filter.state === state}
                      onPress={() => set({ state: filter.state === state ? null : state })}
                      style={{ color: tones[stateLooks[state].tone].ink }}
                    >
                      {translated(state)} {count(counts?.byState[state] ?? 0)}
                    </Button>
                  ))}
              </States>
            }
            empty={
              narrowed ? (
                <Empty title={t`No matches`}>{t`Remove a filter, or search for another word.`}</Empty>
              ) : (
                <Empty
                  title={t`No copy yet`}
                >{t`Every copy that a batch makes stands here with what became of it. Start a batch in a mailing.`}</Empty>
              )
            }
          />
        </div>
        {chosen && <CopySheet id={chosen} onClose={() => set({ copy: null })} />}
      </div>
    </Screen>
  );
}
