import { t } from '@mailbag/core/words';
import type { SavedView } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Bookmark, X } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color } from '../../theme';
import { Button, IconButton } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Row, Small } from '../../ui/layout';

/** Filters that are kept under a name; one click brings them back. */
export function SavedViews({ filter }: { filter: string }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const { data = [] } = useQuery(queries.savedViews());
  const [name, setName] = useState<string | null>(null);
  const keep = (views: SavedView[]): void => void client.setQueryData(queries.savedViews().queryKey, views);
  const save = useMutation({
    mutationFn: () => api.post<SavedView[]>('/api/copies/views', { name, filter }),
    onSuccess: (views) => (keep(views), setName(null)),
  });
  const remove = useMutation({
    mutationFn: (id: number) => api.remove(`/api/copies/views/${id}`),
    onSuccess: () => client.invalidateQueries({ queryKey: queries.savedViews().queryKey }),
  });
  if (data.length === 0 && filter === '') return null;
  return (
    <Row style={{ padding: '0 16px 10px', flexWrap: 'wrap' }} role="group" aria-label={t`Saved views`}>
      <Bookmark size={14} color={color.faded} />
      {data.map((view) => (
        <Row key={view.id} $gap={0}>
          <Button small pressed={view.filter === filter} onPress={() => void navigate(`/ledger?${view.filter}`)}>
            {view.name}
          </Button>
          {view.filter === filter && (
            <IconButton small label={t`Delete the view ${view.name}`} onPress={() => remove.mutate(view.id)}>
              <X size={12} />
            </IconButton>
          )}
        </Row>
      ))}
      {filter !== '' && !data.some((view) => view.filter === filter) && name === null && (
        <Button small look="bare" onPress={() => setName('')}>{t`Save this view`}</Button>
      )}
      {name !== null && (
        <Row
          as="form"
          onSubmit={(event: React.FormEvent) => {
            event.preventDefault();
            save.mutate();
          }}
        >
          <div style={{ width: 180 }}>
            <TextInput label={t`Name of the view`} hideLabel placeholder={t`Name of the view`} value={name} onChange={setName} autoFocus />
          </div>
          <Button small type="submit" look="go" isDisabled={name.trim() === '' || save.isPending}>{t`Save`}</Button>
          <Button small look="bare" onPress={() => setName(null)}>{t`Cancel`}</Button>
          {save.error && <Small>{sentenceOf(save.error)}</Small>}
        </Row>
      )}
    </Row>
  );
}
