// @vitest-environment happy-dom
import { act, cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { clock } from "@/api/clock";
import { WrongClock } from "./wrong-clock";

afterEach(cleanup);

test("a clock that is far from the server's is told until it is put right, the way of an answer is not", () => {
  const later = (minutes: number) => new Date(Date.now() + minutes * 60_000).toUTCString();
  render(<WrongClock />);
  for (const minutes of [0, 1, -1]) {
    act(() => clock.heard(later(minutes)));
    expect(screen.queryByRole("status")).toBeNull();
  }
  act(() => clock.heard(later(-60 * 24 * 365)));
  expect(screen.getByRole("status").textContent).toContain("kept with the server’s time");
  act(() => clock.heard(null));
  expect(screen.getByRole("status")).toBeTruthy();
  act(() => clock.heard(later(0)));
  expect(screen.queryByRole("status")).toBeNull();
});
