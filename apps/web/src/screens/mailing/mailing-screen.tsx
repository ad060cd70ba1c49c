import { counted, t } from '@mailbag/core/words';
import type { MailingDetail } from '@mailbag/contract';
import { planPlaceWords } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { History, Send } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { SavingNotices } from '../../features/editing/saving-notices';
import { SavedState } from '../../features/editing/saved-state';
import { UndoButtons } from '../../features/editing/undo-buttons';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { RouteCard } from '../../features/mailing/route-card';
import { useOthers } from '../../features/mailing/use-others';
import { usePlan } from '../../features/mailing/use-plan';
import { useCorrections } from '../../features/records/use-corrections';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Empty, Head, Screen } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { LinkButton } from '../../ui/link-button';
import { loadedPart } from '../../ui/loaded-part';
import { LOOKS_ONLY, useMayChange } from '../../ui/rights';
import { useAddress } from '../../ui/use-address';
import { useKey } from '../../ui/use-key';
import { useUndoKeys } from '../../ui/use-undo-keys';
import { useCrumbs } from '../shell/crumbs';
import { PastChanges } from './past-changes';

/** Each is loaded when somebody goes there: what checks know of telephone numbers is half of what the map needs. */
const ChecksPart = loadedPart(() => import('./checks-part'), t`the checks`);
const ContactPart = loadedPart(() => import('./contact-part'), t`the contact sheet`);
const MapPart = loadedPart(() => import('./map-part'), t`the map`);
const OutputPart = loadedPart(() => import('./output-part'), t`the output and the message`);
const PacketPart = loadedPart(() => import('./packet-part'), t`the packet`);
const RecordsPart = loadedPart(() => import('./records-part'), t`the records`);
const StartPart = loadedPart(() => import('./start/start-part'), t`the start of the batch`);

const NameInput = styled.input`
  font: inherit;
  border: 1px solid transparent;
  border-radius: 6px;
  background: none;
  padding: 0 6px;
  margin-left: -7px;
  field-sizing: content;
  min-width: 120px;
  max-width: 460px;
  &:hover {
    border-color: ${color.line};
  }
  &:focus {
    background: ${color.sheet};
    border-color: ${color.plum};
    outline: none;
  }
`;

/** What the parts are called in the title of the window. */
const partNames: Readonly<Record<string, string>> = {
  packet: t`Packet`,
  records: t`Records`,
  map: t`Map`,
  checks: t`Checks`,
  output: t`Output and message`,
  start: t`Start a batch`,
  contact: t`Contact sheet`,
};

/** The parts in the order in which one goes through them. */
const stepOrder: readonly string[] = ['packet', 'records', 'map', 'checks', 'output', 'start'];

export default function MailingScreen() {
  const id = Number(useParams().id);
  const { data, error } = useQuery({ ...queries.mailing(id), refetchOnWindowFocus: false });
  if (error && !data) return <Empty title={t`This mailing cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!data) return <Loading what={t`the mailing`} />;
  return <MailingDesk key={id} mailing={data} />;
}

function MailingDesk({ mailing }: { mailing: MailingDetail }) {
  const { part } = useParams();
  const editor = usePlan(mailing, part ?? 'map');
  const others = useOthers(mailing.id);
  const mayChange = useMayChange();
  const { plan, change, undo, redo, saving } = editor;
  const corrections = useCorrections(plan.sourceId ?? 0);
  // Each part has its own steps: in the grid the corrections, beside the checks both, the last one first, everywhere else those of the plan.
  const { last: corrected, undoLast } = corrections;
  const isCorrectedLast = part === 'records' || (part === 'checks' && corrected !== null && corrected.at >= editor.lastStepAt);
  const undoByKey = isCorrectedLast ? corrected && undoLast : undo;
  const redoByKey = part === 'records' ? null : redo;
  const { data: checks } = useQuery(queries.checks(mailing.id));
  const { query, put } = useAddress();
  const wanted = query.get('record');
  /** The record that is stood on, from one part to the next. */
  const [lastIndex, setLastIndex] = useState(0);
  const index = wanted === null ? lastIndex : Number(wanted) || 0;
  useEffect(() => {
    setLastIndex(index);
    if (wanted === null && index > 0) put({ record: index });
  }, [wanted, index, put]);
  const setIndex = useCallback((next: number) => (setLastIndex(next), put({ record: next })), [put]);
  useCrumbs({ text: t`Mailings`, to: '/mailings' }, { text: plan.name }, { text: partNames[part ?? ''] ?? '', isPart: true });

  useUndoKeys(undoByKey, redoByKey);
  const navigate = useNavigate();
  const place = stepOrder.indexOf(part ?? '');
  const goTo = (step: string | undefined) => (place >= 0 && step ? () => void navigate(`/mailings/${mailing.id}/${step}`) : null);
  useKey('n', t`Next part`, goTo(stepOrder[place + 1]));
  useKey('p', t`Previous part`, goTo(stepOrder[place - 1]));

  const total = mailing.source?.count ?? 0;
  const work: MailingWork = {
    ...editor,
    mailing,
    columns: mailing.source?.columns ?? [],
    index: Math.min(index, Math.max(0, total - 1)),
    setIndex,
  };
  const parts: Record<string, React.ReactNode> = {
    packet: <PacketPart work={work} />,
    records: <RecordsPart work={work} />,
    map: <MapPart work={work} />,
    checks: <ChecksPart work={work} />,
    output: <OutputPart work={work} />,
    start: <StartPart work={work} />,
    contact: <ContactPart work={work} />,
  };
  if (!part || !(part in parts)) return <Navigate to={`/mailings/${mailing.id}/map`} replace />;
  return (
    <Screen>
      <Head
        title={
          <NameInput
            aria-label={t`Name of the mailing`}
            value={plan.name}
            onChange={(event) => change((one) => ({ ...one, name: event.target.value }))}
          />
        }
        note={
          <>
            {mayChange ? <SavedState saving={saving} /> : <span role="status">{LOOKS_ONLY}</span>}
            {others.length > 0 && <span role="status">{t` · Also here: ${others.join(', ')}`}</span>}
          </>
        }
      >
        <UndoButtons undo={undo} redo={redo} />
        <PastChanges mailing={mailing.id} settle={editor.settle} />
        {mailing.batches.length > 0 && (
          <LinkButton to={`/batches/${mailing.batches[0]!.id}`} $small>
            <History size={14} />
            {counted(mailing.batches.length, 'batch', 'batches')}
          </LinkButton>
        )}
      </Head>
      <RouteCard mailing={mailing} plan={plan} checks={checks}>
        {mayChange && plan.packet.length > 0 && total > 0 ? (
          <LinkButton $look="go" to={`/mailings/${mailing.id}/start`} aria-current={part === 'start' ? 'page' : undefined}>
            <Send size={16} />
            {t`Start a batch`}
          </LinkButton>
        ) : (
          <Button look="go" isDisabled>
            <Send size={16} />
            {t`Start a batch`}
          </Button>
        )}
      </RouteCard>
      <SavingNotices editor={editor} placeWords={planPlaceWords} />
      {parts[part]}
    </Screen>
  );
}
