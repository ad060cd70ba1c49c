import { t } from '@mailbag/core/words';
import { useQuery } from '@tanstack/react-query';
import { queries } from '../../../api/queries';
import { about, kilobytes } from '../../../features/when';
import { Small } from '../../../ui/layout';

/** How long a batch would take, and what it weighs. Nothing is said of it while that is worked out, or where it cannot be. */
export function EstimateLine({ mailing, digest }: { mailing: number; digest: string }) {
  const { data } = useQuery(queries.startEstimate(mailing, digest));
  if (!data || data.bytes === 0) return null;
  const { bytes, makingSeconds, sendingSeconds, server } = data;
  return (
    <Small>
      {t`${kilobytes(bytes)} in all, made in ${about(makingSeconds)}.`}
      {server !== null &&
        (sendingSeconds === null
          ? t` The messages leave as fast as “${server}” accepts them.`
          : sendingSeconds < 0
            ? t` No message ever leaves: “${server}” has no hours in which it may send.`
            : t` At the limits of “${server}” the messages leave in ${about(sendingSeconds)}.`)}
    </Small>
  );
}
