import { t } from '@mailbag/core/words';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, sentenceOf } from '../../api/client';
import { useContractForm } from '../../features/forms/use-contract-form';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { Brand, Card, Ground } from './frame';

/** Sign-in, and on a first start the setting-up of the administrator. */
export function SignInScreen({ setUpNeeded }: { setUpNeeded: boolean }) {
  const client = useQueryClient();
  const { values, set, fault, submit } = useContractForm(
    // Address and password are right or wrong as a pair, which only the server knows.
    setUpNeeded ? 'SetUpRequest' : null,
    { name: '', email: '', password: '' },
    (form) => ({ ...form, name: form.name.trim() }),
  );
  const { email, password } = values;
  const enter = useMutation({
    mutationFn: ({ name, ...known }: typeof values) =>
      setUpNeeded ? api.post('/api/account/set-up', { name, ...known }) : api.post('/api/account/sign-in', known),
    onSuccess: () => client.invalidateQueries({ queryKey: ['account'] }),
  });
  return (
    <Ground>
      <Card onSubmit={submit(enter.mutate)}>
        <Brand>
          <img src="/mark.svg" alt="" width={30} height={30} />
          {t`Mailbag`}
        </Brand>
        <Stack $gap={4}>
          <h1>{setUpNeeded ? t`Set up Mailbag` : t`Sign in`}</h1>
          {setUpNeeded && <p style={{ color: color.faded }}>{t`You are the first here. This account will be the administrator’s.`}</p>}
        </Stack>
        {setUpNeeded && (
          <TextInput
            label={t`Your name`}
            value={values.name}
            onChange={(name) => set({ name })}
            error={fault('name')}
            autoComplete="name"
            autoFocus
          />
        )}
        <TextInput
          label={t`E-mail address`}
          type="email"
          value={email}
          onChange={(next) => set({ email: next })}
          error={fault('email')}
          autoComplete="username"
          autoFocus={!setUpNeeded}
        />
        <TextInput
          label={t`Password`}
          type="password"
          value={password}
          onChange={(next) => set({ password: next })}
          error={fault('password')}
          autoComplete={setUpNeeded ? 'new-password' : 'current-password'}
          {...(setUpNeeded ? { help: t`At least 10 characters. A sentence is easier to remember than a riddle.` } : {})}
        />
        {enter.error && <Notice tone="brick">{sentenceOf(enter.error)}</Notice>}
        <Button type="submit" look="go" isDisabled={enter.isPending || !email || !password}>
          {setUpNeeded ? t`Set up and sign in` : t`Sign in`}
        </Button>
      </Card>
    </Ground>
  );
}
