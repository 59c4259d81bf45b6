import {
  MutationCache,
  QueryCache,
  QueryClient,
  useIsRestoring,
  useQueryClient,
} from "@tanstack/react-query";
import { PersistQueryClientProvider } from "@tanstack/react-query-persist-client";
import { Suspense, useEffect, useRef, useState, useSyncExternalStore } from "react";
import { BrowserRouter, Navigate, Route, Routes, useLocation } from "react-router";
import { askAnew } from "@/api/after-writes";
import { begunRuns, sendBegun } from "@/api/begun-here";
import { ApiError } from "@/api/client";
import { core } from "@/api/core/keeping";
import { keepAhead } from "@/api/keep-ahead";
import { KEEPING } from "@/api/kept";
import { sendLater, waiting } from "@/api/later";
import { followOtherTabs, ownerOf, showFor, shownFor } from "@/api/owner";
import { keys, useJobs, useMeAtFirst } from "@/api/queries";
import type { Me } from "@/api/types";
import { useReach } from "@/api/use-reach";
import { DevicesAtWork } from "@/devices/at-work";
import { PadMeasure } from "@/devices/pad-measure";
import { JobsPage } from "@/features/jobs/jobs-page";
import { SignIn } from "@/features/people/sign-in";
import { OutboxProvider } from "@/outbox/outbox-context";
import { NoAnswer } from "@/shell/no-answer";
import { NotFound } from "@/shell/not-found";
import { toTheWork } from "@/shell/to-the-work";
import { TapePad } from "@/ui/tape-pad/tape-pad";
import { page } from "./page";

const RunPage = page("/runs/:runId/layout", () =>
  import("@/features/layout/run-page").then((module) => module.RunPage),
);
const LayoutView = page("/runs/:runId/layout", () =>
  import("@/features/layout/layout-view").then((module) => module.LayoutView),
);
const BenchPage = page("/runs/:runId/bench/*", () =>
  import("@/features/bench/bench-page").then((module) => module.BenchPage),
);
const FloorPage = page("/runs/:runId/floor", () =>
  import("@/features/racks/floor-page").then((module) => module.FloorPage),
);
const LimitsPage = page("/limits", () =>
  import("@/features/crew/limits-page").then((module) => module.LimitsPage),
);
const LogPage = page("/log", () => import("@/features/log/log-page").then((module) => module.LogPage));
const PeoplePage = page("/people", () =>
  import("@/features/people/people-page").then((module) => module.PeoplePage),
);
const MePage = page("/me", () => import("@/features/people/me-page").then((module) => module.MePage));
const JoinPage = page("/join/:token", () =>
  import("@/features/people/join-page").then((module) => module.JoinPage),
);
const PasswordPage = page("/password/:token", () =>
  import("@/features/people/password-page").then((module) => module.PasswordPage),
);
const BeginPage = page("/begin/*", () =>
  import("@/features/people/begin-page").then((module) => module.BeginPage),
);
const SharedNotePage = page("/shared", () =>
  import("@/features/jobs/shared-note-page").then((module) => module.SharedNotePage),
);
const DevicesPage = page("/devices", () =>
  import("@/features/devices/devices-page").then((module) => module.DevicesPage),
);
const CompanyPage = page("/company", () =>
  import("@/features/company/company-page").then((module) => module.CompanyPage),
);
const JoinCompanyPage = page("/company/join/:token", () =>
  import("@/features/company/join-company-page").then((module) => module.JoinCompanyPage),
);
const ShoesPage = page("/shoes", () =>
  import("@/features/shoes/shoes-page").then((module) => module.ShoesPage),
);
const JobCards = page("/jobs/:jobId/cards", () =>
  import("@/features/bench/job-cards").then((module) => module.JobCards),
);
const RunSheet = page("/runs/:runId/sheet", () =>
  import("@/features/layout/run-sheet").then((module) => module.RunSheet),
);
const SpacePage = page("/jobs/:jobId/space", () =>
  import("@/features/space/space-page").then((module) => module.SpacePage),
);
const WorkPage = page("/jobs/:jobId/work", () =>
  import("@/features/estimate/work-page").then((module) => module.WorkPage),
);
const EstimatePage = page("/estimate", () =>
  import("@/features/estimate/estimate-page").then((module) => module.EstimatePage),
);
const RunFiles = page("/runs/:runId/files", () =>
  import("@/features/files/files-page").then((module) => module.RunFiles),
);
const JobFiles = page("/jobs/:jobId/files", () =>
  import("@/features/files/files-page").then((module) => module.JobFiles),
);
const CrewFiles = page("/crew/files", () =>
  import("@/features/files/files-page").then((module) => module.CrewFiles),
);
const ImportPage = page("/import", () =>
  import("@/features/files/import-page").then((module) => module.ImportPage),
);
const StockPage = page("/jobs/:jobId/stock", () =>
  import("@/features/stock/stock-page").then((module) => module.StockPage),
);

// Signed out meanwhile, as by time: what is kept here stays, and the sign-in page comes.
const onError = (error: Error) => {
  if (error instanceof ApiError && error.status === 401) queries.setQueryData(keys.me, null);
};
const queries: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: {
    // A write that nobody can take is told at once, with what was typed still there; none is held back in silence.
    mutations: { networkMode: "always" },
    queries: {
      // No answer, or none from the database: it is asked again; what was shown stays.
      retry: (count, error) =>
        error instanceof ApiError && (error.status === 0 || error.status >= 502) && count < 2,
      retryDelay: (count, error) => Math.max(1000 * 2 ** count, error instanceof ApiError ? error.wait : 0),
    },
  },
});

/** What this browser keeps is read first, so that what comes after it is known to be the server's. */
function Restored() {
  return useIsRestoring() ? null : <Doors />;
}

