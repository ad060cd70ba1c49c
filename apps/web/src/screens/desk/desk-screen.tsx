import { count, plural, t, translated } from '@mailbag/core/words';
import type { Need } from '@mailbag/contract';
import type { CopyState } from '@mailbag/core';
import { copyStates, detailText } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import {
  BadgeQuestionMark,
  CircleAlert,
  ClipboardPen,
  CircleHelp,
  DatabaseZap,
  FileWarning,
  KeyRound,
  MailQuestionMark,
  MailX,
  PauseCircle,
  Printer,
  ShieldAlert,
  ServerOff,
  Timer,
} from 'lucide-react';
import type { ComponentType } from 'react';
import { Link } from 'react-router';
import { VisuallyHidden } from 'react-aria-components';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { StateMark } from '../../features/copies/state-mark';
import { barOrder, stateColor, stateParts } from '../../features/copies/state-parts';
import { when } from '../../features/when';
import type { Tone } from '../../theme';
import { color, tones, narrow } from '../../theme';
import { Card, Empty, PartsBar, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { LinkButton } from '../../ui/link-button';
import { useCrumbs } from '../shell/crumbs';
import { FirstSteps } from './first-steps';
import { needWords } from './need-words';
import { CourseCard } from './course-card';
import { HeadRow } from './head-row';

const Grid = styled.div`
  height: 100%;
  padding: 14px 16px 16px;
  display: grid;
  gap: 14px;
  grid-template: minmax(0, 1.1fr) minmax(0, 1fr) / minmax(0, 1.27fr) minmax(0, 1fr);
  ${narrow} {
    height: auto;
    grid-template: none / minmax(0, 1fr);
  }
`;
const List = styled.div`
  overflow: auto;
  flex: 1;
  min-height: 0;
`;
const NeedLine = styled.div<{ $tone: Tone }>`
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 11px 12px;
  border-top: 1px solid ${color.hair};
  ${narrow} {
    flex-wrap: wrap;
  }
  & > i {
    width: 24px;
    height: 24px;
    border-radius: 4px;
    display: grid;
    place-items: center;
    color: ${({ $tone }) => tones[$tone].ink};
    background: ${({ $tone }) => tones[$tone].wash};
    flex: none;
  }
  & > div {
    flex: 1;
    min-width: 0;
  }
  & b {
    font-weight: 600;
    display: block;
  }
  & span {
    color: ${color.faded};
    font-size: 13px;
    overflow-wrap: anywhere;
  }
`;
const MailingLine = styled(Link)`
  display: block;
  padding: 9px 12px 11px;
  border-top: 1px solid ${color.hair};
  color: ${color.ink};
  text-decoration: none;
  &:hover {
    background: ${color.paper};
  }
  & > div:first-child {
    display: flex;
    gap: 8px;
    margin-bottom: 6px;
  }
  & b {
    flex: 1;
    font-weight: 600;
  }
`;
const Key = styled.span`
  font-size: 12px;
  color: ${color.faded};
  & i {
    display: inline-block;
    width: 8px;
    height: 8px;
    margin-right: 4px;
  }
`;
const EventLine = styled(Link)`
  display: grid;
  grid-template-columns: 54px minmax(0, 1fr);
  gap: 8px;
  padding: 6px 12px;
  border-top: 1px solid ${color.hair};
  color: ${color.ink};
  text-decoration: none;
  &:hover {
    background: ${color.paper};
  }
  & > span:first-child {
    color: ${color.faded};
    font-size: 13px;
  }
  & > span:last-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const needLooks: Record<Need['kind'], { tone: Tone; icon: ComponentType<{ size?: number }> }> = {
  bounced: { tone: 'brick', icon: MailX },
  unconfirmed: { tone: 'ochre', icon: CircleHelp },
  held: { tone: 'brick', icon: ShieldAlert },
  waits: { tone: 'ochre', icon: Timer },
  'lost-secrets': { tone: 'brick', icon: KeyRound },
  'self-check': { tone: 'brick', icon: FileWarning },
  'backup-fails': { tone: 'brick', icon: DatabaseZap },
  'set-aside': { tone: 'brick', icon: FileWarning },
  answers: { tone: 'slate', icon: ClipboardPen },
  changes: { tone: 'ochre', icon: ClipboardPen },
  'held-back': { tone: 'brick', icon: CircleAlert },
  paused: { tone: 'ochre', icon: PauseCircle },
  'no-mail-server': { tone: 'ochre', icon: ServerOff },
  'server-fails': { tone: 'brick', icon: ServerOff },
  'sender-unconfirmed': { tone: 'ochre', icon: BadgeQuestionMark },
  'to-print': { tone: 'slate', icon: Printer },
  'print-run': { tone: 'brick', icon: Printer },
  'register-fails': { tone: 'ochre', icon: DatabaseZap },
  reports: { tone: 'ochre', icon: MailQuestionMark },
  retrying: { tone: 'ochre', icon: Timer },
};

/** What needs a person, what runs, what happened. */
export default function DeskScreen() {
  useCrumbs({ text: t`Desk` });
  const { data, error } = useQuery(queries.desk());
  if (error && !data) return <Empty title={t`The desk cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!data) return <Loading what={t`your desk`} />;
  const seen = barOrder.filter((state) => data.mailings.some((one) => one.counts[state]));
  const isState = (state: string): state is CopyState => copyStates.some((one) => one === state);
  return (
    <Grid>
      <VisuallyHidden elementType="h1">{t`Desk`}</VisuallyHidden>
      <Card>
        <h2>{t`Needs you`}</h2>
        <List>
          {data.needs.length === 0 && (
            <Empty title={t`Nothing needs you`}>{t`Bounced copies, paused batches and records that are held back come here.`}</Empty>
          )}
          {data.needs.map((need, at) => {
            const { tone, icon: Icon } = needLooks[need.kind];
            const { title, about, action, to } = needWords(need);
            return (
              <NeedLine key={at} $tone={tone}>
                <i>
                  <Icon size={15} />
                </i>
                <div>
                  <b>{title}</b>
                  <span>{about}</span>
                </div>
                <LinkButton $small to={to}>
                  {action}
                </LinkButton>
              </NeedLine>
            );
          })}
        </List>
      </Card>
      <CourseCard />
      <Card>
        <HeadRow>
          <h2>{data.mailings.length === 0 ? t`First steps` : t`Mailings`}</h2>
          {seen.map((state) => (
            <Key key={state}>
              <i style={{ background: stateColor(state) }} />
              {translated(state)}
            </Key>
          ))}
        </HeadRow>
        <List>
          {data.mailings.length === 0 && <FirstSteps />}
          {data.running.map((batch) => (
            <MailingLine key={`batch ${batch.id}`} to={`/batches/${batch.id}`}>
              <div>
                <b>{t`Batch ${batch.number} of ${batch.mailingName}`}</b>
                <Small>{t`${translated(batch.state)} now`}</Small>
              </div>
              <PartsBar tall label={t`Batch ${batch.number}`} total={batch.copies} parts={stateParts(batch.counts)} />
            </MailingLine>
          ))}
          {data.mailings.map((one) => (
            <MailingLine key={one.id} to={one.copies > 0 ? `/ledger?mailing=${one.id}` : `/mailings/${one.id}/map`}>
              <div>
                <b>{one.name}</b>
                <Small>
                  {one.copies === 0 ? t`no batch yet` : t`${plural(one.copies, 'copy', 'copies')} · ${count(one.counts.sent ?? 0)} sent`}
                </Small>
              </div>
              <PartsBar tall label={one.name} total={one.copies} parts={stateParts(one.counts)} />
            </MailingLine>
          ))}
        </List>
      </Card>
      <Card>
        <h2>{t`Just now`}</h2>
        <List>
          {data.recent.length === 0 && <Empty title={t`Nothing has happened yet`}>{t`What happens to copies is listed here.`}</Empty>}
          {data.recent.map((line, at) => {
            const text = [line.recipient, line.templateName, line.detail === null ? '' : detailText(line.detail)]
              .filter(Boolean)
              .join(' · ');
            return (
              <EventLine key={at} to={`/ledger?copy=${line.copyId}`}>
                <span>{when(line.at)}</span>
                <span title={text}>
                  {isState(line.state) && <StateMark state={line.state} />} {text}
                </span>
              </EventLine>
            );
          })}
        </List>
      </Card>
    </Grid>
  );
}
