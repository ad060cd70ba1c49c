import { plural, t, translated } from '@mailbag/core/words';
import type { InvitedAnswer, PeopleAnswer, PersonAnswer, Role } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { when } from '../../features/when';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Columns, Fields, ListLine, Padded } from '../../ui/columns';
import { TextInput, Toggled } from '../../ui/field';
import { FormCard } from '../../ui/form-card';
import { Row, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { useSaving } from './use-saving';

const roleItems: { id: Role; text: string; detail: string }[] = [
  { id: 'administrator', text: t`administrator`, detail: t`everything, settings and people too` },
  { id: 'operator', text: t`operator`, detail: t`mailings, batches, copies` },
  { id: 'viewer', text: t`viewer`, detail: t`looks, changes nothing` },
];

function Rights({
  value,
  onChange,
}: {
  value: { role: Role; seesValues: boolean; seesPasswords: boolean };
  onChange: (part: Partial<{ role: Role; seesValues: boolean; seesPasswords: boolean }>) => void;
}) {
  return (
    <Row $gap={16} style={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
      <Choice label={t`Role`} items={roleItems} value={value.role} onChange={(role) => onChange({ role: role as Role })} />
      <Toggled label={t`Sees values of records`} value={value.seesValues} onChange={(seesValues) => onChange({ seesValues })} />
      <Toggled label={t`Sees passwords of copies`} value={value.seesPasswords} onChange={(seesPasswords) => onChange({ seesPasswords })} />
    </Row>
  );
}

function Person({ person, isMe }: { person: PersonAnswer; isMe: boolean }) {
  const [open, setOpen] = useState(false);
  const key = queries.people().queryKey;
  const save = useSaving(key, (part: Partial<PersonAnswer>) => {
    const { name, role, seesValues, seesPasswords, closed } = { ...person, ...part };
    return api.put<PeopleAnswer>(`/api/people/${person.id}`, { name, role, seesValues, seesPasswords, closed });
  });
  const signOut = useSaving(key, () => api.post<PeopleAnswer>(`/api/people/${person.id}/sign-out`));
  return (
    <div>
      <ListLine actions={<Button small pressed={open} onPress={() => setOpen(!open)}>{t`Change`}</Button>}>
        <b>{person.name}</b> <Mark $tone={person.closed ? 'brick' : 'slate'}>{person.closed ? t`closed` : translated(person.role)}</Mark>{' '}
        {isMe && <Small>{t`you`}</Small>}
        <div>
          <Small>
            {t`${person.email} · ${person.lastSeenAt ? t`last seen ${when(person.lastSeenAt)}` : t`never seen yet`} · signed in ${plural(person.sessions, 'time')}`}
            {!person.seesValues && t` · sees no values`}
          </Small>
        </div>
      </ListLine>
      {open && (
        <Stack style={{ padding: '0 0 12px' }}>
          <Rights value={person} onChange={(part) => save.mutate(part)} />
          <Row>
            <Button small onPress={() => signOut.mutate(undefined)} isDisabled={person.sessions === 0}>{t`Sign out everywhere`}</Button>
            {!isMe && (
              <Button small look="danger" onPress={() => save.mutate({ closed: !person.closed })}>
                {person.closed ? t`Open the account again` : t`Close the account`}
              </Button>
            )}
          </Row>
          {(save.error ?? signOut.error) && <Notice tone="brick">{sentenceOf(save.error ?? signOut.error)}</Notice>}
        </Stack>
      )}
    </div>
  );
}

/** Who works with Mailbag, and what they may do. */
export function PeoplePart() {
  const client = useQueryClient();
  const { data } = useQuery(queries.people());
  const { data: me } = useQuery(queries.account());
  const [form, setForm] = useState({ name: '', email: '', role: 'operator' as Role, seesValues: true, seesPasswords: false });
  const invite = useMutation({
    mutationFn: () => api.post<InvitedAnswer>('/api/people/invitations', form),
    onSuccess: () => {
      setForm({ ...form, name: '', email: '' });
      void client.invalidateQueries({ queryKey: ['people'] });
    },
  });
  const takeBack = useMutation({
    mutationFn: (id: string) => api.remove(`/api/people/invitations/${id}`),
    onSuccess: () => client.invalidateQueries({ queryKey: ['people'] }),
  });
  if (!data) return <Loading what={t`the people`} />;
  return (
    <Columns $columns="minmax(0, 620px) minmax(0, 400px)">
      <Padded style={{ gap: 4 }}>
        <h2>{t`People`}</h2>
        {data.people.map((person) => (
          <Person key={person.id} person={person} isMe={person.id === me?.account?.id} />
        ))}
        {data.invitations.map((one) => (
          <ListLine key={one.id} actions={<Button small look="danger" onPress={() => takeBack.mutate(one.id)}>{t`Take back`}</Button>}>
            <b>{one.name}</b> <Mark $tone="ochre">{t`invited`}</Mark>
            <div>
              <Small>{t`${one.email} · ${translated(one.role)} · by ${one.who} · holds until ${when(one.expiresAt)}`}</Small>
            </div>
          </ListLine>
        ))}
      </Padded>
      <FormCard onSubmit={() => invite.mutate()}>
        <h2>{t`Invite somebody`}</h2>
        <Fields>
          <TextInput label={t`Name`} value={form.name} onChange={(name) => setForm({ ...form, name })} />
          <TextInput label={t`E-mail address`} value={form.email} onChange={(email) => setForm({ ...form, email })} />
        </Fields>
        <Rights value={form} onChange={(part) => setForm({ ...form, ...part })} />
        {invite.error && <Notice tone="brick">{sentenceOf(invite.error)}</Notice>}
        {invite.data && (
          <Notice tone={invite.data.said ? 'ochre' : 'moss'}>
            {invite.data.said
              ? t`It could not be mailed (${invite.data.said}). Give this address by hand:`
              : t`The invitation is on its way. It also opens at`}
            <div style={{ fontFamily: font.mono, fontSize: 12, overflowWrap: 'anywhere', color: color.ink }}>{invite.data.address}</div>
          </Notice>
        )}
        <Row>
          <Button
            type="submit"
            look="go"
            isDisabled={form.name.trim() === '' || !form.email.includes('@') || invite.isPending}
          >{t`Invite`}</Button>
        </Row>
      </FormCard>
    </Columns>
  );
}
