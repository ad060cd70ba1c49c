import { t } from '@mailbag/core/words';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { FileClock, Undo2 } from 'lucide-react';
import { DialogTrigger, Heading, Modal } from 'react-aria-components';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { partsWords } from '../../features/mailing/parts-words';
import { when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Box, Veil } from '../../ui/dialog';
import { Row, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';

const Lines = styled.ol`
  list-style: none;
  margin: 0 -20px;
  padding: 0;
  max-height: 420px;
  overflow: auto;
  & > li {
    display: flex;
    gap: 10px;
    align-items: center;
    padding: 7px 20px;
    border-top: 1px solid ${color.hair};
  }
  & > li > div {
    flex: 1;
    min-width: 0;
  }
`;

/** What was changed of a mailing, by whom, each with a way back. @param settle waits until what was typed is saved */
export function PastChanges({ mailing, settle }: { mailing: number; settle: () => Promise<unknown> }) {
  return (
    <DialogTrigger>
      <Button small>
        <FileClock size={14} />
        {t`Changes`}
      </Button>
      <Veil isDismissable>
        <Modal>
          <Box style={{ width: 520 }}>
            {({ close }) => (
              <>
                <Heading slot="title" level={2}>{t`Changes of this mailing`}</Heading>
                <ChangeLines mailing={mailing} settle={settle} onBack={close} />
                <Row style={{ justifyContent: 'flex-end' }}>
                  <Button onPress={close}>{t`Close`}</Button>
                </Row>
              </>
            )}
          </Box>
        </Modal>
      </Veil>
    </DialogTrigger>
  );
}

function ChangeLines({ mailing, settle, onBack }: { mailing: number; settle: () => Promise<unknown>; onBack: () => void }) {
  const client = useQueryClient();
  const { data, error } = useQuery(queries.mailingChanges(mailing));
  const back = useMutation({
    mutationFn: async (id: number) => {
      await settle();
      await api.post(`/api/mailings/${mailing}/changes/${id}/back`, {});
    },
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['mailings', mailing] });
      onBack();
    },
  });
  if (error) return <Notice tone="brick">{sentenceOf(error)}</Notice>;
  if (!data) return <Loading what={t`the changes`} />;
  if (data.length === 0)
    return <div>{t`Nothing has been changed yet. What somebody changes in one go is kept here, with a way back.`}</div>;
  return (
    <>
      <Small>{t`What somebody changed in one go is one line. Going back is a change too, so nothing is lost by it.`}</Small>
      {back.error && <Notice tone="brick">{sentenceOf(back.error)}</Notice>}
      <Lines>
        {data.map(({ id, at, until, who, parts }) => (
          <li key={id}>
            <div>
              {partsWords(parts)}
              <br />
              <Small>
                {who}, {when(at)}
                {when(until) !== when(at) && t` to ${when(until)}`}
              </Small>
            </div>
            <Button
              changes
              small
              isDisabled={back.isPending}
              aria-label={t`Back to before this: ${partsWords(parts)}, ${when(at)}`}
              onPress={() => back.mutate(id)}
            >
              <Undo2 size={13} />
              {t`Back to before this`}
            </Button>
          </li>
        ))}
      </Lines>
    </>
  );
}
