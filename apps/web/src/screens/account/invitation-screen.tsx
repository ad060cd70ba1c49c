import { t } from '@mailbag/core/words';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate, useSearchParams } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { useContractForm } from '../../features/forms/use-contract-form';
import { Button } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { Brand, Card, Ground } from './frame';

/** Where an invitation leads: a password is chosen, and one is in. */
export function InvitationScreen() {
  const [search] = useSearchParams();
  const token = search.get('token') ?? '';
  const { data, error } = useQuery(queries.invitation(token));
  const { values, set, fault, submit } = useContractForm('AcceptInvitationRequest', { token, password: '' });
  const client = useQueryClient();
  const navigate = useNavigate();
  const accept = useMutation({
    mutationFn: (body: object) => api.post('/api/people/invitation', body),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['account'] });
      void navigate('/desk', { replace: true });
    },
  });
  return (
    <Ground>
      <Card onSubmit={submit(accept.mutate)}>
        <Brand>
          <img src="/mark.svg" alt="" width={30} height={30} />
          {t`Mailbag`}
        </Brand>
        {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
        {!data && !error && <Loading what={t`the invitation`} />}
        {data && (
          <>
            <h1>{t`Welcome, ${data.name}`}</h1>
            <Small>{t`You will sign in as ${data.email}.`}</Small>
            <TextInput
              label={t`Choose a password`}
              type="password"
              autoComplete="new-password"
              value={values.password}
              onChange={(password) => set({ password })}
              error={fault('password')}
              help={t`At least 10 characters. A sentence is easier to remember than a riddle.`}
              autoFocus
            />
            {accept.error && <Notice tone="brick">{sentenceOf(accept.error)}</Notice>}
            <Button type="submit" look="go" isDisabled={values.password === '' || accept.isPending}>{t`Accept the invitation`}</Button>
          </>
        )}
      </Card>
    </Ground>
  );
}
