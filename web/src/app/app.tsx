import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { ApiError } from "@/api/client";
import { useMe } from "@/api/queries";
import { BenchView } from "@/features/bench/bench-view";
import { JobsPage } from "@/features/jobs/jobs-page";
import { StockPage } from "@/features/stock/stock-page";
import { RunPage } from "@/features/walk/run-page";
import { WalkView } from "@/features/walk/walk-view";
import { SignIn } from "./sign-in";

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: (count, error) => error instanceof ApiError && error.status === 0 && count < 2 },
  },
});

function SignedInOnly() {
  const me = useMe();
  if (me.isPending) return null;
  if (!me.data) return <SignIn />;
  return (
    <Routes>
      <Route path="/" element={<JobsPage />} />
      <Route path="/runs/:runId" element={<RunPage />}>
        <Route index element={<Navigate to="walk" replace />} />
        <Route path="walk" element={<WalkView />} />
        <Route path="bench" element={<BenchView />} />
      </Route>
      <Route path="/jobs/:jobId/stock" element={<StockPage />} />
      <Route path="*" element={<Navigate to="/" replace />} />
    </Routes>
  );
}

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <BrowserRouter>
        <SignedInOnly />
      </BrowserRouter>
    </QueryClientProvider>
  );
}
