// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, expect, test } from "vitest";
import type { Tape } from "@/api/types";
import { TapeContext, TapeField } from "./tape-field";

afterEach(cleanup);

interface Props {
  tape?: Tape;
  start: string;
  inches?: number;
  steps?: string[];
}

/** A field whose value is read at once, as the server does a moment later. */
function Typed({ tape = "1/16", start, inches, steps }: Props) {
  const [value, setValue] = useState(start);
  return (
    <TapeContext value={tape}>
      <TapeField
        label="Measure"
        value={value}
        onChange={setValue}
        {...(inches === undefined ? {} : { read: { written: start, inches } })}
        {...(steps ? { steps } : {})}
      />
      <TapeField label="Next" value="1" onChange={() => undefined} />
    </TapeContext>
  );
}

const field = () => screen.getByLabelText("Measure") as HTMLInputElement;
const press = (key: string, more = {}) => fireEvent.keyDown(field(), { key, ...more });

test("arrow keys nudge by what the tape is divided in, with Shift farther", () => {
  render(<Typed start="71 1/2" inches={71.5} />);
  press("ArrowUp");
  expect(field().value).toBe("71 9/16");
  press("ArrowDown");
  press("ArrowDown");
  expect(field().value).toBe("71 7/16");
  press("ArrowUp", { shiftKey: true });
  expect(field().value).toBe("72 7/16");
});

test("on a metric tape they are millimetres", () => {
  render(<Typed tape="1 mm" start="1816" inches={1816 / 25.4} />);
  press("ArrowUp");
  expect(field().value).toBe("1817");
  press("ArrowDown", { shiftKey: true });
  expect(field().value).toBe("1807");
});

test("a nudge of what is not read yet waits until it is", () => {
  const { rerender } = render(
    <TapeField label="Measure" value="5'" onChange={() => undefined} read={undefined} />,
  );
  press("ArrowUp");
  let nudged = "";
  rerender(
    <TapeField
      label="Measure"
      value="5'"
      onChange={(value) => {
        nudged = value;
      }}
      read={{ written: "5'", inches: 60 }}
    />,
  );
  expect(nudged).toBe("60 1/16");
});

test("set values step one by one and stop at their ends; Enter goes on to the next field", () => {
  render(<Typed start="30" steps={["22 1/2", "30", "45"]} />);
  press("ArrowUp");
  press("ArrowUp");
  expect(field().value).toBe("45");
  field().focus();
  press("Enter");
  expect(document.activeElement).toBe(screen.getByLabelText("Next"));
});
