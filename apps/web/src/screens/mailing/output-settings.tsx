import type { MailingPlan } from '@mailbag/contract';
import type { Finish } from '@mailbag/core';
import { finishes } from '@mailbag/core';
import { Folder } from 'lucide-react';
import styled from 'styled-components';
import { finishWords } from '../../features/mailing/finish-words';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { PasswordSettings } from '../../features/mailing/password-settings';
import { PatternInput } from '../../features/mailing/pattern-input';
import type { Sample } from '../../features/mailing/sample';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Fields } from '../../ui/columns';
import { Toggled } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';
import { PictureSettings } from './picture-settings';
import { Sheet } from './sheet';
import { StampSettings } from './stamp-settings';

const Path = styled.div`
  font-family: ${font.mono};
  font-size: 12px;
  display: flex;
  gap: 8px;
  align-items: flex-start;
  padding: 4px 0;
  overflow-wrap: anywhere;
`;

/** Where the copies of the chosen record will lie. */
export function PathSample({ sample }: { sample: Sample }) {
  const same = sample.paths.length > 1 && new Set(sample.paths.map(({ path }) => path)).size < sample.paths.length;
  return (
    <Sheet>
      <div>
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
    </Sheet>
  );
}

/** Names, finish, passwords, combined files, metadata. */
export function OutputSettings({ work, sample }: { work: MailingWork; sample: Sample }) {
  const { plan, change, columns } = work;
  const { output } = plan;
  const set = (part: Partial<MailingPlan['output']>): void => change((one) => ({ ...one, output: { ...one.output, ...part } }));
  const pathError = sample.paths.find(({ error }) => error !== null)?.error ?? null;
  const combined = output.combined ?? 'none';
  const metadata = output.metadata ?? [];
  return (
    <Stack $gap={16}>
      <h2>Output</h2>
      <PatternInput
        label="Folders in the archive"
        value={output.folder}
        columns={columns}
        onChange={(folder) => set({ folder })}
        help="A slash opens a folder in a folder. Empty: straight into the archive."
      />
      <PatternInput
        label="File name"
        value={output.file}
        columns={columns}
        onChange={(file) => set({ file })}
        error={pathError}
        help="Copies that would get the same name are numbered; nothing is ever overwritten."
      />
      <Fields>
        <Choice
          label="Finish"
          items={finishes.map((finish) => ({ id: finish, text: finishWords(finish).title, detail: finishWords(finish).text }))}
          value={output.finish ?? 'flattened'}
          onChange={(finish) => set({ finish: finish as Finish })}
        />
        <Choice
          label="Combined files"
          items={[
            { id: 'none', text: 'none', detail: 'single files only' },
            { id: 'batch', text: 'one a batch', detail: 'all copies in one PDF, a bookmark each' },
            { id: 'template', text: 'one a template', detail: 'for each template its own PDF' },
          ]}
          value={combined}
          onChange={(next) => set({ combined: next as 'none' | 'batch' | 'template' })}
        />
      </Fields>
      {combined !== 'none' && (
        <Toggled label="Combined files for both sides of the paper" value={output.duplex ?? false} onChange={(duplex) => set({ duplex })} />
      )}
      <StampSettings hasLinks={work.mailing.next.link !== undefined} stamp={output.stamp ?? null} onChange={(stamp) => set({ stamp })} />
      <PictureSettings work={work} onChange={(pictures) => set({ pictures })} />
      <PasswordSettings work={work} />
      <h2>Metadata</h2>
      <Small>Values of these columns stand in the manifest and in the register, and every copy is found by them.</Small>
      <Row role="group" aria-label="Metadata" style={{ flexWrap: 'wrap' }}>
        {columns.map(({ name }) => (
          <Button
            key={name}
            small
            pressed={metadata.includes(name)}
            onPress={() => set({ metadata: metadata.includes(name) ? metadata.filter((one) => one !== name) : [...metadata, name] })}
          >
            {name}
          </Button>
        ))}
      </Row>
    </Stack>
  );
}
