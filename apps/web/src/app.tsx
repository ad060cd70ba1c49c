import { spokenLocale, t } from '@mailbag/core/words';
import type { AccountAnswer } from '@mailbag/contract';
import { isMailbagError } from '@mailbag/core';
import { MutationCache, QueryCache, QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import type { ComponentType } from 'react';
import { Suspense, lazy, useEffect, useRef } from 'react';
import { I18nProvider } from 'react-aria-components';
import { BrowserRouter, Navigate, Outlet, Route, Routes, useLocation } from 'react-router';
import { NoAnswer, sentenceOf } from './api/client';
import { RightsProvider, useMayChange } from './ui/rights';
import { queries } from './api/queries';
import { GlobalStyle } from './global-style';
import { InvitationScreen } from './screens/account/invitation-screen';
import { SignInScreen } from './screens/account/sign-in-screen';
import { Crumbs, useCrumbs } from './screens/shell/crumbs';
import { Button } from './ui/button';
import { Empty, Head, Screen } from './ui/layout';
import { Loading } from './ui/loading';
import { loadedPart } from './ui/loaded-part';
import { workWords } from './words/speak-in';
import { resumeDesks } from './features/editing/open-desks';
import { keepOwnLanguage } from './words/own-language';

/** Above the screen; until it is there, the screen stays as it is. */
const SignInAgain = lazy(async () => ({ default: (await import('./screens/account/sign-in-again')).SignInAgain }));
/** A screen beside the desk, and the words for it. */
const part = <Props extends object>(load: () => Promise<{ default: ComponentType<Props> }>): ComponentType<Props> =>
  loadedPart(async () => {
    await workWords();
    return load();
  });
const Shell = loadedPart(async () => ({ default: (await import('./screens/shell/shell')).Shell }), t`your desk`);
const DeskScreen = loadedPart(() => import('./screens/desk/desk-screen'));
const MailingsScreen = part(() => import('./screens/mailings/mailings-screen'));
const MailingScreen = part(() => import('./screens/mailing/mailing-screen'));
const IntakesScreen = part(() => import('./screens/intakes/intakes-screen'));
const IntakeScreen = part(() => import('./screens/intakes/intake-screen'));
const PosterScreen = part(() => import('./screens/intakes/poster-screen'));
const TemplatesScreen = part(() => import('./screens/templates/templates-screen'));
const RevisionsScreen = part(() => import('./screens/templates/revisions-screen'));
const LayoutScreen = part(() => import('./screens/templates/layout/layout-screen'));
const TemplateScreen = part(() => import('./screens/templates/template-screen'));
const SourcesScreen = part(() => import('./screens/sources/sources-screen'));
const SourceScreen = part(() => import('./screens/sources/source-screen'));
const BatchScreen = part(() => import('./screens/batch/batch-screen'));
const LedgerScreen = part(() => import('./screens/ledger/ledger-screen'));
const PaperScreen = part(() => import('./screens/paper/paper-screen'));
const WastebasketScreen = part(() => import('./screens/wastebasket/wastebasket-screen'));
const SettingsScreen = part(() => import('./screens/settings/settings-screen'));

/** Who is signed out elsewhere sees the sign-in page at the next question. */
const onError = (error: Error): void => {
  if (isMailbagError(error) && error.code === 'account-signed-out') void client.invalidateQueries({ queryKey: ['account'] });
};
const client: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: {
    queries: {
      retry: (tries, error) => !isMailbagError(error) && !(error instanceof NoAnswer && error.isLate) && tries < 2,
      retryDelay: 700,
      staleTime: 5_000,
      // Whether this machine is on a network says nothing of the server, which may be this machine.
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
});

/** Screens that are about values of records: whoever does not see those changes nothing there. */
function OverValues({ seesValues }: { seesValues: boolean }) {
  const mayChange = useMayChange();
  return (
    <RightsProvider value={mayChange && seesValues}>
      <Outlet />
    </RightsProvider>
  );
}

function NothingHere() {
  useCrumbs({ text: t`There is nothing here` });
  return (
    <Screen>
      <Head title={t`There is nothing here`} />
      <Empty title={t`There is no page at this address`}>{t`Choose a place in the menu.`}</Empty>
    </Screen>
  );
}

function Screens() {
  const location = useLocation();
  const { data, error, refetch } = useQuery(queries.account());
  // Whoever was signed in keeps the screen and all that is typed on it, and signs in above it.
  const last = useRef<AccountAnswer | null>(null);
  const known = data?.account ? data : last.current;
  useEffect(() => {
    if (!data?.account) return;
    // Somebody else at the same window sees nothing of what was open before.
    if (last.current?.account && last.current.account.id !== data.account.id) window.location.assign('/');
    else if (last.current !== data) resumeDesks();
    last.current = data;
    // Much is said while modules are loaded, so another language needs the page anew.
    if (keepOwnLanguage(data.account.language)) window.location.reload();
  }, [data]);
  if (error && !data)
    return (
      <Empty title={t`Mailbag does not answer`} action={<Button onPress={() => void refetch()}>{t`Try again`}</Button>}>
        {sentenceOf(error)}
      </Empty>
    );
  if (!data) return <Loading what={t`your desk`} />;
  if (!data.account && location.pathname === '/invitation') return <InvitationScreen />;
  if (!known?.account) return <SignInScreen setUpNeeded={data.setUpNeeded} />;
  const { account } = known;
  return (
    <RightsProvider value={account.role !== 'viewer'}>
      {!data.account && (
        <Suspense>
          <SignInAgain email={account.email} />
        </Suspense>
      )}
      <Routes>
        <Route path="intakes/:id/poster" element={<PosterScreen />} />
        <Route element={<Shell account={known} />}>
          <Route index element={<Navigate to="/desk" replace />} />
          <Route path="desk" element={<DeskScreen />} />
          <Route element={<OverValues seesValues={account.seesValues} />}>
            <Route path="mailings" element={<MailingsScreen />} />
            <Route path="mailings/:id/:part?" element={<MailingScreen />} />
            <Route path="sources" element={<SourcesScreen />} />
            <Route path="sources/:id" element={<SourceScreen />} />
          </Route>
          <Route path="wastebasket" element={<WastebasketScreen />} />
          <Route path="intakes" element={<IntakesScreen />} />
          <Route path="intakes/:id/:part?" element={<IntakeScreen />} />
          <Route path="templates" element={<TemplatesScreen />} />
          <Route path="templates/:id" element={<TemplateScreen />} />
          <Route path="templates/:id/layout" element={<LayoutScreen />} />
          <Route path="templates/:id/revisions" element={<RevisionsScreen />} />
          <Route path="batches/:id" element={<BatchScreen />} />
          <Route path="ledger" element={<LedgerScreen />} />
          <Route path="paper/:id?" element={<PaperScreen />} />
          <Route path="settings/:part?" element={<SettingsScreen />} />
          <Route path="*" element={<NothingHere />} />
        </Route>
      </Routes>
    </RightsProvider>
  );
}

export function App() {
  return (
    <I18nProvider locale={spokenLocale()}>
      <QueryClientProvider client={client}>
        <GlobalStyle />
        {/* What stands in the address is there at once, as what is typed is. */}
        <BrowserRouter useTransitions={false}>
          <Crumbs>
            <Suspense fallback={<Loading what={t`the screen`} />}>
              <Screens />
            </Suspense>
          </Crumbs>
        </BrowserRouter>
      </QueryClientProvider>
    </I18nProvider>
  );
}
