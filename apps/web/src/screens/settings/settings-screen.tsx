import { t } from '@mailbag/core/words';
import { useQuery } from '@tanstack/react-query';
import type { ComponentType } from 'react';
import { NavLink, Navigate, useParams } from 'react-router';
import styled from 'styled-components';
import { queries } from '../../api/queries';
import { color, narrow } from '../../theme';
import { Empty, Head, Screen, Scroll } from '../../ui/layout';
import { loadedPart } from '../../ui/loaded-part';
import { useCrumbs } from '../shell/crumbs';
import { BouncesPart } from './bounces-part';
import { JobsPart } from './jobs-part';
import { RetentionPart } from './retention-part';
import { MailPart } from './mail-part';
import { PaperPart } from './paper-part';
import { PeoplePart } from './people-part';
import { RegistersPart } from './registers-part';
import { SafetyPart } from './safety-part';
import { YouPart } from './you-part';
import { settingsPlaces } from './settings-places';

const HistoryPart = loadedPart(() => import('./history-part'), t`the history`);

const Frame = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 176px minmax(0, 1fr);
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
  border-top: 1px solid ${color.line};
`;
const Places = styled.nav`
  border-right: 1px solid ${color.line};
  background: ${color.paper};
  padding: 10px 8px;
  display: flex;
  flex-direction: column;
  gap: 2px;
  & > a {
    padding: 6px 10px;
    border-radius: 6px;
    color: ${color.ink};
    text-decoration: none;
  }
  & > a:hover {
    background: ${color.kraft};
  }
  & > a.active {
    background: ${color.sheet};
    font-weight: 600;
    box-shadow:
      inset 0 0 0 1px ${color.line},
      inset 3px 0 0 ${color.plum};
  }
`;

const parts: Record<(typeof settingsPlaces)[number]['id'], ComponentType> = {
  mail: MailPart,
  bounces: BouncesPart,
  paper: PaperPart,
  registers: RegistersPart,
  people: PeoplePart,
  retention: RetentionPart,
  safety: SafetyPart,
  jobs: JobsPart,
  history: HistoryPart,
  you: YouPart,
};

export default function SettingsScreen() {
  const { part } = useParams();
  const { data } = useQuery(queries.account());
  const isAdministrator = data?.account?.role === 'administrator';
  const shown = settingsPlaces.filter(({ forAdministrators }) => isAdministrator || !forAdministrators);
  const chosen = shown.find(({ id }) => id === part);
  useCrumbs({ text: t`Settings` }, { text: chosen?.text ?? '' });
  if (!part) return <Navigate to="/settings/mail" replace />;
  const Part = chosen && parts[chosen.id];
  return (
    <Screen>
      <Head title={t`Settings`} note={isAdministrator ? '' : t`An administrator can change them.`} />
      <Frame>
        <Places aria-label={t`Settings`}>
          {shown.map(({ id, text }) => (
            <NavLink key={id} to={`/settings/${id}`}>
              {text}
            </NavLink>
          ))}
        </Places>
        <Scroll style={{ padding: 16 }}>
          {Part ? <Part /> : <Empty title={t`Page not found`}>{t`Choose a part on the left.`}</Empty>}
        </Scroll>
      </Frame>
    </Screen>
  );
}
