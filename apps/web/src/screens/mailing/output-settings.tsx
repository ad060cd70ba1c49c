import type { MailingPlan } from '@mailbag/contract';
import type { Finish } from '@mailbag/core';
import { PASSWORD_KEPT, finishes, replaceTags } from '@mailbag/core';
import { Folder } from 'lucide-react';
import type { ComponentProps } from 'react';
import styled from 'styled-components';
import { finishWords } from '../../features/mailing/finish-words';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { PatternInput } from '../../features/mailing/pattern-input';
import type { Sample } from '../../features/mailing/sample';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Fields } from '../../ui/columns';
import { Toggled } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
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

/** A password that is short, or the same for everybody, protects little. */
function weakness(pattern: string): string | null {
  const text = pattern.trim();
  if (text === '') return null;
  if (!/\{\{/.test(text))
    return text.length < 8
      ? 'Everybody gets the same short password. Compose it from the record, or make it longer.'
      : 'Everybody gets the same password.';
  let tags = 0;
  const others = replaceTags(text, () => (tags++, ''));
  return others === '' && tags === 1 ? 'One value alone is guessed easily, such as a date of birth. Two are better.' : null;
}

/** A password's pattern. Where it may not be seen, it is said that there is one, and another can take its place. */
function PasswordPattern(props: ComponentProps<typeof PatternInput>) {
  if (props.value !== PASSWORD_KEPT) return <PatternInput {...props} />;
  return (
    <Stack $gap={4}>
      <strong>{props.label}</strong>
      <Row>
        <Small>One is set. Your account does not see it.</Small>
        <Button small changes onPress={() => props.onChange('')}>
          Set another
        </Button>
      </Row>
    </Stack>
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
  const weak = output.openPassword === PASSWORD_KEPT ? null : weakness(output.openPassword ?? '');
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
      <h2>Passwords</h2>
      <PasswordPattern
        label="Password that opens a copy"
        value={output.openPassword ?? ''}
        columns={columns}
        onChange={(openPassword) => set({ openPassword })}
        help="Composed for each record; empty: none. It is stored nowhere and told only to those who may see it. Printed copies have none."
      />
      {weak && <Notice tone="ochre">{weak}</Notice>}
      {(output.openPassword ?? '').trim() !== '' && (
        <PatternInput
          label="Sentence that tells the recipient how to open it"
          value={plan.message.passwordSentence ?? ''}
          columns={columns}
          onChange={(passwordSentence) => change((one) => ({ ...one, message: { ...one.message, passwordSentence } }))}
          help="Stands at the end of the message, such as: The attachment opens with your plot number and your postal code, without a space. Never the password itself."
        />
      )}
      <PasswordPattern
        label="Password that lifts the limits of use"
        value={output.permissionsPassword ?? ''}
        columns={columns}
        onChange={(permissionsPassword) => set({ permissionsPassword })}
        help="With one, recipients can read, print and copy text, and change nothing. Empty: no limits."
      />
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
