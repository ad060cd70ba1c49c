import { t } from '@mailbag/core/words';
import { Suspense, lazy, useState, type ComponentType } from 'react';
import { Loading } from './loading';

/**
 * A part of the application that is loaded when it is first shown. One that did not arrive is asked for again when it is shown again.
 * @param what stands there meanwhile, as in “Reading the screen …”
 */
export function loadedPart<Props extends object>(
  load: () => Promise<{ default: ComponentType<Props> }>,
  what = t`the screen`,
): ComponentType<Props> {
  // Once it is there, every place shows the same one.
  let arrived: ComponentType<Props> | null = null;
  const fresh = (): ComponentType<Props> =>
    lazy(async () => {
      const part = await load();
      arrived = part.default;
      return part;
    }) as unknown as ComponentType<Props>;
  return function LoadedPart(props: Props) {
    const [Part] = useState(() => arrived ?? fresh());
    return (
      <Suspense fallback={<Loading what={what} />}>
        <Part {...props} />
      </Suspense>
    );
  };
}
