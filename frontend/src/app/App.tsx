/** The application: providers, addresses, and who may see what. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, Suspense, type ReactNode } from "react";
import { RouterProvider as AriaRouter } from "react-aria-components";
import { BrowserRouter, Navigate, Route, Routes, useHref, useNavigate } from "react-router";
import { ProblemError } from "../api/client";
import { useSession } from "../api/hooks";
import { GlobalStyle, ProblemNote, Waiting, WorkingProvider } from "../kit";
import { Account } from "./Account";
import { SignIn } from "./SignIn";
import { Page } from "./Page";
import { Shortcuts } from "./Shortcuts";
import { useOutbox } from "./useOutbox";

const Today = lazy(() => import("../today/Today"));
const BuyingSheet = lazy(() => import("../stages/filter/BuyingSheet"));
const FittingSheet = lazy(() => import("../stages/fit/FittingSheet"));
const DiarySheet = lazy(() => import("../stages/cycle/DiarySheet"));
const TankPage = lazy(() => import("./TankPage"));

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) =>
        count < 2 && !(error instanceof ProblemError && error.status > 0 && error.status < 500),
    },
    mutations: { networkMode: "always" },
  },
});

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <GlobalStyle />
      <BrowserRouter>
        <AriaRoutes>
          <WorkingProvider>
            <Shortcuts />
            <Addresses />
          </WorkingProvider>
        </AriaRoutes>
      </BrowserRouter>
    </QueryClientProvider>
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

function Addresses() {
  const session = useSession();
  useOutbox(session.data?.signed_in ?? false);
  if (session.isPending)
    return (
      <Page>
        <Waiting>Opening the notebook…</Waiting>
      </Page>
    );
  if (session.error)
    return (
      <Page>
        <ProblemNote
          problem={
            session.error instanceof ProblemError
              ? session.error
              : new ProblemError(0, "Not reached", session.error.message)
          }
        />
      </Page>
    );
  if (!session.data.signed_in) return <SignIn demoOpen={session.data.demo_open} />;
  return (
    <Suspense
      fallback={
        <Page>
          <Waiting>Turning the page…</Waiting>
        </Page>
      }
    >
      <Routes>
        <Route path="/today" element={<Today />} />
        <Route path="/account" element={<Account session={session.data} />} />
        <Route path="/tanks/:tankId/buying" element={<BuyingSheet />} />
        <Route path="/tanks/:tankId/sheet" element={<FittingSheet />} />
        <Route path="/tanks/:tankId/diary" element={<DiarySheet />} />
        <Route path="/tanks/:tankId/:stage" element={<TankPage />} />
        <Route path="*" element={<Navigate to="/today" replace />} />
      </Routes>
    </Suspense>
  );
}
