/** The application: providers, routes, and access. */
import { createAsyncStoragePersister } from "@tanstack/query-async-storage-persister";
import { QueryClient, type Query } from "@tanstack/react-query";
import { PersistQueryClientProvider } from "@tanstack/react-query-persist-client";
import { del, get, set } from "idb-keyval";
import { lazy, Suspense, type ReactNode } from "react";
import { RouterProvider as AriaRouter } from "react-aria-components";
import { BrowserRouter, Navigate, Route, Routes, useHref, useLocation, useNavigate } from "react-router";
import { ProblemError } from "../api/client";
import type { SessionState } from "../api/schemas";
import { isKept, useSession } from "../api/session";
import { GlobalStyle, WaitingPage, WorkingProvider } from "../kit";
import { FirstPage } from "./FirstPage";
import { SignIn } from "./SignIn";
import { InstallOffer } from "./InstallOffer";
import { Page } from "../shared/Page";
import { NotFetched } from "../shared/NotFetched";
import { ErrorBoundary, NoSuchPage } from "./ErrorPages";
import { fetchAhead } from "./prefetch";
import { Shortcuts } from "./Shortcuts";
import { UpdateNotice } from "./UpdateNotice";
import { useNewPage } from "./useNewPage";
import { useBrowserNotices } from "../shared/browserNotices";
import { usePhotoOutbox } from "../api/photos";
import { useOutbox } from "../api/useOutbox";

const Reminders = lazy(() => import("./Reminders"));
const Mailbox = lazy(() => import("./Mailbox"));
const ConfirmPage = lazy(async () => ({ default: (await import("./MailLinks")).ConfirmPage }));
const NoMailPage = lazy(async () => ({ default: (await import("./MailLinks")).NoMailPage }));
const NewPasswordPage = lazy(async () => ({ default: (await import("./MailLinks")).NewPasswordPage }));
const Account = lazy(() => import("./Account"));
const Today = lazy(() => import("../today/Today"));
const Month = lazy(() => import("../today/Month"));
const KeepIt = lazy(() => import("./KeepIt"));
const Join = lazy(() => import("./Join"));
const Look = lazy(() => import("./SharedTank"));
const RoomPage = lazy(() => import("../rooms/RoomPage"));
const RoundPage = lazy(() => import("../rooms/RoundPage"));
const BroodsPage = lazy(() => import("../rooms/BroodsPage"));
const LabelsPage = lazy(() => import("../rooms/LabelsPage"));
const RoomsPage = lazy(() => import("../rooms/RoomsPage"));
const AwaySheet = lazy(() => import("../stages/keep/AwaySheet"));
const CareSheet = lazy(() => import("../stages/keep/CareSheet"));
const LogbookSheet = lazy(() => import("../stages/keep/LogbookSheet"));
const BuyingSheet = lazy(() => import("../stages/filter/BuyingSheet"));
const FittingSheet = lazy(() => import("../stages/fit/FittingSheet"));
const DiarySheet = lazy(() => import("../stages/cycle/DiarySheet"));
const HelpPage = lazy(() => import("./HelpPage"));
const KindPage = lazy(() => import("../shop/KindPage"));
const CounterPage = lazy(() => import("../shop/CounterPage"));
const ShelfPage = lazy(() => import("../shop/ShelfPage"));
const PracticePage = lazy(() => import("../practice/PracticePage"));
const EndPage = lazy(() => import("../practice/EndPage"));
const ClassPage = lazy(() => import("../practice/ClassPage"));
const ClassSheet = lazy(() => import("../practice/ClassSheet"));
const JoinPage = lazy(() => import("../practice/JoinPage"));
const ShownShelf = lazy(() => import("../shop/ShownShelf"));
const CardSheet = lazy(() => import("../shop/CardSheet"));
const TankPage = lazy(() => import("./TankPage"));

/** Addresses that need no account. */
const OPEN = [
  "/class/",
  "/look/",
  "/kinds",
  "/counter",
  "/shelf/",
  "/help",
  "/confirm/",
  "/no-mail/",
  "/new-password/",
];

/** Where whoever is not signed in meets the first page; any other address asks to sign in. */
const FIRST = ["/", "/today"];

/** setTimeout is limited to 24 days. */
const KEPT_MS = 20 * 86_400_000;

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      // Queries run offline too: the result is an error that says so, never an endless wait.
      networkMode: "always",
      gcTime: KEPT_MS,
      retry: (count, error) =>
        count < 2 && !(error instanceof ProblemError && error.status > 0 && error.status < 500),
    },
    mutations: { networkMode: "always" },
  },
});

const keptHere = {
  persister: createAsyncStoragePersister({
    storage: { getItem: get<string>, setItem: set, removeItem: del },
    key: "reedmace.kept",
    throttleTime: 500,
  }),
  maxAge: KEPT_MS,
  // Another build may use other queries.
  buster: document.querySelector("script[src]")?.getAttribute("src") ?? "",
  dehydrateOptions: {
    // Computations are refetched with each page. So is a signed-out session, or a page would start with it.
    shouldDehydrateQuery: ({ state, queryKey }: Query) =>
      state.data !== undefined &&
      queryKey[0] !== "compute" &&
      (queryKey[0] !== "session" || (state.data as SessionState).signed_in),
  },
};

