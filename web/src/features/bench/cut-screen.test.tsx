// @vitest-environment happy-dom
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test, vi } from "vitest";
import { at } from "@/test/at-bench";
import { first, made, stickOf } from "@/test/made";
import { stubResizeObserver } from "@/test/within-run";
import { CutScreen } from "./cut-screen";

stubResizeObserver();
afterEach(cleanup);

const uncut = { ...stickOf(made.sheet), cut_at: null };
const rows = () => within(screen.getByRole("table")).getAllByRole("row").slice(1);

test("every mark stands in the order in which the tape meets it", () => {
  at(made.sheet, <CutScreen />);
  expect(screen.getByTestId("cut").textContent).toBe(made.sheet.cut.reads);
  const places = made.sheet.bends.map((bend) => bend.use.at).toSorted((a, b) => a.inches - b.inches);
  expect(rows().map((row) => row.querySelector("strong")?.textContent)).toEqual(
    places.map((place) => place.reads),
  );
});

test("with the first inch burnt each is an inch more", () => {
  at(made.sheet, <CutScreen />, { burnt: true });
  const burnt = made.sheet.bends.map((bend) => bend.burnt).toSorted((a, b) => a.inches - b.inches);
  expect(rows().map((row) => row.querySelector("strong")?.textContent)).toEqual(
    burnt.map((one) => one.reads),
  );
});

test("the card's mark stands beside, and by how much it is off only where it reads otherwise", () => {
  at(made.sheet, <CutScreen />);
  for (const bend of made.sheet.bends.filter((one) => one.card)) {
    const row = rows().find((one) => one.textContent?.includes(bend.card?.exact.reads ?? "")) as HTMLElement;
    expect(row.textContent?.includes("card off by")).toBe(!bend.card?.agrees);
  }
});

test("it is cut once, and then the first bend comes", async () => {
  const user = userEvent.setup();
  const { act, go } = at(made.sheet, <CutScreen />, { stick: uncut });
  await user.click(screen.getByRole("button", { name: /Cut and marked/ }));
  expect(act).toHaveBeenCalledWith({ kind: "cut", piece: made.sheet.piece, source: null });
  expect(go).toHaveBeenCalledWith(first.number);
});

test("what could not be entered leaves the screen where it is", async () => {
  const user = userEvent.setup();
  const refused = vi.fn().mockResolvedValue(false);
  const { go } = at(made.sheet, <CutScreen />, { stick: uncut, act: refused });
  await user.click(screen.getByRole("button", { name: /Cut and marked/ }));
  expect(go).not.toHaveBeenCalled();
});

test("a cut is taken back as long as nothing is bent", () => {
  at(made.sheet, <CutScreen />);
  expect(screen.getByRole("button", { name: "Not cut yet" })).toBeTruthy();
  cleanup();
  at(made.sheet, <CutScreen />, { stick: { ...stickOf(made.sheet), made: [{}] as never } });
  expect(screen.queryByRole("button", { name: "Not cut yet" })).toBeNull();
});
