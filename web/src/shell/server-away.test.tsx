// @vitest-environment happy-dom
import { act, cleanup, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { askWhetherReady, Reachable, server } from "@/api/reachable";
import { show } from "@/test/server";
import { ServerAway } from "./server-away";

beforeEach(() => vi.useFakeTimers());

afterEach(() => {
  cleanup();
  server.heard(200);
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const answering = (status: number) =>
  vi.stubGlobal("fetch", vi.fn().mockResolvedValue(new Response("", { status })));

test("no answer, or one of a proxy before it, is a server that is away; a refusal is none", () => {
  const reachable = new Reachable();
  const told = vi.fn();
  const forget = reachable.subscribe(told);
  const found = [200, 404, 0, 503, 502, 504, 500, 422].map((status) => {
    reachable.heard(status);
    return reachable.snapshot();
  });
  expect(found).toEqual(["answers", "answers", "away", "away", "away", "away", "answers", "answers"]);
  expect(told).toHaveBeenCalledTimes(2);
  forget();
  reachable.heard(0);
  expect(told).toHaveBeenCalledTimes(2);
});

test("it is said until the server is ready, which is asked every few seconds", async () => {
  answering(503);
  show(<ServerAway />, { role: "lead" });
  expect(screen.queryByRole("status")).toBeNull();
  act(() => server.heard(0));
  expect(screen.getByRole("status").textContent).toContain("Nothing is lost");
  await act(() => vi.advanceTimersByTimeAsync(7000));
  expect(fetch).toHaveBeenCalledTimes(2);
  expect(screen.getByRole("status")).toBeTruthy();
  answering(200);
  await act(() => vi.advanceTimersByTimeAsync(3000));
  expect(screen.queryByRole("status")).toBeNull();
  await act(() => vi.advanceTimersByTimeAsync(9000));
  expect(fetch).toHaveBeenCalledTimes(1);
});

test("a disk that is full is said as long as the answers say so", () => {
  show(<ServerAway />, { role: "lead" });
  act(() => server.heard(200, true));
  expect(screen.getByRole("status").textContent).toContain("disk is full");
  act(() => server.heard(200));
  expect(screen.queryByRole("status")).toBeNull();
});

test("a network that is gone is no answer", async () => {
  vi.stubGlobal("fetch", vi.fn().mockRejectedValue(new TypeError("no network")));
  await askWhetherReady();
  expect(server.snapshot()).toBe("away");
});