/** The pages that a link opens whether somebody is signed in or not; behind all others is the sign-in. */
function Doors() {
  return (
    <Suspense>
      <Routes>
        <Route path="/join/:token" element={<JoinPage />} />
        <Route path="/password/:token" element={<PasswordPage />} />
        <Route path="/begin/:token?" element={<BeginPage />} />
        <Route path="*" element={<SignedInOnly />} />
      </Routes>
    </Suspense>
  );
}

function SignedInOnly() {
  const me = useMeAtFirst();
  const owner = me.data ? ownerOf(me.data) : "";
  if (owner && !shownFor()) showFor(owner);
  useEffect(() => followOtherTabs(owner), [owner]);
  useFocusAfterSignIn(me.data);
  // Until the server has said who is there nothing of anybody's is shown; without a network it is who was there last.
  if (!me.isFetchedAfterMount && me.fetchStatus !== "paused") return null;
  if (me.data === undefined) return <NoAnswer error={me.error} onAgain={() => me.refetch()} />;
  if (me.data === null) return <SignIn />;
  return (
    <OutboxProvider key={owner} me={me.data}>
      <Pages />
    </OutboxProvider>
  );
}

/** Whoever has signed in just now begins on the page, and not before its header. */
function useFocusAfterSignIn(me: Me | null | undefined) {
  const before = useRef(me);
  useEffect(() => {
    if (before.current === null && me) requestAnimationFrame(() => toTheWork());
    before.current = me;
  }, [me]);
}

/** Keeps what the crew works with on a device that plans by itself, as it changes. */
function WorkKept() {
  const jobs = useJobs().data;
  const queries = useQueryClient();
  useEffect(() => {
    if (jobs && navigator.onLine) void keepAhead(queries, jobs).catch(() => undefined);
  }, [jobs, queries]);
  return null;
}

/** Sends what was begun here once the server is in reach; a run that is open is sent by its page. */
function BegunSent() {
  const reach = useReach();
  const queries = useQueryClient();
  const { pathname } = useLocation();
  const added = useSyncExternalStore(waiting.subscribe, waiting.snapshot).filter(
    (one) => !one.refused,
  ).length;
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    // What did not arrive for whatever else is sent again.
    const timer = setInterval(() => setTurn((before) => before + 1), BETWEEN_TRIES);
    return () => clearInterval(timer);
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each turn, and each thing that is added, it is sent anew.
  useEffect(() => {
    if (reach) void sendBegunThings(pathname).then((stale) => askAnew(queries, stale));
    else void Promise.all([waiting.look(), begunRuns.look()]);
  }, [reach, pathname, queries, added, turn]);
  return null;
}

const BETWEEN_TRIES = 30_000;

/** Sends what was begun here, but for the run that is open; gives what is to be asked anew. */
async function sendBegunThings(pathname: string): Promise<(readonly unknown[])[]> {
  const isAdded = await sendLater();
  await begunRuns.look();
  const due = begunRuns
    .snapshot()
    .filter(({ id, refused }) => !refused && !pathname.startsWith(`/runs/${id}/`));
  // One that is refused is told in the list of jobs.
  for (const { id } of due) await sendBegun(id).catch(() => undefined);
  return [...(isAdded || due.length ? [keys.jobs] : []), ...(isAdded ? ADDED : [])];
}

const ADDED = [keys.shoes, keys.rack, ["cuts"]];

function Pages() {
  const { state } = useSyncExternalStore(core.subscribe, core.snapshot);
  return (
    <Suspense>
      {state === "here" && <WorkKept />}
      <BegunSent />
      <Routes>
        <Route path="/" element={<JobsPage />} />
        <Route path="/runs/:runId" element={<RunPage />}>
          <Route index element={<Navigate to="layout" replace />} />
          <Route path="layout" element={<LayoutView />} />
          <Route path="sheet" element={<RunSheet />} />
          {/* Addresses that people kept from when the view was called so. */}
          <Route path="walk" element={<Navigate to="../layout" replace />} />
        </Route>
        <Route path="/runs/:runId/bench/:piece?" element={<BenchPage />} />
        <Route path="/runs/:runId/floor" element={<FloorPage />} />
        <Route path="/runs/:runId/files" element={<RunFiles />} />
        <Route path="/log" element={<LogPage />} />
        <Route path="/people" element={<PeoplePage />} />
        <Route path="/company" element={<CompanyPage />} />
        <Route path="/devices" element={<DevicesPage />} />
        <Route path="/crew/files" element={<CrewFiles />} />
        <Route path="/import" element={<ImportPage />} />
        <Route path="/shared" element={<SharedNotePage />} />
        <Route path="/company/join/:token" element={<JoinCompanyPage />} />
        <Route path="/me" element={<MePage />} />
        <Route path="/limits" element={<LimitsPage />} />
        <Route path="/shoes" element={<ShoesPage />} />
        <Route path="/jobs/:jobId/space" element={<SpacePage />} />
        <Route path="/jobs/:jobId/work" element={<WorkPage />} />
        <Route path="/estimate" element={<EstimatePage />} />
        <Route path="/jobs/:jobId/stock" element={<StockPage />} />
        <Route path="/jobs/:jobId/cards" element={<JobCards />} />
        <Route path="/jobs/:jobId/files" element={<JobFiles />} />
        <Route path="*" element={<NotFound />} />
      </Routes>
    </Suspense>
  );
}

export function App() {
  return (
    <PersistQueryClientProvider client={queries} persistOptions={KEEPING}>
      <BrowserRouter>
        <Restored />
        <DevicesAtWork />
        <TapePad>
          <PadMeasure />
        </TapePad>
      </BrowserRouter>
    </PersistQueryClientProvider>
  );
}
