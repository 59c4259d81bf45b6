// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, beforeEach, expect, test } from "vitest";
import { TapeContext, TapeField } from "@/ui/tape-field";
import { choosePad } from "./pad-choice";
import { TapePad } from "./tape-pad";

beforeEach(() => {
  sessionStorage.clear();
  choosePad({ shown: "always", hand: "right", body: "3 1/2" });
});
afterEach(cleanup);

function Fields({ tape }: { tape: "1/16" | "1 mm" }) {
  const [rise, setRise] = useState("12");
  const [angle, setAngle] = useState("30");
  return (
    <TapeContext value={tape}>
      <TapeField label="Rise" value={rise} onChange={setRise} />
      <TapeField label="Angle" value={angle} onChange={setAngle} steps={["22 1/2", "30"]} unit="°" />
      <TapePad />
    </TapeContext>
  );
}

const press = (...keys: string[]) => {
  for (const name of keys) fireEvent.click(screen.getByRole("button", { name }));
};
const box = (name: string) => screen.getByRole<HTMLInputElement>("textbox", { name });
const shown = (tape: "1/16" | "1 mm" = "1/16") => {
  render(<Fields tape={tape} />);
  fireEvent.focus(box("Rise"));
};

test("a figure is typed, its fraction picked, and the next one asked for", () => {
  shown();
  press("7", "1", "1/2");
  expect(box("Rise").value).toBe("71 1/2");
  expect(box("Rise").inputMode).toBe("none");
  press("Undo the last key", "Undo the last key");
  expect(box("Rise").value).toBe("7");
  press("Take back", "5", "ft, feet", "1", "1", "Next");
  expect(box("Rise").value).toBe("5' 11");
  expect(document.activeElement).toBe(box("Angle"));
  press("22 1/2°");
  expect(box("Angle").value).toBe("22 1/2");
});

test("figures are added, taken away, read again and picked again", () => {
  shown();
  press("1", "0", "+ 3 1/2 tape: the tape’s own body", "Take away", "1", "Next");
  expect(box("Rise").value).toBe("10 + 3 1/2 less 1");
  fireEvent.focus(box("Rise"));
  press("8", "Read again: the mean of both", "9");
  expect(box("Rise").value).toBe("8 again 9");
  press("Take 10 + 3 1/2 less 1 again");
  expect(box("Rise").value).toBe("10 + 3 1/2 less 1");
});

test("on a tape in millimetres there are no fractions and no feet", () => {
  shown("1 mm");
  expect(screen.queryByRole("button", { name: "1/2" })).toBeNull();
  expect(screen.queryByRole("button", { name: "ft, feet" })).toBeNull();
  press("1", "8", "1", "6");
  expect(box("Rise").value).toBe("1816");
});

test("it goes with the figure, and lets letters be typed instead", () => {
  shown();
  press("Keyboard with letters");
  expect(screen.queryByRole("region", { name: /Tape pad/ })).toBeNull();
  expect(box("Rise").inputMode).toBe("text");
  cleanup();
  choosePad({ shown: "never" });
  shown();
  expect(screen.queryByRole("region", { name: /Tape pad/ })).toBeNull();
});
