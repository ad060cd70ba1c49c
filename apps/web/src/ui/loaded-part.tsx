import { t } from '@mailbag/core/words';
import { useEffect, useState, type ComponentType } from 'react';
import { Loading } from './loading';

/** Something is thrown where it is shown, so that the boundary around it tells it. */
interface Failed {
  error: unknown;
}

/** @see loadedPart */
export interface LoadedPart<Props extends object> {
  (props: Props): React.ReactNode;
  /** Loads it before it is shown, so that it is there at once. What fails is told when it is shown. */
  ahead: () => void;
}

/**
 * A part of the application that is loaded when it is first shown. One that did not arrive is asked for again when it is shown again.
 * React's own way keeps what stands there meanwhile for up to 300 ms, so that lines move under a hand that is about to press.
 * @param what stands there meanwhile, as in “Reading the screen …”
 */
export function loadedPart<Props extends object>(
  load: () => Promise<{ default: ComponentType<Props> }>,
  what = t`the screen`,
): LoadedPart<Props> {
  // Once it is there, every place shows the same one.
  let arrived: ComponentType<Props> | null = null;
  const fetchPart = async (): Promise<void> => void (arrived = (await load()).default);
  function LoadedPart(props: Props) {
    const [Part, setPart] = useState(() => arrived);
    const [failed, setFailed] = useState<Failed | null>(null);
    const isThere = Part !== null;
    useEffect(() => {
      if (isThere) return;
      let isGone = false;
      fetchPart().then(
        () => isGone || setPart(() => arrived),
        (error: unknown) => isGone || setFailed({ error }),
      );
      return () => {
        isGone = true;
      };
    }, [isThere]);
    if (failed) throw failed.error;
    return Part ? <Part {...props} /> : <Loading what={what} />;
  }
  LoadedPart.ahead = (): void => void (arrived ?? fetchPart().catch(() => undefined));
  return LoadedPart;
}
