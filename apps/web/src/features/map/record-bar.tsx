import { count, t } from '@mailbag/core/words';
import { useQuery } from '@tanstack/react-query';
import { ChevronLeft, ChevronRight, Flag, Search } from 'lucide-react';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { api } from '../../api/client';
import { queries, useRecord } from '../../api/queries';
import { color } from '../../theme';
import { Button, IconButton } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Bar } from '../../ui/layout';
import type { MailingWork } from '../mailing/mailing-context';
import { recordWords } from './record-words';

const Where = styled.div`
  min-width: 0;
  flex: 1;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  & b {
    font-weight: 600;
  }
  & span {
    color: ${color.faded};
  }
`;

/** Which record is looked at: step, jump to one by any word on it, only flagged. */
export function RecordBar({ work: { mailing, plan, columns, index, setIndex } }: { work: MailingWork }) {
  const { record, total } = useRecord(plan.sourceId ?? null, index);
  const { data: flagged } = useQuery(queries.flagged(mailing.id));
  const { data: account } = useQuery(queries.account());
  const seesValues = account?.account?.seesValues ?? true;
  const [onlyFlagged, setOnlyFlagged] = useState(false);
  const [text, setText] = useState('');
  const [missed, setMissed] = useState(false);
  const [searching, setSearching] = useState(false);
  const flags = useMemo(() => flagged?.indexes ?? [], [flagged]);

  const step = (by: 1 | -1): void => {
    if (onlyFlagged && flags.length > 0) {
      const next = by > 0 ? (flags.find((one) => one > index) ?? flags[0]!) : (flags.findLast((one) => one < index) ?? flags.at(-1)!);
      setIndex(next);
    } else if (total > 0) setIndex((index + by + total) % total);
  };
  const jump = async (): Promise<void> => {
    const wanted = text.trim();
    if (!wanted || plan.sourceId === null) return;
    const { index: found } = await api.getSlowly<{ index: number }>(
      `/api/sources/${plan.sourceId}/find?text=${encodeURIComponent(wanted)}&after=${index}`,
    );
    setMissed(found < 0);
    if (found >= 0) setIndex(found);
  };
  const { key, names } = recordWords(columns, plan.keyColumn)(record?.cells ?? []);
  const place = flags.indexOf(index);
  return (
    <Bar
      onKeyDown={(event) => {
        if ((event.target as HTMLElement).tagName === 'INPUT') return;
        if (event.key === 'ArrowRight') step(1);
        if (event.key === 'ArrowLeft') step(-1);
      }}
    >
      <IconButton
        label={onlyFlagged ? t`Previous flagged record (←)` : t`Previous record (←)`}
        isDisabled={total === 0}
        onPress={() => step(-1)}
      >
        <ChevronLeft size={16} />
      </IconButton>
      <IconButton label={onlyFlagged ? t`Next flagged record (→)` : t`Next record (→)`} isDisabled={total === 0} onPress={() => step(1)}>
        <ChevronRight size={16} />
      </IconButton>
      {searching ? (
        <form
          style={{ flex: 1 }}
          onSubmit={(event) => {
            event.preventDefault();
            void jump();
          }}
        >
          <TextInput
            label={t`Jump to a record`}
            hideLabel
            autoFocus
            placeholder={t`Any word on the record, then Enter`}
            value={text}
            error={missed ? t`No record matches.` : null}
            onChange={setText}
            onBlur={() => !text && setSearching(false)}
          />
        </form>
      ) : (
        <Where aria-live="polite">
          {total > 0 ? (
            <>
              <b>{t`${count(index + 1)} of ${count(total)}`}</b>{' '}
              <span>
                {key && `· ${key} `}
                {names && `· ${names}`}
              </span>
            </>
          ) : (
            <span>{seesValues ? t`no records yet` : t`values of records are hidden`}</span>
          )}
        </Where>
      )}
      <IconButton
        label={searching ? t`Close the search` : t`Jump to a record`}
        isDisabled={total === 0}
        onPress={() => setSearching(!searching)}
      >
        <Search size={15} />
      </IconButton>
      <Button
        small
        pressed={onlyFlagged}
        isDisabled={flags.length === 0}
        tip={t`Step through the records with findings only`}
        onPress={() => {
          setOnlyFlagged(!onlyFlagged);
          if (!onlyFlagged && place < 0 && flags[0] !== undefined) setIndex(flags[0]);
        }}
      >
        <Flag size={14} />
        {t`Flagged ${onlyFlagged && place >= 0 ? t`${place + 1} of ${flags.length}` : flags.length}`}
      </Button>
    </Bar>
  );
}
