import { count, counted, t } from '@mailbag/core/words';
import type { IntakeDetail, IntakeSummary } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ClipboardPen, Plus } from 'lucide-react';
import { useState } from 'react';
import { Checkbox, CheckboxGroup, Label } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { DeletedNotice, WastebasketLink } from '../../features/deleting';
import { useContractForm } from '../../features/forms/use-contract-form';
import { when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { FormCard } from '../../ui/form-card';
import { Empty, Head, Row, Screen, Scroll, Small, Stack } from '../../ui/layout';
import type { ListColumn } from '../../ui/list/column';
import { List } from '../../ui/list/list';
import { LinkButton } from '../../ui/link-button';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { useCrumbs } from '../shell/crumbs';

const Forms = styled(CheckboxGroup)`
  display: grid;
  gap: 4px;
  & > label {
    font-size: 12px;
    color: ${color.faded};
  }
`;
const Form = styled(Checkbox)`
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 6px 10px;
  border: 1px solid ${color.line};
  border-radius: 6px;
  cursor: pointer;
  &[data-selected] {
    background: ${color.plumWash};
    border-color: ${color.plum};
  }
  &[data-focus-visible] {
    outline: 2px solid ${color.plum};
  }
  & > i {
    width: 14px;
    height: 14px;
    border: 1px solid ${color.slate};
    border-radius: 3px;
    flex: none;
  }
  &[data-selected] > i {
    background: ${color.plum};
    border-color: ${color.plum};
  }
`;

const addressOf = ({ id }: IntakeSummary): string => `/intakes/${id}/questions`;
const keyOf = ({ id }: IntakeSummary): number => id;
const nameOf = ({ name }: IntakeSummary): string => name;

const columns: readonly ListColumn<IntakeSummary>[] = [
  {
    id: 'name',
    head: t`Name`,
    minWidth: 190,
    share: 3,
    isFixed: true,
    text: nameOf,
    cell: (one) => (
      <Link data-name="" to={addressOf(one)}>
        {one.name}
      </Link>
    ),
  },
  {
    id: 'address',
    head: t`Address`,
    minWidth: 170,
    share: 2,
    text: ({ word }) => `/in/${word}`,
    cell: (one) =>
      one.isPublished ? (
        <a href={`/in/${one.word}`} target="_blank" rel="noreferrer">
          <code>/in/{one.word}</code>
        </a>
      ) : (
        <code>/in/{one.word}</code>
      ),
  },
  {
    id: 'state',
    head: t`State`,
    minWidth: 120,
    share: 1,
    text: (one) => `${one.isPublished ? t`published` : t`draft`}${one.isAhead ? t`, changes not published yet` : ''}`,
    cell: (one) => (
      <>
        {one.isPublished ? <Mark $tone="moss">{t`published`}</Mark> : <Mark $tone="slate">{t`draft`}</Mark>}
        {one.isAhead && <Small>{t` changes not published yet`}</Small>}
      </>
    ),
  },
  {
    id: 'questions',
    head: t`Questions`,
    minWidth: 70,
    isNumber: true,
    text: (one) => String(one.questions),
    cell: (one) => <Link to={addressOf(one)}>{count(one.questions)}</Link>,
    value: (one) => one.questions,
  },
  {
    id: 'answers',
    head: t`Answers`,
    minWidth: 64,
    isNumber: true,
    text: (one) => String(one.answers),
    cell: (one) => <Link to={`/intakes/${one.id}/answers`}>{count(one.answers)}</Link>,
    value: (one) => one.answers,
  },
  {
    id: 'last',
    head: t`Last answer`,
    minWidth: 104,
    text: (one) => (one.lastAnswerAt ? when(one.lastAnswerAt) : ''),
    cell: (one) => (one.lastAnswerAt ? when(one.lastAnswerAt) : <Small>{t`none yet`}</Small>),
    value: (one) => one.lastAnswerAt,
  },
];

/** Intakes: pages that people answer, and whose answers become copies. */
export default function IntakesScreen() {
  useCrumbs({ text: t`Intakes` });
  const { data, error } = useQuery(queries.intakes());
  const [isMaking, setMaking] = useState(false);
  if (error && !data) return <Empty title={t`The intakes cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!data) return <Loading what={t`intakes`} />;
  const shows = isMaking || data.length === 0;
  return (
    <Screen>
      <Head title={t`Intakes`}>
        {!shows && (
          <Button changes look="go" onPress={() => setMaking(true)}>
            <Plus size={16} />
            {t`New intake`}
          </Button>
        )}
      </Head>
      <DeletedNotice kind="intake" />
      <Scroll style={{ padding: '0 16px', ...(data.length > 0 && { flex: 'none', maxHeight: '60%' }) }}>
        {shows && <NewIntake isFirst={data.length === 0} onCancel={data.length > 0 ? () => setMaking(false) : null} />}
      </Scroll>
      {data.length > 0 && (
        <Stack $gap={0} style={{ background: color.sheet, borderTop: `1px solid ${color.line}`, flex: 1, minHeight: 0 }}>
          <List
            id="intakes"
            label={t`intakes`}
            noun={['intake', 'intakes']}
            columns={columns}
            rows={data}
            keyOf={keyOf}
            nameOf={nameOf}
            to={addressOf}
            searchHint={t`Name or address`}
            tools={<WastebasketLink kind="intake" />}
            empty={() => <Empty title={t`No matches`}>{t`Search for a part of its name or its address.`}</Empty>}
          />
        </Stack>
      )}
    </Screen>
  );
}

/** Choose the forms, and the page is there. */
function NewIntake({ isFirst, onCancel }: { isFirst: boolean; onCancel: (() => void) | null }) {
  const { data } = useQuery(queries.templates());
  const { data: mailings = [] } = useQuery(queries.mailings());
  /** What it is called where nobody says otherwise: as its mailing, or as its only form. */
  const ownName = ({ before, chosen }: { before: string; chosen: readonly string[] }): string =>
    before !== ''
      ? (mailings.find(({ id }) => String(id) === before)?.name ?? '')
      : (chosen.length === 1 && data?.find(({ id }) => String(id) === chosen[0])?.name) || '';
  const { values, set, fault, submit } = useContractForm(
    'IntakeCreateRequest',
    { name: '', chosen: [] as string[], before: '' },
    (form) => ({
      name: form.name.trim() || ownName(form),
      templates: form.before === '' ? form.chosen.map(Number) : [],
      ...(form.before !== '' && { before: { mailingId: Number(form.before), site: window.location.origin } }),
    }),
  );
  const { chosen, before } = values;
  const { data: intakes = [] } = useQuery(queries.intakes());
  const client = useQueryClient();
  const navigate = useNavigate();
  const make = useMutation({
    mutationFn: (body: object) => api.post<IntakeDetail>('/api/intakes', body),
    onSuccess: async (made) => {
      await client.invalidateQueries({ queryKey: ['intakes'], exact: true });
      void navigate(`/intakes/${made.id}/questions`);
    },
  });
  if (!data) return <Loading what={t`templates`} />;
  const forms = data.filter(({ isArchived }) => !isArchived);
  if (forms.length === 0)
    return (
      <Empty
        title={t`An intake begins with a form`}
        action={<LinkButton to="/templates">{t`Add a template`}</LinkButton>}
      >{t`Add the PDF that people are to fill in, then make a page of it here.`}</Empty>
    );
  const hasForms = before !== '' || chosen.length > 0;
  const own = new Set(intakes.map(({ mailingId }) => mailingId));
  const answerable = mailings.filter(
    ({ id, sourceName, templates, isArchived }) => !own.has(id) && sourceName !== null && templates > 0 && !isArchived,
  );
  return (
    <div style={{ maxWidth: 620, marginBottom: 16 }}>
      <FormCard onSubmit={submit(make.mutate)}>
        {isFirst && (
          <Row $gap={12}>
            <ClipboardPen size={22} color={color.plum} />
            <p>{t`An intake is a page that people answer on their phone. Their answers fill in your forms, are checked like any record, and come back to them as finished copies.`}</p>
          </Row>
        )}
        {answerable.length > 0 && (
          <Choice
            label={t`For`}
            items={[
              { id: '', text: t`anybody`, detail: t`a page with empty questions` },
              ...answerable.map(({ id, name: mailing }) => ({
                id: String(id),
                text: t`the recipients of “${mailing}”`,
                detail: t`each by a personal link, with what the records say filled in`,
              })),
            ]}
            value={before}
            onChange={(next) => set({ before: next })}
          />
        )}
        {before === '' && (
          <Forms value={chosen} onChange={(next) => set({ chosen: next })}>
            <Label>{t`Forms that the answers fill in`}</Label>
            {forms.map((form) => (
              <Form key={form.id} value={String(form.id)}>
                <i />
                <span>
                  {form.name} <Small>{counted(form.fields, 'field')}</Small>
                </span>
              </Form>
            ))}
          </Forms>
        )}
        <TextInput
          label={t`Name of the intake`}
          value={values.name}
          onChange={(name) => set({ name })}
          error={fault('name')}
          placeholder={ownName(values) || t`Ask for a plot`}
        />
        {make.error && <Notice tone="brick">{sentenceOf(make.error)}</Notice>}
        <Row>
          <Button changes look="go" type="submit" isDisabled={!hasForms || make.isPending}>
            {make.isPending ? t`Reading the forms …` : t`Make the page`}
          </Button>
          {onCancel && <Button onPress={onCancel}>{t`Cancel`}</Button>}
        </Row>
        <Stack>
          <Small>{t`Nobody can reach the page until you publish it.`}</Small>
        </Stack>
      </FormCard>
    </div>
  );
}
