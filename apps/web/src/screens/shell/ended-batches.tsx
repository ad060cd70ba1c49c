import { t } from '@mailbag/core/words';
import type { BatchSummary } from '@mailbag/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import { queries } from '../../api/queries';
import { endWords, isLong } from '../../features/copies/batch-end';
import { color, radius, shadow } from '../../theme';
import { IconButton } from '../../ui/button';

const Place = styled.div`
  position: fixed;
  right: 16px;
  bottom: 16px;
  z-index: 40;
  width: min(360px, calc(100vw - 32px));
  display: grid;
  gap: 8px;
`;
const Word = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: start;
  padding: 10px 8px 10px 14px;
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-left: 4px solid ${color.moss};
  border-radius: ${radius};
  box-shadow: ${shadow};
  &[data-stopped] {
    border-left-color: ${color.brick};
  }
`;

/** Tells when a batch that took long has ended, wherever one is; it stays until it is put away or looked at. */
export function EndedBatches() {
  const { data: running } = useQuery(queries.running());
  const client = useQueryClient();
  const { pathname } = useLocation();
  const [ended, setEnded] = useState<readonly BatchSummary[]>([]);
  const before = useRef<readonly BatchSummary[]>([]);
  const compare = useEffectEvent((now: readonly BatchSummary[]) => {
    const gone = before.current.filter(({ id, state }) => {
      const same = now.find((one) => one.id === id);
      return !same || (same.state === 'paused' && state !== 'paused');
    });
    before.current = now;
    for (const { id } of gone)
      void client
        .fetchQuery({ ...queries.batch(id), staleTime: 0 })
        .then((batch) => isLong(batch) && setEnded((all) => [...all.filter((one) => one.id !== id), batch]))
        .catch(() => undefined);
  });
  useEffect(() => {
    if (running) compare(running);
  }, [running]);
  // Who stands before the batch sees it there.
  const told = ended.filter(({ id }) => pathname !== `/batches/${id}`);
  return (
    <Place role="status" aria-label={t`Batches that ended`} data-print="no">
      {told.map((batch) => {
        const { title, about, isStopped } = endWords(batch);
        const forget = (): void => setEnded((all) => all.filter(({ id }) => id !== batch.id));
        return (
          <Word key={batch.id} {...(isStopped && { 'data-stopped': '' })}>
            <div>
              <b style={{ fontWeight: 600 }}>{title}</b>
              <div>
                {about} <Link to={`/batches/${batch.id}`} onClick={forget}>{t`Show the batch`}</Link>
              </div>
            </div>
            <IconButton label={t`Close: ${title}`} onPress={forget}>
              <X size={15} />
            </IconButton>
          </Word>
        );
      })}
    </Place>
  );
}
