import type { Finish } from '@mailbag/core';
import { addressFault, finishes } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { FileText, Folder, MailWarning } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { queries, useRecord } from '../../api/queries';
import { finishWords } from '../../features/mailing/finish-words';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { PatternInput } from '../../features/mailing/pattern-input';
import { sampleOf } from '../../features/mailing/sample';
import { RecordBar } from '../../features/map/record-bar';
import { color, font } from '../../theme';
import { Choice } from '../../ui/choice';
import { Toggled } from '../../ui/field';
import { Pane, Row, Scroll, Small, Split, Stack } from '../../ui/layout';
import { Mark, Notice } from '../../ui/mark';

const Section = styled.section`
  padding: 14px 16px 16px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  & + & {
    border-top: 1px solid ${color.hair};
  }
`;
const Path = styled.div`
  font-family: ${font.mono};
  font-size: 12px;
  display: flex;
  gap: 8px;
  align-items: flex-start;
  padding: 4px 0;
  overflow-wrap: anywhere;
`;
const Letter = styled.article`
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: 6px;
  & > header {
    padding: 10px 14px;
    border-bottom: 1px solid ${color.hair};
    display: grid;
    grid-template-columns: 64px minmax(0, 1fr);
    gap: 2px 8px;
    overflow-wrap: anywhere;
  }
  & > header span {
    color: ${color.faded};
    font-size: 12px;
  }
  & > div {
    padding: 14px;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  & > footer {
    padding: 8px 14px;
    border-top: 1px solid ${color.hair};
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
`;

