import { count, counted, plural, t } from '@mailbag/core/words';
import { phrase } from '../../../ui/phrase';
import type { BatchSummary, StartGroup, StartPreview, StartWho } from '@mailbag/contract';
import { isMailbagError } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { FlaskConical, Send } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { NoAnswer, api, sentenceOf } from '../../../api/client';
import type { MailingWork } from '../../../features/mailing/mailing-context';
import { fullWhen } from '../../../features/when';
import { randomKey } from '../../../platform/random-key';
import { color } from '../../../theme';
import { Button } from '../../../ui/button';
import { TextInput } from '../../../ui/field';
import { Pane, Row, Scroll, Small, Stack } from '../../../ui/layout';
import { Split } from '../../../ui/split';
import { Loading } from '../../../ui/loading';
import { LinkButton } from '../../../ui/link-button';
import { Notice } from '../../../ui/mark';
import { PickOne } from '../../../ui/pick-one';
import { MessageSampleView } from '../message-sample-view';
import { EstimateLine } from './estimate-line';
import { GroupLine } from './group-line';
import { Selection } from './selection';

const choicesOfWho: StartWho[] = ['new', 'changed', 'selection', 'everybody'];
/** What each group of records is told as, beside its number: of one, and of several. */
type Words = readonly [group: StartGroup, one: string, several: string];
const runsAs = (mailed: boolean): Words[] => [
  mailed ? ['runs', t`recipient`, t`recipients`] : ['runs', t`record`, t`records`],
  ['mailed', t`message`, t`messages`],
  ['paper', t`on paper, as the recipient asks`, t`on paper, as the recipients ask`],
  ['no-address', t`on paper: it has no e-mail address`, t`on paper: they have no e-mail address`],
  ['again', t`of them has a copy already and gets another`, t`of them have a copy already and get another`],
];
const notAs: Words[] = [
  ['has-one', t`has a copy already`, t`have a copy already`],
  ['none-yet', t`has no copy yet`, t`have no copy yet`],
  ['unchanged', t`has a copy, and no value of it has changed`, t`have a copy, and no value of it has changed`],
  ['not-selected', t`is not chosen`, t`are not chosen`],
  ['stop', t`is held back by a stop of the checks`, t`are held back by a stop of the checks`],
  ['left-out', t`was left out by hand`, t`were left out by hand`],
];

