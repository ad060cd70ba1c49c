import { t } from '@mailbag/core/words';
import type { SavedView } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Bookmark, X } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { DeletedNotice, useDeleting } from '../../features/deleting';
import { useContractForm } from '../../features/forms/use-contract-form';
import { Rename } from '../../features/rename';
import { color } from '../../theme';
import { Button, IconButton } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Row, Small } from '../../ui/layout';

/** Filters that are kept under a name; one click brings them back. */
export function SavedViews({ filter }: { filter: string }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const { data = [] } = useQuery(queries.savedViews());
  const [isNaming, setNaming] = useState(false);
  const keep = (views: SavedView[]): void => void client.setQueryData(queries.savedViews().queryKey, views);
  const deleting = useDeleting('view');
  const rename = useMutation({
    mutationFn: ({ id, name }: { id: number; name: string }) => api.put<SavedView[]>(`/api/copies/views/${id}`, { name }),
    onSuccess: keep,
  });
  const notice = <DeletedNotice kind="view" error={deleting.error ?? rename.error} />;
  if (data.length === 0 && filter === '') return notice;
  return (
    <>
      {notice}
      <Row style={{ padding: '0 16px 10px', flexWrap: 'wrap' }} role="group" aria-label={t`Saved views`}>
        <Bookmark size={14} color={color.faded} />
        {data.map((view) => (
          <Row key={view.id} $gap={0}>
            <Button small pressed={view.filter === filter} onPress={() => void navigate(`/ledger?${view.filter}`)}>
              {view.name}
            </Button>
            {view.filter === filter && (
              <>
                <Rename name={view.name} onRename={(name) => rename.mutate({ id: view.id, name })} />
                <IconButton small label={t`Delete the view ${view.name}`} onPress={() => deleting.mutate([view])}>
                  <X size={12} />
                </IconButton>
              </>
            )}
          </Row>
        ))}
        {filter !== '' && !data.some((view) => view.filter === filter) && !isNaming && (
          <Button small look="bare" onPress={() => setNaming(true)}>{t`Save this view`}</Button>
        )}
        {isNaming && <NewView filter={filter} onDone={(views) => (views && keep(views), setNaming(false))} />}
      </Row>
    </>
  );
}

/** What the filter that stands in the address is to be called. */
function NewView({ filter, onDone }: { filter: string; onDone: (views: SavedView[] | null) => void }) {
  const { values, set, fault, submit } = useContractForm('SavedViewRequest', { name: '' }, ({ name }) => ({ name: name.trim(), filter }));
  const save = useMutation({ mutationFn: (body: object) => api.post<SavedView[]>('/api/copies/views', body), onSuccess: onDone });
  return (
    <Row as="form" onSubmit={submit(save.mutate)}>
      <div style={{ width: 180 }}>
        <TextInput
          label={t`Name of the view`}
          hideLabel
          placeholder={t`Name of the view`}
          value={values.name}
          onChange={(name) => set({ name })}
          error={fault('name')}
          autoFocus
        />
      </div>
      <Button small type="submit" look="go" isDisabled={save.isPending}>{t`Save`}</Button>
      <Button small look="bare" onPress={() => onDone(null)}>{t`Cancel`}</Button>
      {save.error && <Small>{sentenceOf(save.error)}</Small>}
    </Row>
  );
}
