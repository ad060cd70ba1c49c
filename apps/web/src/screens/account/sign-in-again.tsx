import { t } from '@mailbag/core/words';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Heading, Modal } from 'react-aria-components';
import { api, sentenceOf } from '../../api/client';
import { useContractForm } from '../../features/forms/use-contract-form';
import { Button } from '../../ui/button';
import { Box, Veil } from '../../ui/dialog';
import { TextInput } from '../../ui/field';
import { Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';

/** Signing in above the screen, on which everything stays as it was. */
export function SignInAgain({ email }: { email: string }) {
  const client = useQueryClient();
  const { values, set, fault, submit } = useContractForm('SignInRequest', { email, password: '' });
  const enter = useMutation({
    mutationFn: (body: object) => api.post('/api/account/sign-in', body),
    onSuccess: () => client.invalidateQueries(),
  });
  return (
    <Veil isOpen isKeyboardDismissDisabled>
      <Modal>
        <Box>
          <form onSubmit={submit(enter.mutate)}>
            <Stack $gap={12}>
              <Heading slot="title" level={2}>{t`Sign in again`}</Heading>
              <p>{t`Your session has ended, or you signed out in another window. What you have typed is still here and is saved as soon as you are back.`}</p>
              <TextInput
                label={t`E-mail address`}
                type="email"
                value={email}
                onChange={() => undefined}
                isReadOnly
                autoComplete="username"
              />
              <TextInput
                label={t`Password`}
                type="password"
                value={values.password}
                onChange={(password) => set({ password })}
                error={fault('password')}
                autoComplete="current-password"
                autoFocus
              />
              {enter.error && <Notice tone="brick">{sentenceOf(enter.error)}</Notice>}
              <div style={{ display: 'flex', justifyContent: 'space-between' }}>
                <Button onPress={() => window.location.assign('/')}>{t`Sign in as somebody else`}</Button>
                <Button type="submit" look="go" isDisabled={enter.isPending || !values.password}>{t`Sign in and continue`}</Button>
              </div>
            </Stack>
          </form>
        </Box>
      </Modal>
    </Veil>
  );
}
