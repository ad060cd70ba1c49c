import { t } from '@mailbag/core/words';
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
        <Small>{t`Kept in the archive as`}</Small>
        {sample.paths.length === 0 && <p>{t`The packet is empty.`}</p>}
        {sample.paths.map(({ path, error }, at) => (
          <Path key={at}>
            <Folder size={14} color={color.faded} />
            {path ?? error}
          </Path>
        ))}
        {same && (
          <Small
            style={{ color: color.ochre }}
          >{t`The copies of one record get the same name and are numbered. Put {{ template }} into the name to tell them apart.`}</Small>
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
      <h2>{t`Output`}</h2>
      <PatternInput
        label={t`Folders in the archive`}
        value={output.folder}
        columns={columns}
        onChange={(folder) => set({ folder })}
        help={t`A slash makes a folder within a folder. Left empty: straight into the archive.`}
      />
      <PatternInput
        label={t`File name`}
        value={output.file}
        columns={columns}
        onChange={(file) => set({ file })}
        error={pathError}
        help={t`Copies that would get the same name are numbered; nothing is ever overwritten.`}
      />
      <Fields>
        <Choice
          label={t`Finish`}
          items={finishes.map((finish) => ({ id: finish, text: finishWords(finish).title, detail: finishWords(finish).text }))}
          value={output.finish ?? 'flattened'}
          onChange={(finish) => set({ finish: finish as Finish })}
        />
        <Choice
          label={t`Combined files`}
          items={[
            { id: 'none', text: t`none`, detail: t`single files only` },
            { id: 'batch', text: t`one per batch`, detail: t`all copies in one PDF, with a bookmark for each` },
            { id: 'template', text: t`one per template`, detail: t`a PDF of its own for each template` },
          ]}
          value={combined}
          onChange={(next) => set({ combined: next as 'none' | 'batch' | 'template' })}
        />
      </Fields>
      {combined !== 'none' && (
        <Toggled
          label={t`Combined files for both sides of the paper`}
          value={output.duplex ?? false}
          onChange={(duplex) => set({ duplex })}
        />
      )}
      <StampSettings hasLinks={work.mailing.next.link !== undefined} stamp={output.stamp ?? null} onChange={(stamp) => set({ stamp })} />
      <PictureSettings work={work} onChange={(pictures) => set({ pictures })} />
      <PasswordSettings work={work} />
      <h2>{t`Metadata`}</h2>
      <Small>{t`Values of these columns stand in the manifest and in the register, and every copy is found by them.`}</Small>
      <Row role="group" aria-label={t`Metadata`} style={{ flexWrap: 'wrap' }}>
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
