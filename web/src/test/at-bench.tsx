import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";
import type { Sheet } from "@/api/types";
import { type BenchContext, BenchProvider } from "@/features/bench/bench-context";
import { first, stickOf } from "./made";

/** Nothing is asked of a server here. */
const OFF_LINE = { defaultOptions: { queries: { enabled: false } } };

/** Shows a part of the bench at a stick; what is done there is kept. */
export function at(sheet: Sheet, children: ReactNode, more: Partial<BenchContext> = {}) {
  const bench = {
    bench: { run_id: 1, job_id: 1, pieces: [1], carried: [], document: {} },
    stick: stickOf(sheet),
    mayWrite: true,
    offline: false,
    waiting: new Map(),
    refused: [],
    at: first.number,
    go: vi.fn(),
    act: vi.fn().mockResolvedValue(true),
    arrange: vi.fn(),
    burnt: false,
    setBurnt: vi.fn(),
    markOf: (bend: typeof first) => bend.use,
    setReference: vi.fn(),
    dialOf: () => undefined,
    setDial: vi.fn(),
    ...more,
  } as unknown as BenchContext;
  render(
    <MemoryRouter>
      <QueryClientProvider client={new QueryClient(OFF_LINE)}>
        <BenchProvider value={bench}>{children}</BenchProvider>
      </QueryClientProvider>
    </MemoryRouter>,
  );
  return bench;
}
