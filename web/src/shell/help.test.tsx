// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, expect, test } from "vitest";
import { Help } from "./help";

beforeEach(() => localStorage.clear());
afterEach(cleanup);

function at(path: string, asked = false) {
  cleanup();
  render(
    <MemoryRouter initialEntries={[path]}>
      <Help asked={asked} onClose={() => undefined} />
    </MemoryRouter>,
  );
  return screen.queryByRole("complementary")?.getAttribute("aria-label");
}

test("it comes by itself once in each view, and whenever it is asked for", async () => {
  expect(at("/runs/7/layout")).toBe("Help: Layout: measure the run");
  await userEvent.click(screen.getByRole("button", { name: "Got it" }));
  expect(at("/runs/8/layout")).toBeUndefined();
  expect(at("/runs/8/layout", true)).toBe("Help: Layout: measure the run");
  expect(at("/runs/8/bench/2")).toContain("Bench");
});

test("who wants no such notes gets none elsewhere either", async () => {
  at("/");
  await userEvent.click(screen.getByRole("button", { name: "More" }));
  await userEvent.click(screen.getByRole("button", { name: "No more tips" }));
  expect(at("/jobs/3/stock")).toBeUndefined();
});

test("what is kept and cannot be read counts as nothing seen", () => {
  localStorage.setItem("crelda.help", "{broken");
  expect(at("/log")).toContain("Log");
  expect(at("/nowhere")).toBeUndefined();
});
