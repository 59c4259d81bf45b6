// @vitest-environment happy-dom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test, vi } from "vitest";
import type { Cutting } from "@/api/types";
import { serverWith, show } from "@/test/server";
import { Looking } from "./looking";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const SOLVE = {
  state: "running",
  by: "Dana Wexcombe",
  seconds: 10,
  done: 4,
  late: false,
  ahead: 0,
  says: "",
} as const;
const PLAN = { digest: "d" } as unknown as Cutting["proposal"];

function looking(
  solve: Partial<Cutting["solve"]> | null,
  proposal: Cutting["proposal"] = null,
  mayWrite = true,
) {
  const cutting = { solve: solve && { ...SOLVE, ...solve }, proposal } as unknown as Cutting;
  const onPlan = vi.fn();
  show(<Looking jobId={3} cutting={cutting} mayWrite={mayWrite} onPlan={onPlan} />, { role: "lead" });
  return onPlan;
}

test("while it is looked for one sees how long, and may stop", async () => {
  const asked = serverWith({ "POST /api/jobs/3/cutting/stop": {} });
  looking({});
  expect(screen.getByRole("status").textContent).toBe("Looking for the best way to cut, 10 s at most …");
  expect(screen.getByRole("progressbar").getAttribute("aria-valuenow")).toBe("4");
  await userEvent.click(screen.getByRole("button", { name: "Stop" }));
  expect(asked.map((one) => one.method)).toContain("POST");
});

test("where it takes longer than it said, it says what it does", () => {
  looking({ done: 10 });
  expect(screen.getByRole("status").textContent).toContain("The plan is checked cut by cut");
});

test("on a busy server it says how much is done, and that it goes on", () => {
  looking({ late: true });
  expect(screen.getByRole("status").textContent).toContain(
    "The server is busy: 40 % of the looking is done.",
  );
});

test("with a first plan there it says that this one is kept", () => {
  looking({}, PLAN);
  expect(screen.getByRole("button", { name: "Stop, keep this plan" })).toBeTruthy();
});

test("who waits is told for what", () => {
  looking({ state: "waiting", ahead: 2 });
  expect(screen.getByText("2 other plans are ahead …")).toBeTruthy();
  cleanup();
  looking({ state: "waiting", ahead: 1 });
  expect(screen.getByText("One other plan is ahead …")).toBeTruthy();
  cleanup();
  looking({ state: "waiting" }, null, false);
  expect(screen.getByText("Waiting for a planner …")).toBeTruthy();
  expect(screen.queryByRole("button")).toBeNull();
});

test("what failed or was stopped without a plan is asked for again by hand only", async () => {
  const onPlan = looking({ state: "failed", says: "Planning failed." });
  expect(screen.getByText("Planning failed.")).toBeTruthy();
  expect(onPlan).not.toHaveBeenCalled();
  await userEvent.click(screen.getByRole("button", { name: "Plan again" }));
  expect(onPlan).toHaveBeenCalledOnce();
  cleanup();
  looking({ state: "stopped" });
  expect(screen.getByText("Planning was stopped.")).toBeTruthy();
  cleanup();
  looking({ state: "stopped" }, PLAN);
  expect(screen.queryByText(/stopped/)).toBeNull();
});
