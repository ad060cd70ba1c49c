import { t } from '@mailbag/core/words';
import type { MailingPlan } from '@mailbag/contract';
import { PASSWORD_KEPT, replaceTags } from '@mailbag/core';
import type { ComponentProps } from 'react';
import { Button } from '../../ui/button';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import type { MailingWork } from './mailing-context';
import { PatternInput } from './pattern-input';

/** A password that is short, or the same for everybody, protects little. */
function weakness(pattern: string): string | null {
  const text = pattern.trim();
  if (text === '') return null;
  if (!/\{\{/.test(text))
    return text.length < 8
      ? t`Everybody gets the same short password. Compose it from the record, or make it longer.`
      : t`Everybody gets the same password.`;
  let tags = 0;
  const others = replaceTags(text, () => (tags++, ''));
  return others === '' && tags === 1 ? t`A single value, such as a date of birth, is easy to guess. Two are better.` : null;
}

/** A password's pattern. Where it may not be seen, it is said that there is one, and another can take its place. */
function PasswordPattern(props: ComponentProps<typeof PatternInput>) {
  if (props.value !== PASSWORD_KEPT) return <PatternInput {...props} />;
  return (
    <Stack $gap={4}>
      <strong>{props.label}</strong>
      <Row>
        <Small>{t`One is set. Your account does not see it.`}</Small>
        <Button small changes onPress={() => props.onChange('')}>{t`Set a new one`}</Button>
      </Row>
    </Stack>
  );
}

/** Passwords of copies, and the sentence that tells how to open them. */
export function PasswordSettings({ work: { plan, change, columns } }: { work: MailingWork }) {
  const { output } = plan;
  const set = (part: Partial<MailingPlan['output']>): void => change((one) => ({ ...one, output: { ...one.output, ...part } }));
  const weak = output.openPassword === PASSWORD_KEPT ? null : weakness(output.openPassword ?? '');
  return (
    <>
      <h2>{t`Passwords`}</h2>
      <PasswordPattern
        label={t`Password that opens a copy`}
        value={output.openPassword ?? ''}
        columns={columns}
        onChange={(openPassword) => set({ openPassword })}
        help={t`Composed for each record. Leave it empty for none. It is stored nowhere and shown only to those who may see it. Printed copies have none.`}
      />
      {weak && <Notice tone="ochre">{weak}</Notice>}
      {(output.openPassword ?? '').trim() !== '' && (
        <PatternInput
          label={t`Sentence that tells the recipient how to open it`}
          value={plan.message.passwordSentence ?? ''}
          columns={columns}
          onChange={(passwordSentence) => change((one) => ({ ...one, message: { ...one.message, passwordSentence } }))}
          help={t`Stands at the end of the message, such as: The attachment opens with your plot number and your postal code, without a space. Never the password itself.`}
        />
      )}
      <PasswordPattern
        label={t`Password that lifts the limits of use`}
        value={output.permissionsPassword ?? ''}
        columns={columns}
        onChange={(permissionsPassword) => set({ permissionsPassword })}
        help={t`With one, recipients can read, print and copy text, but change nothing. Leave it empty for no limits.`}
      />
    </>
  );
}
