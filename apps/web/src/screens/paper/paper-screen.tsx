import { counted, plural, t, translated } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import { detailText } from '@mailbag/core';
import type { PaperReason, PrintRunDetail, PrintRunState, PrintRunSummary } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, Eye, Printer, Stamp } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { kilobytes, when } from '../../features/when';
import type { Tone } from '../../theme';
import { color, narrow } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Padded } from '../../ui/columns';
import { Confirm } from '../../ui/confirm';
import { TextInput, Toggled } from '../../ui/field';
import { Card, Empty, Head, Row, Screen, Scroll, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import type { ListColumn } from '../../ui/list/column';
import { List } from '../../ui/list/list';
import { FileButton } from '../../ui/link-button';
import { Mark, Notice } from '../../ui/mark';
import { useCrumbs } from '../shell/crumbs';
import { PdfPreview } from '../../features/copies/pdf-preview';

const Frame = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 310px minmax(0, 1fr);
  border-top: 1px solid ${color.line};
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Left = styled.div`
  min-height: 0;
  overflow: auto;
  border-right: 1px solid ${color.line};
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  background: ${color.paper};
`;
const looks: Record<PrintRunState, { text: string; tone: Tone }> = {
  making: { text: t`being made`, tone: 'ochre' },
  ready: { text: t`ready`, tone: 'plum' },
  sending: { text: t`to the printer`, tone: 'ochre' },
  printing: { text: t`printing`, tone: 'ochre' },
  printed: { text: t`printed`, tone: 'moss' },
  failed: { text: t`failed`, tone: 'brick' },
  cancelled: { text: t`cancelled`, tone: 'slate' },
  unconfirmed: { text: t`unconfirmed`, tone: 'ochre' },
};
const reasonWords: Record<PaperReason, string> = {
  'no-address': t`without an address for mail`,
  bounced: t`bounced`,
  asked: t`ask for paper`,
};

/** The list behind each count. */
const lists: Record<PaperReason, string> = { 'no-address': 'state=made', bounced: 'state=bounced', asked: 'paper=yes' };

/** What waits for paper, and the making of a run. */
function Gather() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [mailing, setMailing] = useState<number | null>(null);
  const { data: all } = useQuery(queries.paperWaiting(null));
  const { data } = useQuery(queries.paperWaiting(mailing));
  const [reasons, setReasons] = useState<PaperReason[]>(['no-address', 'bounced', 'asked']);
  const [duplex, setDuplex] = useState(true);
  const [addressSheets, setAddressSheets] = useState(true);
  const [name, setName] = useState('');
  const make = useMutation({
    mutationFn: () => api.post<PrintRunDetail>('/api/print-runs', { mailing, reasons, duplex, addressSheets, name }),
    onSuccess: (run) => {
      void client.invalidateQueries({ queryKey: ['print-runs'] });
      void navigate(`/paper/${run.id}`);
    },
  });
  if (!data || !all) return <Loading what={t`what waits for paper`} />;
  const chosen = reasons.reduce((sum, reason) => sum + data.byReason[reason], 0);
  return (
    <Padded style={{ padding: 12, flex: 'none' }}>
      <h2>{t`Gather for the post`}</h2>
      {all.copies === 0 ? (
        <Small>{t`Nothing waits for paper. Copies without an address for mail, bounced ones, and those of people who ask for paper come here.`}</Small>
      ) : (
        <>
          {all.mailings.length > 1 && (
            <Choice
              label={t`Of`}
              items={[
                { id: '', text: t`all mailings` },
                ...all.mailings.map((one) => ({ id: String(one.id), text: one.name, detail: counted(one.copies, 'copy', 'copies') })),
              ]}
              value={mailing === null ? '' : String(mailing)}
              onChange={(id) => setMailing(id ? Number(id) : null)}
            />
          )}
          <Stack $gap={6}>
            {(Object.keys(reasonWords) as PaperReason[]).map((reason) => (
              <Row key={reason}>
                <div style={{ flex: 1 }}>
                  <Toggled
                    label={`${data.byReason[reason]} ${reasonWords[reason]}`}
                    value={reasons.includes(reason)}
                    onChange={(isOn) => setReasons(isOn ? [...reasons, reason] : reasons.filter((one) => one !== reason))}
                  />
                </div>
                {data.byReason[reason] > 0 && (
                  <Link
                    to={`/ledger?${lists[reason]}${mailing === null ? '' : `&mailing=${mailing}`}`}
                    aria-label={t`Show those that ${reasonWords[reason]}`}
                  >
                    <Small>{t`show`}</Small>
                  </Link>
                )}
              </Row>
            ))}
          </Stack>
          <Toggled label={t`Address sheets for the window`} value={addressSheets} onChange={setAddressSheets} />
          <Toggled label={t`Both sides of the paper`} value={duplex} onChange={setDuplex} />
          {addressSheets && data.withoutPost > 0 && (
            <Notice tone="ochre">{t`${plural(data.withoutPost, 'recipient has', 'recipients have')} no postal address and ${data.withoutPost === 1 ? t`is` : t`are`} left out. Where the address stands is set in Paper of the mailing’s Output and message.`}</Notice>
          )}
          <TextInput label={t`Name of the run`} value={name} onChange={setName} placeholder={t`Optional`} />
          {make.error && <Notice tone="brick">{sentenceOf(make.error)}</Notice>}
          <Button changes look="go" onPress={() => make.mutate()} isDisabled={chosen === 0 || make.isPending}>
            <Stamp size={15} />
            {make.isPending ? t`Putting it together …` : t`Make a print run of ${plural(chosen, 'copy', 'copies')}`}
          </Button>
        </>
      )}
    </Padded>
  );
}

