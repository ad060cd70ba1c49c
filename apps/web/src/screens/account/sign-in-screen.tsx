import { t } from '@mailbag/core/words';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { Brand, Card, Ground } from './frame';

/** Sign-in, and on a first start the setting-up of the administrator. */
export function SignInScreen({ setUpNeeded }: { setUpNeeded: boolean }) {
  const client = useQueryClient();
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const enter = useMutation({
    mutationFn: () =>
      setUpNeeded ? api.post('/api/account/set-up', { name, email, password }) : api.post('/api/account/sign-in', { email, password }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['account'] }),
  });
  return (
    <Ground>
      <Card
        onSubmit={(event) => {
          event.preventDefault();
          enter.mutate();
        }}
      >
        <Brand>
          <img src="/mark.svg" alt="" width={30} height={30} />
          {t`Mailbag`}
        </Brand>
        <Stack $gap={4}>
          <h1>{setUpNeeded ? t`Set up Mailbag` : t`Sign in`}</h1>
          {setUpNeeded && <p style={{ color: color.faded }}>{t`You are the first here. This account will be the administrator’s.`}</p>}
        </Stack>
        {setUpNeeded && <TextInput label={t`Your name`} value={name} onChange={setName} autoComplete="name" autoFocus />}
        <TextInput
          label={t`E-mail address`}
          type="email"
          value={email}
          onChange={setEmail}
          autoComplete="username"
          autoFocus={!setUpNeeded}
        />
        <TextInput
          label={t`Password`}
          type="password"
          value={password}
          onChange={setPassword}
          autoComplete={setUpNeeded ? 'new-password' : 'current-password'}
          {...(setUpNeeded ? { help: t`At least 10 characters. A sentence is easier to remember than a riddle.` } : {})}
        />
        {enter.error && <Notice tone="brick">{sentenceOf(enter.error)}</Notice>}
        <Button
          type="submit"
          look="go"
          isDisabled={enter.isPending || !email || !password || (setUpNeeded && (!name.trim() || password.length < 10))}
        >
          {setUpNeeded ? t`Set up and sign in` : t`Sign in`}
        </Button>
      </Card>
    </Ground>
  );
}
