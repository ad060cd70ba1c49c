import { t, translated } from '@mailbag/core/words';
import type { SpokenLanguage } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, sentenceOf } from '../../api/client';
import { languageNames } from '../../words/languages';
import { queries } from '../../api/queries';
import { useContractForm } from '../../features/forms/use-contract-form';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Columns, Padded } from '../../ui/columns';
import { TextInput, Toggled } from '../../ui/field';
import { FormCard } from '../../ui/form-card';
import { Row, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';

/** One's own account. */
export function YouPart() {
  const { data } = useQuery(queries.account());
  const { values, set, fault, submit, reset } = useContractForm('PasswordRequest', { before: '', password: '' });
  const change = useMutation({
    mutationFn: (body: object) => api.post('/api/people/me/password', body),
    onSuccess: () => reset({ before: '', password: '' }),
  });
  const client = useQueryClient();
  const speak = useMutation({
    mutationFn: (language: SpokenLanguage) => api.put('/api/people/me/language', { language }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['account'] }),
  });
  const wish = useMutation({
    mutationFn: (mailsBatches: boolean) => api.put('/api/people/me/mails', { mailsBatches }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['account'] }),
  });
  const signOut = useMutation({ mutationFn: () => api.post('/api/people/me/sign-out-elsewhere') });
  if (!data?.account) return <Loading what={t`your account`} />;
  const { name, email, role, language, mailsBatches } = data.account;
  return (
    <Columns $columns="minmax(0, 420px)">
      <Padded>
        <Choice
          label={t`Language`}
          items={[{ id: '', text: t`as the browser asks` }, ...Object.entries(languageNames).map(([id, text]) => ({ id, text }))]}
          value={language}
          onChange={(id) => speak.mutate(id as SpokenLanguage)}
        />
        <Small>{t`Mailbag uses it wherever you sign in. The page is reloaded.`}</Small>
        {speak.error && <Notice tone="brick">{sentenceOf(speak.error)}</Notice>}
        {role !== 'viewer' && (
          <>
            <Toggled label={t`Mail me when a long batch of mine is done`} value={mailsBatches} onChange={wish.mutate} />
            <Small>{t`Long is more than a minute. You are also told when something stops it.`}</Small>
            {wish.error && <Notice tone="brick">{sentenceOf(wish.error)}</Notice>}
          </>
        )}
      </Padded>
      <FormCard onSubmit={submit(change.mutate)}>
        <h2>{name}</h2>
        <Small>
          {email} · {translated(role)}
        </Small>
        <TextInput
          label={t`Current password`}
          type="password"
          autoComplete="current-password"
          value={values.before}
          onChange={(before) => set({ before })}
          error={fault('before')}
        />
        <TextInput
          label={t`New password`}
          type="password"
          autoComplete="new-password"
          value={values.password}
          onChange={(password) => set({ password })}
          error={fault('password')}
          help={t`At least 10 characters. Other browsers are signed out.`}
        />
        {(change.error ?? signOut.error) && <Notice tone="brick">{sentenceOf(change.error ?? signOut.error)}</Notice>}
        {change.isSuccess && <Notice tone="moss">{t`Password changed.`}</Notice>}
        {signOut.isSuccess && <Notice tone="moss">{t`You are signed in here only.`}</Notice>}
        <Row>
          <Button
            type="submit"
            look="go"
            isDisabled={values.before === '' || values.password === '' || change.isPending}
          >{t`Change the password`}</Button>
          <Button onPress={() => signOut.mutate()}>{t`Sign out elsewhere`}</Button>
        </Row>
      </FormCard>
    </Columns>
  );
}
