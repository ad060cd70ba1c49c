import { count, counted, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { AccountAnswer } from '@mailbag/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import {
  BookOpenText,
  CircleQuestionMark,
  ClipboardPen,
  Eye,
  EyeOff,
  FileText,
  Keyboard,
  LayoutDashboard,
  LogOut,
  Menu as MenuIcon,
  Mailbox,
  Mails,
  Printer,
  SlidersHorizontal,
  Table2,
} from 'lucide-react';
import type { ComponentType } from 'react';
import { useEffect, useRef, useState } from 'react';
import { Menu, MenuItem, MenuTrigger, Button as AriaButton } from 'react-aria-components';
import { Link, NavLink, Outlet, useLocation } from 'react-router';
import styled from 'styled-components';
import { api } from '../../api/client';
import { useLive } from '../../api/live';
import { queries } from '../../api/queries';
import { color, font, narrow, shadow } from '../../theme';
import { Boundary } from '../../ui/boundary';
import { Floating } from '../../ui/choice';
import { Small } from '../../ui/layout';
import { LOOKS_ONLY } from '../../ui/rights';
import { useShortcutHelp } from '../../ui/shortcuts';
import { useKey } from '../../ui/use-key';
import { CrumbHome } from './crumbs';
import { helpFor } from './help-for';
import { EndedBatches } from './ended-batches';
import { Find } from './find';
import { ShortcutHelp } from './shortcut-help';
import { useHeadingFocus } from './heading-focus';

const Frame = styled.div`
  height: 100%;
  display: grid;
  grid-template: 44px minmax(0, 1fr) / 168px minmax(0, 1fr);
  ${narrow} {
    height: auto;
    min-height: 100dvh;
    grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  }
`;
const SkipLink = styled.a`
  position: absolute;
  left: 8px;
  top: -60px;
  z-index: 60;
  padding: 8px 12px;
  border-radius: 6px;
  background: ${color.sheet};
  box-shadow: ${shadow};
  &:focus {
    top: 6px;
  }
`;
const Rail = styled.nav`
  grid-row: 1 / 3;
  background: ${color.kraft};
  border-right: 1px solid ${color.line};
  display: flex;
  flex-direction: column;
  padding: 0 8px 8px;
  & > a {
    display: flex;
    gap: 10px;
    align-items: center;
    height: 34px;
    padding: 0 8px;
    border-radius: 6px;
    color: ${color.ink};
    text-decoration: none;
  }
  & > a:hover {
    background: ${color.kraftDeep};
  }
  & > a.active {
    background: ${color.sheet};
    font-weight: 600;
    box-shadow: inset 3px 0 0 ${color.plum};
  }
  & > a b {
    margin-left: auto;
    font-size: 12px;
    color: ${color.plum};
  }
  & > .fill {
    flex: 1;
  }
  ${narrow} {
    position: fixed;
    inset: 0 auto 0 0;
    width: min(240px, 80vw);
    z-index: 40;
    overflow: auto;
    box-shadow: ${shadow};
    &:not([data-open]) {
      display: none;
    }
    & > a {
      flex: none;
    }
  }
`;
const MenuButton = styled(AriaButton)`
  display: none;
  height: 32px;
  gap: 6px;
  align-items: center;
  padding: 0 10px;
  border: 1px solid ${color.line};
  border-radius: 6px;
  background: ${color.sheet};
  cursor: pointer;
  ${narrow} {
    display: inline-flex;
  }
`;
const Brand = styled(Link)`
  &&& {
    height: 52px;
    padding: 0 6px;
    gap: 8px;
    font: 600 19px ${font.head};
    background: none;
  }
`;
const Top = styled.header`
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 0 16px;
  border-bottom: 1px solid ${color.line};
  ${narrow} {
    flex-wrap: wrap;
    gap: 8px;
    padding: 6px 8px;
  }
`;
const Main = styled.main`
  min-height: 0;
  min-width: 0;
  outline: none;
`;
const RunningLink = styled(Link)`
  font-size: 12px;
  line-height: 14px;
  color: ${color.ink};
  text-decoration: none;
  white-space: nowrap;
  & > i {
    display: block;
    width: 160px;
    height: 4px;
    margin-top: 3px;
    background: ${color.hair};
    border-radius: 2px;
    overflow: hidden;
  }
  & > i > i {
    display: block;
    height: 4px;
    background: ${color.plum};
  }
`;
const Person = styled(AriaButton)`
  flex: none;
  width: 28px;
  height: 28px;
  border-radius: 50%;
  border: 0;
  background: ${color.slateWash};
  font-size: 12px;
  font-weight: 600;
  cursor: pointer;
`;
const Items = styled(Menu)`
  padding: 4px;
  outline: none;
  min-width: 200px;
  & > div {
    padding: 6px 10px;
    border-radius: 4px;
    display: flex;
    gap: 8px;
    align-items: center;
    cursor: pointer;
    outline: none;
  }
  & > div[data-focused] {
    background: ${color.plumWash};
  }
`;

