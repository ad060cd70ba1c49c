import { t } from '@mailbag/core/words';
import { createContext, use, useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { color } from '../../theme';

export interface Crumb {
  text: string;
  to?: string;
  /** The part of a screen: it stands in the title of the window alone. */
  isPart?: boolean;
}
/** What the window is called: the part, what it belongs to, and the place where that is; a list that one came from is left out. */
export const titleOf = (crumbs: readonly Crumb[]): string =>
  [
    ...crumbs
      .filter(({ to }, at) => at > 0 || crumbs.length === 1 || to === undefined)
      .reverse()
      .map(({ text }) => text),
    t`Mailbag`,
  ]
    .filter((text) => text !== '')
    .join(' · ');

const Here = createContext<{ crumbs: Crumb[]; set: (crumbs: Crumb[]) => void }>({ crumbs: [], set: () => undefined });

const Line = styled.nav`
  color: ${color.faded};
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 0;
  flex: 1;
  & b {
    color: ${color.ink};
    font-weight: 600;
  }
  & a {
    display: inline-block;
    padding: 3px 0;
    color: ${color.faded};
    text-decoration: none;
  }
  & a:hover {
    color: ${color.plum};
  }
`;

export function Crumbs({ children }: { children: ReactNode }) {
  const [crumbs, set] = useState<Crumb[]>([]);
  return <Here value={{ crumbs, set }}>{children}</Here>;
}

/** Says where one is, in the top strip and in the title of the window. */
export function useCrumbs(...crumbs: Crumb[]): void {
  const { set } = use(Here);
  const key = JSON.stringify(crumbs);
  useEffect(() => {
    const all = JSON.parse(key) as Crumb[];
    set(all);
    document.title = titleOf(all);
    // A screen that does not say where it is must not be taken for the last one.
    return () => set([]);
  }, [key, set]);
}

export function CrumbHome() {
  const crumbs = use(Here).crumbs.filter(({ isPart }) => !isPart);
  return (
    <Line aria-label={t`Where you are`}>
      {crumbs.map((crumb, index) => (
        <span key={index}>
          {index > 0 && ' / '}
          {crumb.to && index < crumbs.length - 1 ? <Link to={crumb.to}>{crumb.text}</Link> : <b>{crumb.text}</b>}
        </span>
      ))}
    </Line>
  );
}
