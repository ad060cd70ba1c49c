import { count, counted, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { ChecksAnswer, MailingDetail, MailingPlan } from '@mailbag/contract';
import { mapProgress } from '@mailbag/core';
import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import styled from 'styled-components';
import { color, narrow } from '../../theme';
import { finishWords } from './finish-words';

const Card = styled.nav`
  margin: 0 16px 12px;
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: 6px;
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr)) auto;
  & > a {
    position: relative;
    padding: 8px 12px 9px;
    border-right: 1px dashed ${color.line};
    color: ${color.ink};
    text-decoration: none;
    min-width: 0;
  }
  & > a:first-child {
    border-radius: 6px 0 0 6px;
  }
  & > a:hover {
    background: ${color.paper};
  }
  & > a.active {
    background: ${color.plumWash};
  }
  & > a.active > small {
    color: ${color.plum};
  }
  & > a > small {
    display: block;
    font-size: 12px;
    line-height: 16px;
    color: ${color.faded};
  }
  & > a > div {
    font-weight: 600;
    line-height: 20px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  & > a > div span {
    font-weight: 400;
    color: ${color.faded};
  }
  & > a > i {
    position: absolute;
    left: 0;
    bottom: -1px;
    height: 3px;
    transition: width 200ms;
  }
  & > .act {
    display: flex;
    align-items: center;
    padding: 0 10px;
  }
  ${narrow} {
    grid-template-columns: repeat(auto-fit, minmax(128px, 1fr));
    & > .act {
      padding: 8px 10px;
    }
  }
`;

interface Cell {
  part: string;
  name: string;
  figure: ReactNode;
  /** How far it is ready, 0 to 1. */
  ready: number;
  tone: string;
}

/** The strip of five cells that are the ways into a mailing, each with its figure. */
export function RouteCard({
  mailing,
  plan,
  checks,
  children,
}: {
  mailing: MailingDetail;
  plan: MailingPlan;
  checks: ChecksAnswer | undefined;
  children: ReactNode;
}) {
  const templates = mailing.templates.filter(({ id }) => plan.packet.includes(id));
  const progress = mapProgress(templates.map((one) => ({ fields: one.fieldList, map: plan.maps[one.id] ?? {} })));
  const fields = templates.reduce((sum, one) => sum + one.fields, 0);
  const isChecked = checks?.possible && checks.current;
  const hasMessage =
    !plan.message.mailed || (plan.message.addressColumn !== null && plan.message.subject.trim() !== '' && plan.message.body.trim() !== '');
  const cells: Cell[] = [
    {
      part: 'packet',
      name: t`Packet`,
      figure:
        plan.packet.length > 0 ? (
          <>
            {counted(plan.packet.length, 'template')} <span>· {counted(fields, 'field')}</span>
          </>
        ) : (
          <span>{t`no template yet`}</span>
        ),
      ready: plan.packet.length > 0 ? 1 : 0,
      tone: color.moss,
    },
    {
      part: 'records',
      name: t`Records`,
      figure: mailing.source ? (
        <>
          {count(mailing.source.count)} <span>· {mailing.source.name}</span>
        </>
      ) : (
        <span>{t`no source yet`}</span>
      ),
      ready: mailing.source ? 1 : 0,
      tone: color.moss,
    },
    {
      part: 'map',
      name: t`Map`,
      figure: <>{phrase`${progress.filled} of ${progress.fillable}  ${(<span>{t`filled`}</span>)}`}</>,
      ready: progress.fillable > 0 ? progress.filled / progress.fillable : 0,
      tone: progress.filled === progress.fillable ? color.moss : color.ochre,
    },
    {
      part: 'checks',
      name: t`Checks`,
      figure: isChecked ? (
        <>{phrase`${count(checks.stopped)} stop ${(<span>{t`· ${count(checks.looked)} look`}</span>)}`}</>
      ) : (
        <span>{checks?.possible ? t`running …` : t`nothing to check yet`}</span>
      ),
      ready: isChecked ? 1 : 0,
      tone: isChecked && checks.stopped > 0 ? color.brick : isChecked && checks.looked > 0 ? color.ochre : color.moss,
    },
    {
      part: 'output',
      name: t`Output and message`,
      figure: (
        <>
          {finishWords(plan.output.finish).title} <span>· {plan.message.mailed ? t`mailed` : t`made and kept`}</span>
        </>
      ),
      ready: hasMessage ? 1 : 0.5,
      tone: hasMessage ? color.moss : color.ochre,
    },
  ];
  return (
    <Card aria-label={t`Parts of the mailing`}>
      {cells.map((cell) => (
        <NavLink key={cell.part} to={`/mailings/${mailing.id}/${cell.part}`}>
          <small>{cell.name}</small>
          <div>{cell.figure}</div>
          <i style={{ width: `${cell.ready * 100}%`, background: cell.tone }} />
        </NavLink>
      ))}
      <div className="act">{children}</div>
    </Card>
  );
}