/** Where copies are kept, and what recipients get; beside it what both give for the chosen record. */
export function OutputPart({ work }: { work: MailingWork }) {
  const { mailing, plan, change, columns, index } = work;
  const { record } = useRecord(plan.sourceId ?? null, index);
  const { data: settings } = useQuery(queries.mailSettings());
  const setOutput = (part: Partial<typeof plan.output>): void => change((one) => ({ ...one, output: { ...one.output, ...part } }));
  const setMessage = (part: Partial<typeof plan.message>): void => change((one) => ({ ...one, message: { ...one.message, ...part } }));
  const templates = plan.packet.flatMap((id) => mailing.templates.find((one) => one.id === id)?.name ?? []);
  const sample = sampleOf(plan, columns, record, index, templates, (mailing.batches[0]?.number ?? 0) + 1);
  const pathError = sample.paths.find(({ error }) => error !== null)?.error ?? null;
  const address = record?.cells[columns.findIndex(({ name }) => name === plan.message.addressColumn)]?.text.trim() ?? '';
  const fault =
    address === ''
      ? 'This record has no address: its copies are made and kept.'
      : addressFault(address) && `This record is held back: ${addressFault(address)}.`;
  const same = sample.paths.length > 1 && new Set(sample.paths.map(({ path }) => path)).size < sample.paths.length;
  return (
    <Split $columns="minmax(0, 1fr) minmax(0, 1fr)">
      <Pane aria-label="Output and message">
        <Scroll>
          <Section>
            <h2>Output</h2>
            <PatternInput
              label="Folders in the archive"
              value={plan.output.folder}
              columns={columns}
              onChange={(folder) => setOutput({ folder })}
              help="A slash opens a folder in a folder. Empty: straight into the archive."
            />
            <PatternInput
              label="File name"
              value={plan.output.file}
              columns={columns}
              onChange={(file) => setOutput({ file })}
              error={pathError}
              help="Copies that would get the same name are numbered; nothing is ever overwritten."
            />
            <Choice
              label="Finish"
              items={finishes.map((finish) => ({ id: finish, text: finishWords(finish).title, detail: finishWords(finish).text }))}
              value={plan.output.finish ?? 'flattened'}
              onChange={(finish) => setOutput({ finish: finish as Finish })}
            />
            <Small>{finishWords(plan.output.finish).text}</Small>
          </Section>
          <Section>
            <Row>
              <h2 style={{ flex: 1 }}>Message</h2>
              <Toggled label="Mail the copies" value={plan.message.mailed} onChange={(mailed) => setMessage({ mailed })} />
            </Row>
            {plan.message.mailed && settings && !settings.configured && (
              <Notice tone="ochre" icon={<MailWarning size={16} />}>
                No mail server is set up yet. <Link to="/settings">Enter it in Settings.</Link>
              </Notice>
            )}
            <Row $gap={12} style={{ alignItems: 'flex-start' }}>
              {plan.message.mailed && (
                <Choice
                  label="Addresses are in"
                  items={columns.map((column) => ({ id: column.name, text: column.name, detail: column.examples.slice(0, 2).join(' · ') }))}
                  value={plan.message.addressColumn ?? null}
                  placeholder="Choose a column"
                  onChange={(addressColumn) => setMessage({ addressColumn })}
                />
              )}
              <div style={{ flex: 1 }}>
                <PatternInput
                  label="Name of the recipient"
                  value={plan.message.recipient}
                  columns={columns}
                  onChange={(recipient) => setMessage({ recipient })}
                  error={sample.recipientError}
                />
              </div>
            </Row>
            {plan.message.mailed && (
              <>
                <PatternInput
                  label="Subject"
                  value={plan.message.subject}
                  columns={columns}
                  onChange={(subject) => setMessage({ subject })}
                />
                <PatternInput
                  label="Text"
                  rows={11}
                  value={plan.message.body}
                  columns={columns}
                  onChange={(body) => setMessage({ body })}
                  error={sample.messageError}
                  help="Type {{ and the columns are offered."
                />
              </>
            )}
          </Section>
        </Scroll>
      </Pane>
      <Pane aria-label="For this record" style={{ background: color.ground }}>
        <div style={{ background: color.sheet }}>
          <RecordBar work={work} />
        </div>
        <Scroll style={{ padding: 16 }}>
          <Stack $gap={16}>
            <Letter>
              <div style={{ whiteSpace: 'normal' }}>
                <Small>Kept in the archive as</Small>
                {sample.paths.length === 0 && <p>The packet is empty.</p>}
                {sample.paths.map(({ path, error }, at) => (
                  <Path key={at}>
                    <Folder size={14} color={color.faded} />
                    {path ?? error}
                  </Path>
                ))}
                {same && (
                  <Small style={{ color: color.ochre }}>
                    The copies of one record get the same name and are numbered. Put {'{{ template }}'} into the name to tell them apart.
                  </Small>
                )}
              </div>
            </Letter>
            {plan.message.mailed ? (
              <Letter aria-label="The message as it will be read">
                <header>
                  <span>From</span>
                  <div>{settings?.configured ? `${settings.senderName} <${settings.senderAddress}>` : 'no sender yet'}</div>
                  <span>To</span>
                  <div>
                    {sample.recipient} {address && `<${address}>`}{' '}
                    {fault && (
                      <Mark $tone={address === '' ? 'ochre' : 'brick'} style={{ whiteSpace: 'normal' }}>
                        {fault}
                      </Mark>
                    )}
                  </div>
                  <span>Subject</span>
                  <div>
                    <b>{sample.message?.subject || '—'}</b>
                  </div>
                </header>
                <div>{sample.message?.text ?? <span style={{ color: color.brick }}>{sample.messageError}</span>}</div>
                <footer>
                  {sample.paths.map(({ path }, at) => (
                    <Mark key={at} $tone="slate">
                      <FileText />
                      {path?.split('/').at(-1) ?? '…'}
                    </Mark>
                  ))}
                </footer>
              </Letter>
            ) : (
              <Notice tone="slate">The copies are made and kept. Nobody gets a message.</Notice>
            )}
          </Stack>
        </Scroll>
      </Pane>
    </Split>
  );
}
