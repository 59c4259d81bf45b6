import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";
import { keys } from "@/api/queries";
import type { Me } from "@/api/types";

interface Asked {
  method: string;
  path: string;
  body: unknown;
  key: string | null;
}

type Answers = Record<string, unknown | ((body: never) => unknown)>;

/** What is thrown by an answer that refuses. */
export class Refuse {
  constructor(
    readonly status: number,
    readonly body: unknown,
  ) {}
}

/** A server that gives these answers, by “METHOD /path”; what it was asked is kept in order. */
export function serverWith(answers: Answers): Asked[] {
  const asked: Asked[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const path = new URL(request.url).pathname;
    const text = await request.text();
    const body = text ? JSON.parse(text) : undefined;
    asked.push({ method: request.method, path, body, key: request.headers.get("Idempotency-Key") });
    const answer = answers[`${request.method} ${path}`];
    if (answer === undefined) return Response.json({ detail: `nobody answers ${path}` }, { status: 404 });
    const given = typeof answer === "function" ? answer(body as never) : answer;
    return given instanceof Refuse
      ? Response.json(given.body, { status: given.status })
      : Response.json(given);
  });
  return asked;
}

/** Shows a page as the app does, to somebody who is signed in, with queries and routes of its own. */
export function show(page: ReactNode, me: Partial<Me>) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  queries.setQueryData(keys.me, me);
  return render(
    <MemoryRouter>
      <QueryClientProvider client={queries}>{page}</QueryClientProvider>
    </MemoryRouter>,
  );
}