fetchAhead(queries, window.location.pathname);

export function App() {
  return (
    <PersistQueryClientProvider
      client={queries}
      persistOptions={keptHere}
      // Persisted data is shown at once and refetched, whatever its age.
      onSuccess={() => queries.invalidateQueries({ predicate: ({ state }) => isKept(state) })}
    >
      <GlobalStyle />
      <BrowserRouter>
        <AriaRoutes>
          <WorkingProvider>
            <Shortcuts />
            <UpdateNotice />
            <InstallOffer />
            <Addresses />
          </WorkingProvider>
        </AriaRoutes>
      </BrowserRouter>
    </PersistQueryClientProvider>
  );
}

function AriaRoutes({ children }: { children: ReactNode }) {
  const navigate = useNavigate();
  return (
    <AriaRouter navigate={(to) => void navigate(to)} useHref={useHref}>
      {children}
    </AriaRouter>
  );
}

/** What goes on behind every page: stored entries and photographs are sent, what cannot wait is told. */
function useBackground(session: SessionState | undefined): void {
  const signedIn = session?.signed_in ?? false;
  useOutbox(signedIn);
  usePhotoOutbox(signedIn ? (session?.email ?? null) : null);
  useBrowserNotices(signedIn);
}

function Addresses() {
  const session = useSession();
  const { pathname } = useLocation();
  useBackground(session.data);
  useNewPage();
  if (session.isPending)
    return (
      <Page>
        <WaitingPage>Opening the notebook…</WaitingPage>
      </Page>
    );
  if (!session.data)
    return (
      <NotFetched
        problem={
          session.error instanceof ProblemError
            ? session.error
            : new ProblemError(0, "Not reached", "Reedmace cannot be reached.")
        }
        onAgain={session.refetch}
      />
    );
  if (!session.data.signed_in && !OPEN.some((start) => pathname.startsWith(start)))
    return FIRST.includes(pathname) ? (
      <FirstPage session={session.data} />
    ) : (
      <SignIn
        demoOpen={session.data.demo_open}
        mailOn={session.data.mail_on}
        invited={pathname.startsWith("/join/")}
      />
    );
  return <Pages session={session.data} />;
}

/** The page of each address, for whoever may see it. */
function Pages({ session }: { session: SessionState }) {
  return (
    <ErrorBoundary>
      <Suspense
        fallback={
          <Page>
            <WaitingPage>Turning the page…</WaitingPage>
          </Page>
        }
      >
        <Routes>
          <Route path="/today" element={<Today />} />
          <Route path="/month" element={<Month />} />
          <Route path="/join/:token" element={<Join />} />
          <Route path="/look/:token" element={<Look />} />
          <Route path="/broods" element={<BroodsPage />} />
          <Route path="/rooms" element={<RoomsPage />} />
          <Route path="/rooms/:roomId" element={<RoomPage />} />
          <Route path="/rooms/:roomId/labels" element={<LabelsPage />} />
          <Route path="/rooms/:roomId/round" element={<RoundPage />} />
          <Route path="/account" element={<Account session={session} />} />
          <Route path="/reminders" element={<Reminders />} />
          <Route path="/demo/mail" element={<Mailbox />} />
          <Route path="/confirm/:token" element={<ConfirmPage />} />
          <Route path="/no-mail/:token" element={<NoMailPage />} />
          <Route path="/new-password/:token" element={<NewPasswordPage />} />
          <Route path="/help" element={<HelpPage />} />
          <Route path="/kinds" element={<KindPage />} />
          <Route path="/kinds/:kind" element={<KindPage />} />
          <Route path="/counter" element={<CounterPage />} />
          <Route path="/practice" element={<PracticePage />} />
          <Route path="/practice/:tankId/end" element={<EndPage />} />
          <Route path="/practice/class/:classId" element={<ClassPage />} />
          <Route path="/practice/class/:classId/sheet" element={<ClassSheet />} />
          <Route path="/class/:code" element={<JoinPage />} />
          <Route path="/shelf" element={<ShelfPage />} />
          <Route path="/shelf/:token" element={<ShownShelf />} />
          <Route path="/tanks/:tankId/card/:kind" element={<CardSheet />} />
          <Route path="/tanks/:tankId/away" element={<AwaySheet />} />
          <Route path="/tanks/:tankId/care" element={<CareSheet />} />
          <Route path="/tanks/:tankId/book" element={<LogbookSheet />} />
          <Route path="/tanks/:tankId/buying" element={<BuyingSheet />} />
          <Route path="/tanks/:tankId/sheet" element={<FittingSheet />} />
          <Route path="/tanks/:tankId/diary" element={<DiarySheet />} />
          <Route path="/tanks/:tankId/:stage" element={<TankPage />} />
          <Route path="/tanks/:tankId/:stage/:part" element={<TankPage />} />
          <Route path="/keep-it" element={<KeepIt />} />
          <Route path="/sign-in" element={<Navigate to="/today" replace />} />
          <Route path="/" element={<Navigate to="/today" replace />} />
          <Route path="*" element={<NoSuchPage />} />
        </Routes>
      </Suspense>
    </ErrorBoundary>
  );
}