const EVERYWHERE = { isEverywhere: true };
const FIND = [{ keys: t`Ctrl K`, what: t`Find`, isEverywhere: true }];

const places: { to: string; text: string; icon: ComponentType<{ size?: number }> }[] = [
  { to: '/desk', text: t`Desk`, icon: LayoutDashboard },
  { to: '/mailings', text: t`Mailings`, icon: Mails },
  { to: '/templates', text: t`Templates`, icon: FileText },
  { to: '/sources', text: t`Sources`, icon: Table2 },
  { to: '/intakes', text: t`Intakes`, icon: ClipboardPen },
  { to: '/ledger', text: t`Ledger`, icon: BookOpenText },
  { to: '/paper', text: t`Paper`, icon: Printer },
];

function Running() {
  const { data } = useQuery(queries.running());
  const batch = data?.find(({ state }) => state !== 'paused') ?? data?.[0];
  if (!batch) return null;
  const made = batch.copies - (batch.counts.planned ?? 0);
  const open = (batch.counts.queued ?? 0) + (batch.counts.sending ?? 0) + (batch.counts.retrying ?? 0);
  const isSending = batch.state === 'sending';
  const done = isSending ? batch.copies - open : made;
  return (
    <RunningLink to={`/batches/${batch.id}`}>
      {t`Batch ${batch.number} · ${
        batch.state === 'paused'
          ? t`paused`
          : isSending
            ? t`${count(done)} of ${count(batch.copies)} sent`
            : t`${count(done)} of ${count(batch.copies)} made`
      }`}
      <i>
        <i style={{ width: `${batch.copies > 0 ? (done / batch.copies) * 100 : 0}%` }} />
      </i>
    </RunningLink>
  );
}