/** Before a batch: who gets what, who does not and why, and the first message. */
export default function StartPart({ work }: { work: MailingWork }) {
  const { mailing, plan, settle } = work;
  const [search, setSearch] = useSearchParams();
  const who = choicesOfWho.find((one) => one === search.get('who')) ?? 'new';
  const open = search.get('list');
  const set = (part: Record<string, string | null>): void =>
    setSearch(
      (before) => {
        for (const [name, value] of Object.entries(part))
          if (value === null) before.delete(name);
          else before.set(name, value);
        return before;
      },
      { replace: true },
    );
  const [rows, setRows] = useState<ReadonlySet<number>>(new Set());
  const [typed, setTyped] = useState('');
  const isRead = useRef(false);
  const chosen = useMemo(() => [...rows].sort((a, b) => a - b), [rows]);
  const client = useQueryClient();
  const navigate = useNavigate();

  const { data, error, isFetching, refetch } = useQuery({
    queryKey: ['start', mailing.id, who, who === 'selection' ? chosen : null],
    queryFn: async () => {
      await settle();
      const preview = await api.post<StartPreview>(`/api/mailings/${mailing.id}/start`, {
        who,
        ...(who === 'selection' ? { rows: chosen } : {}),
        reread: !isRead.current,
      });
      isRead.current = true;
      return preview;
    },
    retry: false,
    staleTime: 0,
    gcTime: 0,
    placeholderData: (before) => before,
  });
  const wish = useRef({ digest: '', key: '' });
  const start = useMutation({
    mutationFn: (shown: StartPreview) => {
      // One wish is one key: sent twice, it begins once.
      if (wish.current.digest !== shown.digest) wish.current = { digest: shown.digest, key: randomKey() };
      return api.post<BatchSummary>(`/api/mailings/${mailing.id}/batches`, {
        who,
        ...(who === 'selection' ? { rows: chosen } : {}),
        digest: shown.digest,
        version: shown.version,
        startKey: wish.current.key,
        ...(needsConfirmation ? { confirmation: Number(typed.replace(/\D/g, '')) } : {}),
      });
    },
    onSuccess: async (batch) => {
      await client.invalidateQueries({ queryKey: ['batches'] });
      void client.invalidateQueries({ queryKey: ['mailings', mailing.id] });
      void navigate(`/batches/${batch.id}`);
    },
    onError: (failure) => {
      if (isMailbagError(failure) && failure.code === 'start-outdated') void refetch();
    },
  });
  const { setIndex } = work;
  const first = data?.firstMailed ?? null;
  useEffect(() => {
    if (first !== null) setIndex(first);
  }, [first, setIndex]);

  if (error && !(data && error instanceof NoAnswer))
    return (
      <Scroll style={{ padding: 16 }}>
        <Notice tone="brick">{sentenceOf(error)}</Notice>
      </Scroll>
    );
  if (!data) return <Loading what={t`who gets a copy`} />;
  const { counts, sizes, records, copies, unmapped, unknownBatches, mailed } = data;
  const needsConfirmation = who === 'everybody' && counts.again > 0;
  const isConfirmed = !needsConfirmation || typed.replace(/\D/g, '') === String(records);
  const isCurrent = !isFetching && data.who === who;
  const figure = (number: number): string => counted(number, 'record');
  const choices: { id: StartWho; text: string; figure?: string; detail: string }[] = [
    {
      id: 'new',
      text: t`Those who have none yet`,
      figure: figure(sizes.new),
      detail: t`Recognised by their record key across all batches of this mailing.`,
    },
    {
      id: 'changed',
      text: t`Those whose values changed since their copy`,
      figure: figure(sizes.changed),
      detail: t`Only values that stand in the copy count.`,
    },
    {
      id: 'selection',
      text: t`A selection`,
      figure: rows.size > 0 ? figure(rows.size) : t`choose`,
      detail: t`By hand, or by what the records hold.`,
    },
    {
      id: 'everybody',
      text: t`Everybody`,
      figure: figure(sizes.everybody),
      detail: t`Also those who have a copy already: they get another one.`,
    },
  ];
  const line = ([group, one, several]: Words) => (
    <GroupLine
      key={group}
      mailing={mailing.id}
      digest={data.digest}
      group={group}
      number={counts[group]}
      text={counts[group] === 1 ? one : several}
      isOpen={open === group}
      onToggle={() => set({ list: open === group ? null : group })}
    />
  );
  return (
    <Split $columns="minmax(0, 1.15fr) minmax(0, 1fr)">
      <Pane aria-label={t`Start a batch`}>
        <Scroll style={{ padding: '14px 16px 20px' }}>
          <Stack $gap={14}>
            <PickOne label={t`Who gets copies`} items={choices} value={who} onChange={(id) => set({ who: id, list: null })} />
            {data.keyColumn === null && (
              <Notice tone="ochre">{phrase`No record key is chosen, so records are identified by their row. ${(<Link to={`/mailings/${mailing.id}/records`}>{t`Choose a key`}</Link>)} to be safe when rows move.`}</Notice>
            )}
            {unknownBatches.length > 0 && (
              <Notice tone="ochre">{t`Batch ${unknownBatches.join(', ')} ran with another record key, and its records are deleted. Who got a copy then is no longer known.`}</Notice>
            )}
            {who === 'selection' && <Selection mailing={mailing.id} rows={rows} onChange={setRows} />}
            <section aria-label={t`What they get`} aria-busy={isFetching}>
              <h2 style={{ marginBottom: 6 }}>{t`${plural(copies, 'copy', 'copies')} of ${plural(plan.packet.length, 'template')}`}</h2>
              {runsAs(mailed)
                .filter(
                  ([group]) =>
                    group === 'runs' || (group === 'again' ? counts.again > 0 : mailed && (group === 'mailed' || counts[group] > 0)),
                )
                .map(line)}
              {data.startAt && <Small>{t`Nothing is sent before ${fullWhen(data.startAt)}.`}</Small>}
              {!mailed && <Small>{t`The copies are made and kept. Nobody gets a message.`}</Small>}
              {records > 0 && (
                <div style={{ paddingTop: 4 }}>
                  <EstimateLine mailing={mailing.id} digest={data.digest} />
                </div>
              )}
            </section>
            {notAs.some(([group]) => counts[group] > 0) && (
              <section aria-label={t`Who gets nothing`}>
                <h2 style={{ marginBottom: 6 }}>{t`Nothing for these`}</h2>
                {notAs.filter(([group]) => counts[group] > 0).map(line)}
                {counts.stop > 0 && (
                  <Small>{phrase`${(<Link to={`/mailings/${mailing.id}/checks`}>{t`Fix the stops`}</Link>)}, then start again for those who have none yet.`}</Small>
                )}
              </section>
            )}
            {unmapped.length > 0 && (
              <details>
                <summary>{t`${plural(unmapped.length, 'field has', 'fields have')} no rule and stay as the form has them`}</summary>
                <ul style={{ margin: '6px 0 0', paddingLeft: 20, fontSize: 13 }}>
                  {unmapped.slice(0, 200).map(({ template, field, label }) => (
                    <li key={`${template} ${field}`}>
                      {label} <Small>{template}</Small>
                    </li>
                  ))}
                </ul>
                {unmapped.length > 200 && <Small>{t`and ${count(unmapped.length - 200)} more`}</Small>}
              </details>
            )}
          </Stack>
        </Scroll>
        <div style={{ borderTop: `1px solid ${color.line}`, padding: '10px 16px' }}>
          <Stack $gap={8}>
            {start.error && <Notice tone="brick">{sentenceOf(start.error)}</Notice>}
            <Row $gap={12} style={{ alignItems: 'end' }}>
              {needsConfirmation && (
                <div style={{ width: 260 }}>
                  <TextInput
                    label={t`Type ${records} to send to people who have a copy already`}
                    value={typed}
                    onChange={setTyped}
                    placeholder={String(records)}
                  />
                </div>
              )}
              <Button
                changes
                look="go"
                isDisabled={!isCurrent || records === 0 || !isConfirmed || start.isPending}
                onPress={() => start.mutate(data)}
              >
                <Send size={16} />
                {start.isPending
                  ? t`Starting …`
                  : mailed && counts.mailed > 0
                    ? t`Make and mail ${plural(copies, 'copy', 'copies')}`
                    : t`Make ${plural(copies, 'copy', 'copies')}`}
              </Button>
              <LinkButton to={`/mailings/${mailing.id}/contact`}>
                <FlaskConical size={15} />
                {t`Trial run first`}
              </LinkButton>
              {records === 0 && isCurrent && (
                <Small>{who === 'selection' ? t`Choose records above.` : t`Nobody is left with this choice.`}</Small>
              )}
            </Row>
          </Stack>
        </div>
      </Pane>
      <Pane aria-label={t`The first message`} style={{ background: color.ground }}>
        <Scroll style={{ padding: 16 }}>
          {mailed && first === null ? (
            <Notice tone="slate">{t`Nobody is mailed with this choice.`}</Notice>
          ) : (
            <MessageSampleView work={work} />
          )}
        </Scroll>
      </Pane>
    </Split>
  );
}
