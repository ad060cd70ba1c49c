import { plural, t } from '@mailbag/core/words';
import type { WastebasketKind } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { useEffect } from 'react';
import { api, sentenceOf } from '../api/client';
import { queries } from '../api/queries';
import { Button } from '../ui/button';
import { Confirm } from '../ui/confirm';
import { Row } from '../ui/layout';
import { LinkButton } from '../ui/link-button';
import { Notice } from '../ui/mark';

/** Something that can be deleted. */
interface Thing {
  id: number;
  name: string;
}
interface Deleted {
  kind: WastebasketKind;
  things: readonly Thing[];
}

/** Where what was deleted last is kept, until its list has been left. */
const LAST = ['just-deleted'];
/** Lists that what goes into the wastebasket, or comes out of it, changes. */
export const CHANGED = [
  ...['templates', 'sources', 'mailings', 'intakes', 'connections', 'senders', 'printers', 'registers', 'saved-views'],
  ...['wastebasket', 'desk'],
];
const pathOf = (kind: WastebasketKind): string => (kind === 'view' ? '/api/copies/views' : `/api/${kind}s`);

/** What has happened with some things before one failed is seen all the same. */
async function inTurn(
  things: readonly Thing[],
  act: (thing: Thing) => Promise<unknown>,
  onDone: (done: readonly Thing[]) => void,
): Promise<void> {
  const done: Thing[] = [];
  try {
    for (const thing of things) {
      await act(thing);
      done.push(thing);
    }
  } finally {
    if (done.length > 0) onDone(done);
  }
}

/** Puts things of a kind into the wastebasket. */
export function useDeleting(kind: WastebasketKind, onDone?: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (things: readonly Thing[]) =>
      inTurn(
        things,
        ({ id }) => api.remove(`${pathOf(kind)}/${id}`),
        (done) => client.setQueryData<Deleted>(LAST, { kind, things: done }),
      ),
    onSuccess: onDone,
    onSettled: () => Promise.all(CHANGED.map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
}

/** Deletes all rows that are picked in a list. */
export function DeletePicked({ isBusy, onPress }: { isBusy: boolean; onPress: () => void }) {
  return (
    <Button changes small isDisabled={isBusy} onPress={onPress}>
      <Trash2 size={14} />
      {t`Delete`}
    </Button>
  );
}

/** Deletes the thing that is on the screen, after a question. @param text what else becomes of it */
export function DeleteThis({ name, text, isBusy, onDelete }: { name: string; text: string; isBusy: boolean; onDelete: () => void }) {
  return (
    <Confirm
      title={t`Delete “${name}”?`}
      text={t`It goes to the wastebasket and can be put back for 30 days. ${text}`}
      yes={t`Delete`}
      onYes={onDelete}
    >
      <Button changes look="danger" small isDisabled={isBusy}>
        <Trash2 size={14} />
        {t`Delete`}
      </Button>
    </Confirm>
  );
}

/** What can be done with one thing of a list: change it, or delete it after a question. Without `onDelete` it stays. */
export function ChangeDelete({
  onChange,
  onDelete,
  ...deleting
}: { onChange: () => void; onDelete: (() => void) | null } & Omit<Parameters<typeof DeleteThis>[0], 'onDelete'>) {
  return (
    <Row>
      <Button changes small onPress={onChange}>{t`Change`}</Button>
      {onDelete && <DeleteThis {...deleting} onDelete={onDelete} />}
    </Row>
  );
}

/** Above a list: what was deleted from it just now, and the way back; and why something was not. */
export function DeletedNotice({ kind, error }: { kind: WastebasketKind; error?: Error | null }) {
  const client = useQueryClient();
  const { data } = useQuery<Deleted | null>({ queryKey: LAST, queryFn: () => null, initialData: null, staleTime: Infinity });
  useEffect(() => () => void client.setQueryData(LAST, null), [client]);
  const back = useMutation({
    mutationFn: (things: readonly Thing[]) =>
      inTurn(
        things,
        ({ id }) => api.post(`/api/wastebasket/${kind}/${id}/back`),
        () => client.setQueryData(LAST, null),
      ),
    onSettled: () => Promise.all(CHANGED.map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
  const failure = error ?? back.error;
  const things = data?.kind === kind ? data.things : [];
  return (
    <>
      {failure && <Notice tone="brick">{sentenceOf(failure)}</Notice>}
      {things.length > 0 && (
        <Notice tone="slate" icon={<Trash2 size={16} />}>
          <Row>
            <span>
              {things.length === 1
                ? t`“${things[0]!.name}” is in the wastebasket.`
                : t`${plural(things.length, 'thing')} are in the wastebasket.`}
            </span>
            <Button small isDisabled={back.isPending} onPress={() => back.mutate(things)}>{t`Put back`}</Button>
          </Row>
        </Notice>
      )}
    </>
  );
}

/** The way to the wastebasket, where something of a kind lies in it. */
export function WastebasketLink({ kind }: { kind: WastebasketKind }) {
  const { data = [] } = useQuery(queries.wastebasket());
  const own = data.filter((line) => line.kind === kind).length;
  if (own === 0) return null;
  return (
    <LinkButton $small to="/wastebasket">
      <Trash2 size={14} />
      {t`Wastebasket ${own}`}
    </LinkButton>
  );
}
