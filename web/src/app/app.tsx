import { QueryClient } from "@tanstack/react-query";
import { PersistQueryClientProvider } from "@tanstack/react-query-persist-client";
import { lazy, Suspense } from "react";
import { BrowserRouter, Navigate, Route, Routes, useMatch } from "react-router";
import { ApiError } from "@/api/client";
import { useMe } from "@/api/queries";
import { useUnsent } from "@/features/bench/use-unsent";
import { JobsPage } from "@/features/jobs/jobs-page";
import { RunPage } from "@/features/walk/run-page";
import { WalkView } from "@/features/walk/walk-view";
import { KEEPING } from "./kept";
import { SignIn } from "./sign-in";

// What is not needed to measure is fetched when it is opened.
const BenchPage = lazy(() =>
  import("@/features/bench/bench-page").then((module) => ({ default: module.BenchPage })),
);
const LogPage = lazy(() => import("@/features/log/log-page").then((module) => ({ default: module.LogPage })));
const ShoesPage = lazy(() =>
  import("@/features/shoes/shoes-page").then((module) => ({ default: module.ShoesPage })),
);
const StockPage = lazy(() =>
  import("@/features/stock/stock-page").then((module) => ({ default: module.StockPage })),
);

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: (count, error) => error instanceof ApiError && error.status === 0 && count < 2 },
  },
});

function SignedInOnly() {
  const me = useMe();
  const bench = useMatch("/runs/:runId/bench/*");
  useUnsent(me.data?.username, bench ? Number(bench.params.runId) : null);
  if (me.isPending) return null;
  if (!me.data) return <SignIn />;
  return (
    <Suspense>
      <Routes>
        <Route path="/" element={<JobsPage />} />
        <Route path="/runs/:runId" element={<RunPage />}>
          <Route index element={<Navigate to="walk" replace />} />
          <Route path="walk" element={<WalkView />} />
        </Route>
        <Route path="/runs/:runId/bench/:piece?" element={<BenchPage />} />
        <Route path="/log" element={<LogPage />} />
        <Route path="/shoes" element={<ShoesPage />} />
        <Route path="/jobs/:jobId/stock" element={<StockPage />} />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Routes>
    </Suspense>
  );
}

export function App() {
  return (
    <PersistQueryClientProvider client={queries} persistOptions={KEEPING}>
      <BrowserRouter>
        <SignedInOnly />
      </BrowserRouter>
    </PersistQueryClientProvider>
  );
}
