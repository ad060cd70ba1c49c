import { isMailbagError } from '@mailbag/core';
import { MutationCache, QueryCache, QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { Suspense, lazy } from 'react';
import { BrowserRouter, Navigate, Outlet, Route, Routes, useLocation } from 'react-router';
import { sentenceOf } from './api/client';
import { RightsProvider, useMayChange } from './ui/rights';
import { queries } from './api/queries';
import { GlobalStyle } from './global-style';
import { InvitationScreen } from './screens/account/invitation-screen';
import { SignInScreen } from './screens/account/sign-in-screen';
import { Crumbs } from './screens/shell/crumbs';
import { Shell } from './screens/shell/shell';
import { Button } from './ui/button';
import { Empty, Loading } from './ui/layout';

const DeskScreen = lazy(() => import('./screens/desk/desk-screen'));
const MailingsScreen = lazy(() => import('./screens/mailings/mailings-screen'));
const MailingScreen = lazy(() => import('./screens/mailing/mailing-screen'));
const TemplatesScreen = lazy(() => import('./screens/templates/templates-screen'));
const TemplateScreen = lazy(() => import('./screens/templates/template-screen'));
const SourcesScreen = lazy(() => import('./screens/sources/sources-screen'));
const SourceScreen = lazy(() => import('./screens/sources/source-screen'));
const BatchScreen = lazy(() => import('./screens/batch/batch-screen'));
const LedgerScreen = lazy(() => import('./screens/ledger/ledger-screen'));
const PaperScreen = lazy(() => import('./screens/paper/paper-screen'));
const SettingsScreen = lazy(() => import('./screens/settings/settings-screen'));

/** Who is signed out elsewhere sees the sign-in page at the next question. */
const onError = (error: Error): void => {
  if (isMailbagError(error) && error.code === 'account-signed-out') void client.invalidateQueries({ queryKey: ['account'] });
};
const client: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: { queries: { retry: (tries, error) => !isMailbagError(error) && tries < 2, staleTime: 5_000 } },
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

function Screens() {
  const location = useLocation();
  const { data, error, refetch } = useQuery(queries.account());
  if (error)
    return (
      <Empty title="Mailbag does not answer" action={<Button onPress={() => void refetch()}>Try again</Button>}>
        {sentenceOf(error)}
      </Empty>
    );
  if (!data) return <Loading what="your desk" />;
  if (!data.account && location.pathname === '/invitation') return <InvitationScreen />;
  if (!data.account) return <SignInScreen setUpNeeded={data.setUpNeeded} />;
  return (
    <RightsProvider value={data.account.role !== 'viewer'}>
      <Routes>
        <Route element={<Shell account={data} />}>
          <Route index element={<Navigate to="/desk" replace />} />
          <Route path="desk" element={<DeskScreen />} />
          <Route element={<OverValues seesValues={data.account.seesValues} />}>
            <Route path="mailings" element={<MailingsScreen />} />
            <Route path="mailings/:id/:part?" element={<MailingScreen />} />
            <Route path="sources" element={<SourcesScreen />} />
            <Route path="sources/:id" element={<SourceScreen />} />
          </Route>
          <Route path="templates" element={<TemplatesScreen />} />
          <Route path="templates/:id" element={<TemplateScreen />} />
          <Route path="batches/:id" element={<BatchScreen />} />
          <Route path="ledger" element={<LedgerScreen />} />
          <Route path="paper/:id?" element={<PaperScreen />} />
          <Route path="settings/:part?" element={<SettingsScreen />} />
          <Route path="*" element={<Empty title="There is nothing here">The address leads nowhere. Choose a place on the left.</Empty>} />
        </Route>
      </Routes>
    </RightsProvider>
  );
}

export function App() {
  return (
    <QueryClientProvider client={client}>
      <GlobalStyle />
      <BrowserRouter>
        <Crumbs>
          <Suspense fallback={<Loading what="the screen" />}>
            <Screens />
          </Suspense>
        </Crumbs>
      </BrowserRouter>
    </QueryClientProvider>
  );
}
