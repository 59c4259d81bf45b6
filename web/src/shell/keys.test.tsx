// @vitest-environment happy-dom
import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { serverWith, show } from "@/test/server";
import { stubResizeObserver } from "@/test/within-run";
import { Keys } from "./keys";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

test("the keys are shown by a question mark, but not while one types", () => {
  show(
    <>
      <input aria-label="figure" />
      <Keys />
    </>,
    {},
  );
  fireEvent.keyDown(screen.getByLabelText("figure"), { key: "?" });
  expect(screen.queryByRole("dialog")).toBeNull();
  fireEvent.keyDown(document.body, { key: "?" });
  expect(screen.getByRole("dialog", { name: "Keys" })).toBeTruthy();
  expect(screen.getByText("Ctrl + Z, Ctrl + Y")).toBeTruthy();
});

test("runs, shoes and pages are found by their names from anywhere", async () => {
  const run = { id: 7, name: "Kiln 2 feed" };
  serverWith({
    "GET /api/jobs": [{ id: 1, name: "Kiln room", place: "", runs: [run] }],
    "GET /api/shoes": [{ id: 3, name: "Old faithful" }],
  });
  stubResizeObserver();
  Element.prototype.scrollIntoView = vi.fn();
  show(<Keys />, {});
  fireEvent.keyDown(document.body, { key: "k", ctrlKey: true });
  expect(await screen.findByText("Kiln 2 feed")).toBeTruthy();
  fireEvent.change(screen.getByPlaceholderText(/Go to a run/), { target: { value: "faithful" } });
  expect(await screen.findByText("Old faithful")).toBeTruthy();
  expect(screen.queryByText("Kiln 2 feed")).toBeNull();
});
