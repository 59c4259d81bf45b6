// @vitest-environment happy-dom
import { cleanup, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test, vi } from "vitest";
import type { Limit } from "@/api/types";
import { Refuse, serverWith, show } from "@/test/server";
import { LimitsPage } from "./limits-page";

// The frame of the page asks for more than is of interest here.
vi.mock("@/shell/shell", () => ({ Shell: ({ children }: { children: React.ReactNode }) => children }));

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const LIMITS: Limit[] = [
  {
    name: "most_degrees",
    title: "Bends between pull points",
    says: "Added up.",
    reads: "360°",
    shipped: "360°",
    written: "",
    choices: [],
  },
  {
    name: "closure",
    title: "Closing error",
    says: "How far off.",
    reads: "1/8",
    shipped: "1/4",
    written: "1/8",
    choices: [],
  },
];
const NEW_RUNS = { tape: "1/16", feet: false, stand_off: "0" } as const;
const LEAD = { role: "lead", new_runs: NEW_RUNS } as const;
const button = () => screen.getByRole("button", { name: "Save limits" }) as HTMLButtonElement;

test("the lead changes one, and all that are written are sent once, with a key", async () => {
  const sent = { ...LIMITS[0], written: "270", reads: "270°" } as Limit;
  const asked = serverWith({
    "GET /api/limits": LIMITS,
    "PUT /api/limits": [sent, LIMITS[1]],
  });
  show(<LimitsPage />, LEAD);
  const degrees = (await screen.findByLabelText(/Bends between pull points/)) as HTMLInputElement;
  expect(button().disabled).toBe(true);
  expect(screen.getByText("shipped: 1/4")).toBeTruthy();
  await userEvent.type(degrees, "270");
  await userEvent.click(button());
  await screen.findByText(/Every plan is held to these now/).catch(() => null);
  const puts = asked.filter((one) => one.method === "PUT");
  expect(puts.map((one) => one.body)).toEqual([{ limits: { most_degrees: "270", closure: "1/8" } }]);
  expect(puts[0]?.key).toMatch(/^[0-9a-f-]{36}$/);
});

test("what cannot be used is told at its place, and stays as it was typed", async () => {
  serverWith({
    "GET /api/limits": LIMITS,
    "PUT /api/limits": new Refuse(422, {
      detail: "Nothing was changed.",
      places: { closure: "is not a length" },
    }),
  });
  show(<LimitsPage />, LEAD);
  const closure = (await screen.findByLabelText(/Closing error/)) as HTMLInputElement;
  await userEvent.clear(closure);
  await userEvent.type(closure, "much");
  await userEvent.click(button());
  await waitFor(() => expect(closure.getAttribute("aria-invalid")).toBe("true"));
  expect(screen.getByText("is not a length")).toBeTruthy();
  expect(screen.getByText("Nothing was changed.")).toBeTruthy();
  expect(closure.value).toBe("much");
});

test("others read them and can change nothing", async () => {
  serverWith({ "GET /api/limits": LIMITS });
  show(<LimitsPage />, { role: "bender", new_runs: NEW_RUNS });
  expect(await screen.findByText("A lead sets them.")).toBeTruthy();
  expect(screen.getByText("360°")).toBeTruthy();
  expect(screen.queryByRole("textbox")).toBeNull();
  expect(screen.queryByRole("button")).toBeNull();
});
