import { t, translated } from '@mailbag/core/words';
import type { InvitationAnswer, InvitedAnswer, PeopleAnswer, PersonAnswer, Role } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { when } from '../../features/when';
import { color, font } from '../../theme';
import { useContractForm } from '../../features/forms/use-contract-form';
import { Button, IconButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Columns, Fields } from '../../ui/columns';
import { TextInput, Toggled } from '../../ui/field';
import { FormCard } from '../../ui/form-card';
import { Card, Empty, Row, Small, Stack } from '../../ui/layout';
import type { ListColumn } from '../../ui/list/column';
import { List } from '../../ui/list/list';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { useAddress } from '../../ui/use-address';
import { useSaving } from './use-saving';

const roleItems: { id: Role; text: string; detail: string }[] = [
  { id: 'administrator', text: t`administrator`, detail: t`everything, settings and people too` },
  { id: 'operator', text: t`operator`, detail: t`mailings, batches, copies` },
  { id: 'viewer', text: t`viewer`, detail: t`can look but not change anything` },
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

/** What may be changed of one account. */
function Person({ person, isMe, onClose }: { person: PersonAnswer; isMe: boolean; onClose: () => void }) {
  const key = queries.people().queryKey;
  const save = useSaving(key, (part: Partial<PersonAnswer>) => {
    const { name, role, seesValues, seesPasswords, closed } = { ...person, ...part };
    return api.put<PeopleAnswer>(`/api/people/${person.id}`, { name, role, seesValues, seesPasswords, closed });
  });
  const signOut = useSaving(key, () => api.post<PeopleAnswer>(`/api/people/${person.id}/sign-out`));
  return (
    <Card as="section" aria-label={person.name} style={{ padding: 16 }}>
      <Stack>
        <Row>
          <h2 style={{ flex: 1 }}>{person.name}</h2>
          <IconButton label={t`Close`} onPress={onClose}>
            <X size={15} />
          </IconButton>
        </Row>
        <Rights value={person} onChange={(part) => save.mutate(part)} />
        <Row style={{ flexWrap: 'wrap' }}>
          <Button small onPress={() => signOut.mutate(undefined)} isDisabled={person.sessions === 0}>{t`Sign out everywhere`}</Button>
          {!isMe && (
            <Button small look="danger" onPress={() => save.mutate({ closed: !person.closed })}>
              {person.closed ? t`Reopen the account` : t`Close the account`}
            </Button>
          )}
        </Row>
        {(save.error ?? signOut.error) && <Notice tone="brick">{sentenceOf(save.error ?? signOut.error)}</Notice>}
      </Stack>
    </Card>
  );
}

/** Somebody with an account, or an invitation to one. */
interface Line {
  key: string;
  name: string;
  email: string;
  role: Role;
  person: PersonAnswer | null;
  invitation: InvitationAnswer | null;
}
const keyOf = ({ key }: Line): string => key;
const nameOf = ({ name }: Line): string => name;
const linesOf = ({ people, invitations }: PeopleAnswer): readonly Line[] => [
  ...people.map((person) => ({ ...person, key: String(person.id), person, invitation: null })),
  ...invitations.map((invitation) => ({ ...invitation, key: `invited ${invitation.id}`, person: null, invitation })),
];
const stateOf = ({ person }: Line): string => (person === null ? t`invited` : person.closed ? t`closed` : t`open`);
const seenWords = ({ person, invitation }: Line): string =>
  invitation ? t`valid until ${when(invitation.expiresAt)}` : person?.lastSeenAt ? when(person.lastSeenAt) : t`never`;

const columns: readonly ListColumn<Line>[] = [
  {
    id: 'name',
    head: t`Name`,
    minWidth: 150,
    share: 2,
    isFixed: true,
    text: ({ name, email }) => `${name} ${email}`,
    value: nameOf,
    cell: (one) => (
      <span data-name="">
        <b>{one.name}</b>
        <br />
        <Small>{one.email}</Small>
      </span>
    ),
  },
  { id: 'role', head: t`Role`, minWidth: 84, text: ({ role }) => translated(role) },
  {
    id: 'state',
    head: t`Account`,
    minWidth: 66,
    text: stateOf,
    cell: (one) => <Mark $tone={one.person === null ? 'ochre' : one.person.closed ? 'brick' : 'slate'}>{stateOf(one)}</Mark>,
  },
  {
    id: 'values',
    head: t`Sees values`,
    minWidth: 74,
    isExtra: true,
    text: ({ person }) => (person === null ? '' : person.seesValues ? t`yes` : t`no`),
  },
  { id: 'seen', head: t`Last seen`, minWidth: 104, share: 1, text: seenWords, value: ({ person }) => person?.lastSeenAt ?? null },
  {
    id: 'sessions',
    head: t`Signed in`,
    minWidth: 60,
    isExtra: true,
    isNumber: true,
    text: ({ person }) => (person ? String(person.sessions) : ''),
    value: ({ person }) => person?.sessions ?? null,
  },
];

/** Who works with Mailbag, and what they may do. */
export function PeoplePart() {
  const client = useQueryClient();
  const { data } = useQuery(queries.people());
  const { data: me } = useQuery(queries.account());
  const { values, set, fault, submit, reset } = useContractForm(
    'InvitationRequest',
    { name: '', email: '', role: 'operator' as Role, seesValues: true, seesPasswords: false },
    (form) => ({ ...form, name: form.name.trim(), email: form.email.trim() }),
  );
  const invite = useMutation({
    mutationFn: (body: object) => api.post<InvitedAnswer>('/api/people/invitations', body),
    onSuccess: () => {
      reset({ ...values, name: '', email: '' });
      void client.invalidateQueries({ queryKey: ['people'] });
    },
  });
  const takeBack = useMutation({
    mutationFn: (id: string) => api.remove(`/api/people/invitations/${id}`),
    onSuccess: () => client.invalidateQueries({ queryKey: ['people'] }),
  });
  const { query, put } = useAddress();
  if (!data) return <Loading what={t`the people`} />;
  const chosen = data.people.find(({ id }) => String(id) === query.get('person')) ?? null;
  const tools: ListColumn<Line> = {
    id: 'tools',
    head: t`Withdraw`,
    minWidth: 84,
    isTools: true,
    text: () => '',
    cell: ({ invitation }) =>
      invitation && (
        <Button
          small
          look="danger"
          aria-label={t`Withdraw the invitation of ${invitation.name}`}
          onPress={() => takeBack.mutate(invitation.id)}
        >{t`Withdraw`}</Button>
      ),
  };
  return (
    <Columns $columns="minmax(0, 1fr) minmax(0, 310px)" style={{ height: '100%' }}>
      <Card style={{ display: 'flex', flexDirection: 'column', minHeight: 320 }}>
        {takeBack.error && <Notice tone="brick">{sentenceOf(takeBack.error)}</Notice>}
        <List
          id="people"
          label={t`people`}
          noun={['person', 'people']}
          columns={data.invitations.length > 0 ? [...columns, tools] : columns}
          rows={linesOf(data)}
          keyOf={keyOf}
          nameOf={nameOf}
          chosen={chosen === null ? null : String(chosen.id)}
          onChoose={(key) => put({ person: key.startsWith('invited') ? null : key })}
          searchHint={t`Name or address`}
          empty={() => <Empty title={t`No matches`}>{t`Search for a part of a name or an e-mail address.`}</Empty>}
        />
      </Card>
      {chosen ? (
        <Person key={chosen.id} person={chosen} isMe={chosen.id === me?.account?.id} onClose={() => put({ person: null })} />
      ) : (
        <FormCard onSubmit={submit(invite.mutate)}>
          <h2>{t`Invite somebody`}</h2>
          <Fields>
            <TextInput label={t`Name`} value={values.name} onChange={(name) => set({ name })} error={fault('name')} />
            <TextInput label={t`E-mail address`} value={values.email} onChange={(email) => set({ email })} error={fault('email')} />
          </Fields>
          <Rights value={values} onChange={set} />
          {invite.error && <Notice tone="brick">{sentenceOf(invite.error)}</Notice>}
          {invite.data && (
            <Notice tone={invite.data.failure ? 'ochre' : 'moss'}>
              {invite.data.failure
                ? t`It could not be mailed (${invite.data.failure}). Pass on this address yourself:`
                : t`The invitation has been sent. It can also be opened at`}
              <div style={{ fontFamily: font.mono, fontSize: 12, overflowWrap: 'anywhere', color: color.ink }}>{invite.data.address}</div>
            </Notice>
          )}
          <Row>
            <Button type="submit" look="go" isDisabled={invite.isPending}>{t`Invite`}</Button>
          </Row>
        </FormCard>
      )}
    </Columns>
  );
}
