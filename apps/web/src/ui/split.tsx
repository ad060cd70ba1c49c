import { t } from '@mailbag/core/words';
import type { CSSProperties, ReactNode, Ref } from 'react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { color, narrow } from '../theme';
import { Button } from './button';
import { Bar } from './layout';
import { useNarrow } from './use-narrow';

const Panes = styled.div<{ $columns: string; $shown: number | null }>`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: ${({ $columns }) => $columns};
  border-top: 1px solid ${color.line};
  ${narrow} {
    /* A pane is as high as the window, so that what scrolls in it has a window of its own. */
    grid-template: max(100dvh - 100px, 340px) / minmax(0, 1fr);
    flex: none;
    & > :not(:nth-child(${({ $shown }) => ($shown ?? 0) + 1})) {
      display: none;
    }
  }
  /* On paper they stand below each other. */
  @media print {
    display: block;
    border-top: 0;
    && > * {
      display: block;
      border-left: 0;
    }
  }
`;

interface Props {
  /** As in `grid-template-columns`. */
  $columns: string;
  children: ReactNode;
  ref?: Ref<HTMLDivElement>;
  style?: CSSProperties;
}

/** Panes beside each other; where there is no room for that, one of them, with a switch that names them all. */
export function Split({ children, ref, ...rest }: Props) {
  const isNarrow = useNarrow();
  const frame = useRef<HTMLDivElement>(null);
  const [names, setNames] = useState<readonly string[]>([]);
  const [wanted, setWanted] = useState(0);
  // Panes come and go, and are called after what they show.
  useEffect(() => {
    const panes = frame.current;
    if (!isNarrow || !panes) return;
    const read = (): void => setNames([...panes.children].map((pane) => pane.getAttribute('aria-label') ?? ''));
    read();
    const watch = new MutationObserver(read);
    watch.observe(panes, { childList: true, subtree: true, attributeFilter: ['aria-label'] });
    return () => watch.disconnect();
  }, [isNarrow]);
  const shown = Math.min(wanted, Math.max(0, names.length - 1));
  return (
    <>
      {isNarrow && names.length > 1 && (
        <Bar role="group" aria-label={t`Parts of this screen`} data-print="no">
          {names.map((name, at) => (
            <Button key={at} small pressed={at === shown} onPress={() => setWanted(at)}>
              {name}
            </Button>
          ))}
        </Bar>
      )}
      <Panes
        $shown={shown}
        ref={(element) => {
          frame.current = element;
          if (typeof ref === 'function') ref(element);
          else if (ref) ref.current = element;
        }}
        {...rest}
      >
        {children}
      </Panes>
    </>
  );
}
