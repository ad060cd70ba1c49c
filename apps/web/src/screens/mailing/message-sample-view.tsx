import { t } from '@mailbag/core/words';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Download, FileText, KeyRound, Send } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import styled from 'styled-components';
import { NoAnswer, api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { kilobytes } from '../../features/when';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Row, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { FileButton } from '../../ui/link-button';
import { Mark, Notice } from '../../ui/mark';
import { Sheet } from './sheet';

const Rendered = styled.div`
  & p {
    margin: 0 0 10px;
  }
  & h2,
  & h3 {
    font-family: ${font.head};
    margin: 0 0 8px;
  }
  & a {
    color: ${color.plum};
  }
  & ul,
  & ol {
    margin: 0 0 10px;
    padding-left: 22px;
  }
`;
const Plain = styled.pre`
  margin: 0;
  white-space: pre-wrap;
  font: inherit;
`;

/** The message of the chosen record, made by the server just as a batch would make it. */
export function MessageSampleView({ work }: { work: MailingWork }) {
  const { mailing, plan, index, settle } = work;
  const [view, setView] = useState<'html' | 'text'>('html');
  const draft = useDeferredValue({ message: plan.message, output: plan.output });
  const isPossible = plan.message.mailed && plan.packet.length > 0 && plan.sourceId !== null;
  const { data, error, isFetching } = useQuery({ ...queries.messageSample(mailing.id, index, draft), enabled: isPossible });
  const { data: account } = useQuery(queries.account());
  const own = account?.account?.email ?? '';
  const test = useMutation({
    mutationFn: async () => {
      await settle();
      return api.post<{ answer: string }>(`/api/mailings/${mailing.id}/test-message`, { index, address: own });
    },
  });
  if (!plan.message.mailed) return <Notice tone="slate">{t`The copies are made and kept. Nobody gets a message.`}</Notice>;
  if (!isPossible) return <Notice tone="slate">{t`With templates and records, the message of the chosen record is shown here.`}</Notice>;
  if (error && !(data && error instanceof NoAnswer)) return <Notice tone="brick">{sentenceOf(error)}</Notice>;
  if (!data) return <Loading what={t`the message`} />;
  const share = data.size / data.limit;
  return (
    <Sheet aria-label={t`The message as it will be read`} aria-busy={isFetching}>
      <header>
        <span>{t`From`}</span>
        <div>{data.from}</div>
        <span>{t`To`}</span>
        <div>
          {data.to.join(', ')}{' '}
          {data.fault && (
            <Mark $tone={data.to.length === 0 ? 'ochre' : 'brick'} style={{ whiteSpace: 'normal' }}>
              {data.fault}
            </Mark>
          )}
        </div>
        {data.copyTo.length > 0 && (
          <>
            <span>{t`Copy to`}</span>
            <div>{data.copyTo.join(', ')}</div>
          </>
        )}
        {data.blindCopyTo.length > 0 && (
          <>
            <span>{t`Blind to`}</span>
            <div>{data.blindCopyTo.join(', ')}</div>
          </>
        )}
        <span>{t`Subject`}</span>
        <div>
          <b>{data.subject || '—'}</b>
        </div>
      </header>
      <div>
        <Row style={{ marginBottom: 10 }} $gap={4} role="group" aria-label={t`Show as`}>
          <Button small pressed={view === 'html'} onPress={() => setView('html')}>{t`as HTML`}</Button>
          <Button small pressed={view === 'text'} onPress={() => setView('text')}>{t`as text`}</Button>
        </Row>
        {/* The server lets only harmless elements through. */}
        {view === 'html' ? <Rendered dangerouslySetInnerHTML={{ __html: data.html }} /> : <Plain>{data.text}</Plain>}
      </div>
      <footer>
        {data.attachments.map(({ name, size }) => (
          <Mark key={name} $tone="slate">
            <FileText />
            {name} · {kilobytes(size)}
          </Mark>
        ))}
        {data.openPassword && (
          <Mark $tone="plum">
            <KeyRound />
            {t`opens with ${data.openPassword}`}
          </Mark>
        )}
        <Small style={{ color: share > 1 ? color.brick : color.faded }}>
          {t`${kilobytes(data.size)} as it travels, of ${kilobytes(data.limit)}`}
          {share > 1 && t`: too large to be sent`}
        </Small>
      </footer>
      <footer>
        <FileButton $small href={`/api/mailings/${mailing.id}/message-sample.eml?index=${index}`} download>
          <Download size={14} />
          {t`The raw message`}
        </FileButton>
        <Button changes small onPress={() => test.mutate()} isDisabled={test.isPending || share > 1}>
          <Send size={14} />
          {test.isPending ? t`Sending …` : t`Test message to ${own}`}
        </Button>
        {test.data && <Small style={{ color: color.moss }}>{t`Sent: ${test.data.answer}`}</Small>}
        {test.error && <Small style={{ color: color.brick }}>{sentenceOf(test.error)}</Small>}
      </footer>
    </Sheet>
  );
}