type Sheet = PrintRunDetail['sheetsOf'][number];
const sheetColumns: readonly ListColumn<Sheet>[] = [
  {
    id: 'sheet',
    head: t`Sheet`,
    minWidth: 40,
    isNumber: true,
    isFixed: true,
    text: ({ sheet }) => String(sheet),
    value: ({ sheet }) => sheet,
  },
  { id: 'postal', head: t`Postal code`, minWidth: 72, text: ({ postalCode }) => postalCode },
  {
    id: 'recipient',
    head: t`Recipient`,
    minWidth: 120,
    share: 1,
    text: ({ recipient, code }) => `${recipient} ${code}`,
    cell: (one) => (
      <>
        <Link to={`/ledger?copy=${one.copyId}`}>{one.recipient || one.code}</Link>
        <br />
        <Small>
          {one.templateName} · {one.code}
        </Small>
      </>
    ),
  },
  { id: 'template', head: t`Template`, minWidth: 110, share: 1, isExtra: true, text: ({ templateName }) => templateName },
  { id: 'state', head: t`State`, minWidth: 62, text: ({ state }) => translated(state) },
];

function Run({ run }: { run: PrintRunDetail }) {
  const client = useQueryClient();
  const { data: printers } = useQuery(queries.printers());
  const [printerId, setPrinterId] = useState<number | null>(null);
  const keep = (fresh: PrintRunDetail): void => {
    client.setQueryData(queries.printRun(run.id).queryKey, fresh);
    void client.invalidateQueries({ queryKey: ['print-runs', 'list'] });
    void client.invalidateQueries({ queryKey: ['copies'] });
  };
  const act = useMutation({
    mutationFn: (what: 'printed' | 'cancel') => api.post<PrintRunDetail>(`/api/print-runs/${run.id}/${what}`),
    onSuccess: keep,
  });
  const print = useMutation({
    mutationFn: (id: number) => api.post<PrintRunDetail>(`/api/print-runs/${run.id}/print`, { printerId: id }),
    onSuccess: keep,
  });
  const hasFile = !['making', 'cancelled'].includes(run.state);
  const chosen = printerId ?? printers?.[0]?.id ?? null;
  const isOver = run.state === 'printed' || run.state === 'cancelled';
  return (
    <div style={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 352px', minHeight: 0, flex: 1 }}>
      <Scroll style={{ padding: 16 }}>
        <Stack $gap={14}>
          <Row>
            <h2 style={{ flex: 1 }}>
              {run.name} <Mark $tone={looks[run.state].tone}>{looks[run.state].text}</Mark>
            </h2>
            {hasFile && (
              <FileButton $small href={`/api/print-runs/${run.id}/pdf?save=1`}>
                <Download size={14} />
                {t`Save the PDF`}
              </FileButton>
            )}
            {hasFile && (
              <FileButton $small href={`/api/print-runs/${run.id}/pdf`} target="_blank" rel="noreferrer">
                <Eye size={14} />
                {t`Open`}
              </FileButton>
            )}
          </Row>
          <Small>{t`${plural(run.sheets, 'sheet')} · ${plural(run.pages, 'page')} · ${plural(run.copies, 'copy', 'copies')} for ${plural(run.recipients, 'recipient')} · ${kilobytes(run.size)} · ${run.duplex ? t`both sides` : t`one side`} · ${run.addressSheets ? t`with address sheets, in postal order` : t`in postal order`} · made ${when(run.createdAt)} by ${run.who}`}</Small>
          {run.leftOut > 0 && (
            <Notice tone="ochre">{t`${plural(run.leftOut, 'copy was', 'copies were')} left out because their records hold no postal address.`}</Notice>
          )}
          {run.detail && (
            <Notice tone={run.state === 'printed' ? 'moss' : run.state === 'printing' ? 'ochre' : 'brick'}>
              {run.printer && <b>{run.printer}: </b>}
              {detailText(run.detail)}
            </Notice>
          )}
          {(act.error ?? print.error) && <Notice tone="brick">{sentenceOf(act.error ?? print.error)}</Notice>}
          {!isOver && run.state !== 'making' && (
            <Row style={{ flexWrap: 'wrap' }}>
              {(run.state === 'ready' || run.state === 'failed') && printers && printers.length > 0 && (
                <>
                  <Choice
                    label={t`Printer`}
                    hideLabel
                    items={printers.map(({ id, name, uri }) => ({ id: String(id), text: name, detail: uri }))}
                    value={String(chosen)}
                    onChange={(id) => setPrinterId(Number(id))}
                  />
                  <Button changes look="go" onPress={() => chosen !== null && print.mutate(chosen)} isDisabled={print.isPending}>
                    <Printer size={15} />
                    {t`Print ${plural(run.sheets, 'sheet')}`}
                  </Button>
                </>
              )}
              {printers?.length === 0 && (
                <Small>{phrase`No printer is set up; save the PDF and print it, or ${(<Link to="/settings/paper">{t`add a printer`}</Link>)}.`}</Small>
              )}
              <Confirm
                look="go"
                title={t`Are all ${run.sheets} sheets printed?`}
                text={t`The ${plural(run.copies, 'copy is', 'copies are')} marked as printed on your word. This cannot be taken back.`}
                yes={t`They are printed`}
                onYes={() => act.mutate('printed')}
              >
                <Button changes isDisabled={act.isPending}>{t`It is printed`}</Button>
              </Confirm>
              <Confirm
                title={t`Cancel this run?`}
                text={t`Its file is deleted and its copies wait for paper again. What the printer has not printed is cancelled.`}
                yes={t`Cancel the run`}
                no={t`Keep the run`}
                onYes={() => act.mutate('cancel')}
              >
                <Button changes look="danger" isDisabled={act.isPending}>{t`Cancel`}</Button>
              </Confirm>
            </Row>
          )}
          <Card style={{ maxHeight: '70vh' }}>
            <List
              id="print-run"
              label={t`copies of the run`}
              noun={['copy', 'copies']}
              columns={sheetColumns}
              rows={run.sheetsOf}
              keyOf={({ copyId }) => copyId}
              nameOf={({ code }) => code}
              searchHint={t`Recipient, code or postal code`}
              empty={() => <Empty title={t`No matches`}>{t`Search for a recipient, a code or a postal code.`}</Empty>}
            />
          </Card>
        </Stack>
      </Scroll>
      {hasFile ? <PdfPreview path={`/api/print-runs/${run.id}/pdf`} pages={run.pages} name={t`the print run`} /> : <div />}
    </div>
  );
}

const keyOfRun = ({ id }: PrintRunSummary): number => id;
const nameOfRun = ({ name }: PrintRunSummary): string => name;
const runColumns: readonly ListColumn<PrintRunSummary>[] = [
  {
    id: 'name',
    head: t`Print run`,
    minWidth: 120,
    share: 1,
    isFixed: true,
    text: nameOfRun,
    cell: (one) => (
      <>
        <Link data-name="" to={`/paper/${one.id}`}>
          {one.name}
        </Link>
        <br />
        <Small>
          {counted(one.sheets, 'sheet')} · {counted(one.recipients, 'recipient')} · {when(one.createdAt)}
        </Small>
      </>
    ),
  },
  {
    id: 'sheets',
    head: t`Sheets`,
    minWidth: 44,
    isNumber: true,
    isExtra: true,
    text: ({ sheets }) => String(sheets),
    value: ({ sheets }) => sheets,
  },
  {
    id: 'state',
    head: t`State`,
    minWidth: 74,
    text: ({ state }) => looks[state].text,
    cell: ({ state }) => <Mark $tone={looks[state].tone}>{looks[state].text}</Mark>,
  },
  { id: 'made', head: t`Made`, minWidth: 70, isExtra: true, text: ({ createdAt }) => when(createdAt), value: ({ createdAt }) => createdAt },
];

/** Copies that go by post. */
export default function PaperScreen() {
  const { id } = useParams();
  const { data: runs } = useQuery(queries.printRuns());
  const chosenId = id ? Number(id) : (runs?.[0]?.id ?? null);
  const { data: run, error } = useQuery({ ...queries.printRun(chosenId ?? 0), enabled: chosenId !== null });
  useCrumbs({ text: t`Paper`, to: '/paper' }, ...(run ? [{ text: run.name }] : []));
  const navigate = useNavigate();
  return (
    <Screen>
      <Head title={t`Paper`} note={t`for those who cannot be mailed`} />
      <Frame>
        <Left>
          <Gather />
          {runs && runs.length > 0 && (
            <Card style={{ display: 'flex', flexDirection: 'column', flex: 'none', maxHeight: 420 }}>
              <List
                id="print-runs"
                place="runs"
                label={t`print runs`}
                noun={['print run', 'print runs']}
                columns={runColumns}
                rows={runs}
                keyOf={keyOfRun}
                nameOf={nameOfRun}
                chosen={chosenId}
                onChoose={(next) => void navigate(`/paper/${next}`)}
                searchHint={runs.length > 8 ? t`Name of a run` : undefined}
                empty={() => <Empty title={t`No matches`}>{t`Search for a part of its name.`}</Empty>}
              />
            </Card>
          )}
        </Left>
        {error && <Empty title={t`This print run cannot be shown`}>{sentenceOf(error)}</Empty>}
        {!error && chosenId === null && (
          <Empty
            title={t`No print run yet`}
          >{t`A run is one PDF with everything that goes by post, sorted by postal code, each with a sheet for the window of the envelope.`}</Empty>
        )}
        {run && !error && <Run key={run.id} run={run} />}
      </Frame>
    </Screen>
  );
}
