import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { ConfigProvider } from 'antd';
import { useState } from 'react';
import { BrowserRouter, Navigate, Route, Routes, useLocation } from 'react-router';
import { useSession, type Session } from '../features/session';
import { ProblemError } from '../shared/api/client';
import { eyes } from '../shared/api/client';
import { Fault } from '../shared/ui/Fault';
import { Loading } from '../shared/ui/Loading';
import { useNarrow } from '../shared/ui/useNarrow';
import { themeFor } from './theme';
import { page } from './page';
import { useMode } from './useMode';
import { frameWords as words } from './words';

const Frame = page(async () => (await import('./Frame')).Frame);
const SignIn = page(async () => (await import('../features/session/SignIn')).SignIn);
const Welcome = page(async () => (await import('../features/session/Welcome')).Welcome);
const AccountPage = page(async () => (await import('../features/account/AccountPage')).AccountPage);
const BoardPage = page(async () => (await import('../features/board/BoardPage')).BoardPage);
const BoardPaper = page(async () => (await import('../features/board/BoardPaper')).BoardPaper);
const PhoneBoard = page(async () => (await import('../features/board/PhoneBoard')).PhoneBoard);
const OpenEntry = page(async () => (await import('../features/records/OpenEntry')).OpenEntry);
const CalendarsPage = page(
  async () => (await import('../features/calendars/CalendarsPage')).CalendarsPage,
);
const CopiesPage = page(async () => (await import('../features/copies/CopiesPage')).CopiesPage);
const CoverPage = page(async () => (await import('../features/cover/CoverPage')).CoverPage);
const CrewPage = page(async () => (await import('../features/crew/CrewPage')).CrewPage);
const CoverPaper = page(async () => (await import('../features/cover/CoverPaper')).CoverPaper);
const DeadlinesPage = page(
  async () => (await import('../features/deadlines/DeadlinesPage')).DeadlinesPage,
);
const ChainsPage = page(async () => (await import('../features/deadlines/ChainsPage')).ChainsPage);
const IncomingPage = page(
  async () => (await import('../features/incoming/IncomingPage')).IncomingPage,
);
const MyDayPage = page(async () => (await import('../features/myday/MyDayPage')).MyDayPage);
const RecordPaper = page(async () => (await import('../features/records/RecordPaper')).RecordPaper);
const RecordsPaper = page(
  async () => (await import('../features/records/RecordsPaper')).RecordsPaper,
);
const RecordsPage = page(async () => (await import('../features/records/RecordsPage')).RecordsPage);
const RulesPage = page(async () => (await import('../features/rules/RulesPage')).RulesPage);
const SightPage = page(async () => (await import('../features/sight/SightPage')).SightPage);
const TodayPage = page(async () => (await import('../features/today/TodayPage')).TodayPage);

function makeClient() {
  return new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 5_000,
        retry: (count, error) =>
          count < 2 && !(error instanceof ProblemError && error.problem.status >= 400),
      },
    },
  });
}

export function App() {
  const [client] = useState(makeClient);
  const mode = useMode();
  return (
    <ConfigProvider theme={themeFor(mode.mode)}>
      <QueryClientProvider client={client}>
        {/* A page is there together with what was told of it, so that its keys act on it. */}
        <BrowserRouter useTransitions={false}>
          <Routes>
            <Route path="/welcome/:token" element={<Welcome />} />
            <Route path="*" element={<Inside mode={mode} />} />
          </Routes>
        </BrowserRouter>
      </QueryClientProvider>
    </ConfigProvider>
  );
}

function Inside({ mode }: { mode: ReturnType<typeof useMode> }) {
  const session = useSession();
  if (session.isPending) {
    return <Loading what={words.loading} />;
  }
  if (session.error) {
    return <Fault error={session.error} reads />;
  }
  return session.data.signedIn ? (
    <Pages session={session.data} mode={mode} />
  ) : (
    <SignIn session={session.data} />
  );
}

function Pages({ session: own, mode }: { session: Session; mode: ReturnType<typeof useMode> }) {
  const other = eyes();
  const session = other ? { ...own, person: other.id, name: other.name, right: other.right } : own;
  const coordinates = session.right === 'COORDINATOR';
  const mayMake = coordinates || session.right === 'TEAM_COORDINATOR';
  const { pathname } = useLocation();
  const narrow = useNarrow();
  const myDay = <MyDayPage person={session.person ?? 0} name={session.name ?? ''} />;
  // On a phone it is the whole page.
  if (pathname === '/my-day' && narrow) {
    return myDay;
  }
  // Paper has no frame.
  if (/\/(paper|print)$/.test(pathname)) {
    return (
      <Routes>
        <Route path="/board/paper" element={<BoardPaper mayMake={mayMake} />} />
        <Route path="/board/print" element={<Navigate to="/board/paper?days=7" replace />} />
        {mayMake && <Route path="/cover/paper" element={<CoverPaper />} />}
        <Route path="/records/paper" element={<RecordsPaper />} />
        <Route path="/records/:id/paper" element={<RecordPaper />} />
        <Route path="*" element={<Navigate to="/board/paper" replace />} />
      </Routes>
    );
  }
  return (
    <Frame session={session} mode={mode} mayMake={mayMake} mayRule={coordinates}>
      <Routes>
        <Route path="/today" element={<TodayPage />} />
        <Route path="/my-day" element={myDay} />
        <Route
          path="/board"
          element={narrow ? <PhoneBoard mayMake={mayMake} /> : <BoardPage mayMake={mayMake} />}
        />
        <Route path="/records" element={<RecordsPage mayMake={mayMake} mayShare={coordinates} />} />
        <Route
          path="/records/:id"
          element={<RecordsPage mayMake={mayMake} mayShare={coordinates} />}
        />
        {coordinates && <Route path="/deadlines/chains" element={<ChainsPage />} />}
        {coordinates && <Route path="/deadlines/chains/:id" element={<ChainsPage />} />}
        {mayMake && <Route path="/deadlines" element={<DeadlinesPage mayChange={coordinates} />} />}
        {mayMake && (
          <Route path="/deadlines/:id" element={<DeadlinesPage mayChange={coordinates} />} />
        )}
        <Route path="/open/:entry" element={<OpenEntry />} />
        {mayMake && <Route path="/cover" element={<CoverPage mayRule={coordinates} />} />}
        <Route path="/crew" element={<Navigate to="/crew/people" replace />} />
        <Route path="/crew/:tab" element={<CrewPage mayChange={coordinates} />} />
        {mayMake && <Route path="/files" element={<IncomingPage mayBringCrew={coordinates} />} />}
        {coordinates && <Route path="/rules" element={<RulesPage />} />}
        {coordinates && <Route path="/who-sees-what" element={<SightPage />} />}
        <Route path="/calendars" element={<CalendarsPage />} />
        <Route
          path="/copies"
          element={<CopiesPage person={session.person ?? 0} mayHouse={coordinates} />}
        />
        <Route path="/account" element={<AccountPage email={session.email ?? ''} />} />
        <Route path="*" element={<Navigate to={mayMake ? '/today' : '/my-day'} replace />} />
      </Routes>
    </Frame>
  );
}