/** Rail and top strip around every screen. */
export function Shell({ account }: { account: AccountAnswer }) {
  useLive();
  const { pathname } = useLocation();
  const main = useRef<HTMLElement>(null);
  const menu = useRef<HTMLElement>(null);
  const [isMenuOpen, setMenuOpen] = useState(false);
  useHeadingFocus(main, pathname);
  const [showsShortcuts, setShowsShortcuts] = useState(false);
  useKey('?', t`Shortcuts`, () => setShowsShortcuts(true), EVERYWHERE);
  useShortcutHelp(FIND);
  useEffect(() => setMenuOpen(false), [pathname]);
  useEffect(() => {
    if (isMenuOpen) menu.current?.querySelector('a')?.focus();
  }, [isMenuOpen]);
  const { data: desk } = useQuery(queries.desk());
  const signOut = useMutation({
    mutationFn: () => api.post('/api/account/sign-out'),
    // A fresh page keeps nothing of what was on this one.
    onSettled: () => window.location.assign('/'),
  });
  const needs = desk?.needs.filter(({ kind }) => kind !== 'retrying').length ?? 0;
  const answers = (desk?.needs ?? []).reduce(
    (sum, { kind, count: more }) => sum + (kind === 'answers' || kind === 'changes' ? more : 0),
    0,
  );
  const name = account.account?.name ?? '';
  const initials = name
    .split(/\s+/)
    .map((part) => part[0] ?? '')
    .join('')
    .slice(0, 2)
    .toUpperCase();
  return (
    <Frame>
      <SkipLink
        href="#content"
        onClick={(event) => {
          event.preventDefault();
          main.current?.focus();
        }}
      >{t`Skip to the content`}</SkipLink>
      <Rail
        ref={menu}
        aria-label={t`Main`}
        data-open={isMenuOpen || undefined}
        onKeyDown={({ key }) => key === 'Escape' && setMenuOpen(false)}
        // Not where a press takes the focus nowhere, as one on a link does in some browsers.
        onBlur={({ currentTarget, relatedTarget }) => relatedTarget && !currentTarget.contains(relatedTarget) && setMenuOpen(false)}
      >
        <Brand to="/desk">
          <img src="/mark.svg" alt="" width={26} height={26} />
          {t`Mailbag`}
        </Brand>
        {places.map(({ to, text, icon: Icon }) => (
          <NavLink key={to} to={to}>
            <Icon size={17} />
            {text}
            {to === '/intakes' && answers > 0 && <b aria-label={counted(answers, 'answer waits', 'answers wait')}>{answers}</b>}
            {to === '/desk' && needs > 0 && <b aria-label={counted(needs, 'thing needs you', 'things need you')}>{needs}</b>}
          </NavLink>
        ))}
        <div className="fill" />
        {account.postOffice && (
          <a href="/post-office" target="_blank" rel="noreferrer">
            <Mailbox size={17} />
            {t`Post office`}
          </a>
        )}
        <a href={helpFor(pathname)} target="_blank" rel="noreferrer">
          <CircleQuestionMark size={17} />
          {t`Help`}
        </a>
        <NavLink to="/settings">
          <SlidersHorizontal size={17} />
          {t`Settings`}
        </NavLink>
      </Rail>
      <Top data-print="no">
        <MenuButton aria-expanded={isMenuOpen} onPress={() => setMenuOpen(true)}>
          <MenuIcon size={16} />
          {t`Menu`}
        </MenuButton>
        <CrumbHome />
        <Find isAdministrator={account.account?.role === 'administrator'} />
        <Running />
        {account.account?.role === 'viewer' && (
          <Small
            title={LOOKS_ONLY}
            style={{ display: 'inline-flex', alignItems: 'center', gap: 5, whiteSpace: 'nowrap' }}
          >{phrase`${(<Eye size={13} />)} view only`}</Small>
        )}
        {account.account?.seesValues === false && (
          <Small
            title={t`Your account works with copies and does not see the values of records. An administrator can change that.`}
            style={{ display: 'inline-flex', alignItems: 'center', gap: 5, whiteSpace: 'nowrap' }}
          >{phrase`${(<EyeOff size={13} />)} values hidden`}</Small>
        )}
        <MenuTrigger>
          <Person aria-label={t`${initials}, signed in as ${name}`}>{initials}</Person>
          <Floating placement="bottom end">
            <Items onAction={(id) => (id === 'out' ? signOut.mutate() : setShowsShortcuts(true))}>
              <MenuItem id="keys" textValue={t`Keyboard shortcuts`}>
                <Keyboard size={15} />
                {t`Keyboard shortcuts`}
              </MenuItem>
              <MenuItem id="out" textValue={t`Sign out`}>
                <LogOut size={15} />
                {t`Sign out ${name}`}
              </MenuItem>
            </Items>
          </Floating>
        </MenuTrigger>
      </Top>
      <EndedBatches />
      <ShortcutHelp isOpen={showsShortcuts} onOpen={setShowsShortcuts} />
      <Main ref={main} id="content" tabIndex={-1}>
        <Boundary what={t`This screen`} name={pathname}>
          <Outlet />
        </Boundary>
      </Main>
    </Frame>
  );
}
