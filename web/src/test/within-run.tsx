import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";
import type { RunDocument } from "@/api/types";
import {
  type Focus,
  FocusContext,
  PlanContext,
  type Planned,
  WorkContext as Within,
  type WorkContext,
} from "@/features/layout/run-context";

/** What a browser has and the tests' has not. */
export const stubResizeObserver = () =>
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );

interface Shown {
  document: RunDocument;
  plan: Planned["plan"];
  rack?: Planned["rack"];
  side?: Focus["side"];
  mayWrite?: boolean;
  queries?: QueryClient;
}

/** Shows a part of a run's page, as its page would; what it is edited to is kept. */
export function showWithinRun(children: ReactNode, shown: Shown) {
  const { document, plan, rack, side = null, mayWrite = true, queries = new QueryClient() } = shown;
  const edit = vi.fn();
  const draft = { document, past: [], future: [] };
  const work = { draft, edit, send: vi.fn(), run: { id: 7 }, mayWrite } as unknown as WorkContext;
  const planned: Planned = { plan, rack, planError: "" };
  const focus: Focus = { chosen: null, choose: vi.fn(), side, open: vi.fn() };
  render(
    <MemoryRouter>
      <QueryClientProvider client={queries}>
        <Within value={work}>
          <PlanContext value={planned}>
            <FocusContext value={focus}>{children}</FocusContext>
          </PlanContext>
        </Within>
      </QueryClientProvider>
    </MemoryRouter>,
  );
  return edit;
}
