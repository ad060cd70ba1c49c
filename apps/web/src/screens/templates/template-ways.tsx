import { t } from '@mailbag/core/words';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import { color } from '../../theme';
import { LinkButton } from '../../ui/link-button';

const Ways = styled.nav`
  display: flex;
  gap: 6px;
  & > [aria-current='page'] {
    background: ${color.plumWash};
    border-color: ${color.plum};
    color: ${color.plum};
  }
`;

/** The three ways to look at a template. */
export function TemplateWays({ id, revisions }: { id: number; revisions: number }) {
  const { pathname } = useLocation();
  const ways: [to: string, words: string][] = [
    [`/templates/${id}`, t`Fields`],
    [`/templates/${id}/layout`, t`Layout`],
    [`/templates/${id}/revisions`, revisions > 1 ? t`Revisions ${revisions}` : t`Revisions`],
  ];
  return (
    <Ways aria-label={t`The template`}>
      {ways.map(([to, words]) => (
        <LinkButton key={to} to={to} $small aria-current={pathname === to ? 'page' : undefined}>
          {words}
        </LinkButton>
      ))}
    </Ways>
  );
}
