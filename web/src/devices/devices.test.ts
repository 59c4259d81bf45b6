// @vitest-environment happy-dom
import { afterEach, describe, expect, test, vi } from "vitest";
import type { Reading, Told } from "./device";
import { messageIn } from "./local-program";
import { asTyped, putReading } from "./put-reading";
import { lineReader, readingIn } from "./reading-line";
import { FINDER, LASER, simulatedFinder, simulatedLaser } from "./simulated";
import { wedgeLink } from "./wedge";

afterEach(() => {
  vi.useRealTimers();
  document.body.replaceChildren();
});

const length = (value: number, more: Partial<Reading> = {}): Reading => ({
  measures: "length",
  value,
  unit: "in",
  confidence: 1,
  ...more,
});

describe("a line of a device", () => {
  test("is a value with its unit, and how sure it is", () => {
    expect(readingIn("1816.5 mm")).toEqual(length(1816.5, { unit: "mm" }));
    expect(readingIn("1,8165 m")).toMatchObject({ value: 1816.5, unit: "mm" });
    expect(readingIn(' 71.52" 80% ')).toMatchObject({ value: 71.52, unit: "in", confidence: 0.8 });
    expect(readingIn("-45.2 deg")).toMatchObject({ measures: "angle", value: -45.2, unit: "deg" });
    for (const none of ["", "71", "mm", "71.5 ft", "1 2 mm", "1".repeat(50)])
      expect(readingIn(none)).toBeNull();
  });

  test("comes in pieces, and one without an end is let go", () => {
    const read: number[] = [];
    const take = lineReader(({ value }) => read.push(value));
    for (const part of ["18", "16 m", "m\r", "\n71 in\n9", "x".repeat(10_000), "\n5 in\n"]) take(part);
    expect(read).toEqual([1816, 71, 5]);
  });
});

test("a message of a program is taken only where it is one of the protocol", () => {
  const reading = { type: "reading", ...length(70, { body: 4 }) };
  expect(messageIn(JSON.stringify(reading))).toEqual(reading);
  expect(messageIn('{"type": "printed"}')).toEqual({ type: "printed" });
  const wrong = [
    { ...reading, value: "70" },
    { ...reading, unit: "deg" },
    { ...reading, body: null },
    { type: "x" },
    3,
  ];
  for (const one of [...wrong.map((some) => JSON.stringify(some)), "{", null])
    expect(messageIn(one)).toBeNull();
});

/** What a stand-in reads of the same thing, time and again. */
function readings(make: ReturnType<typeof simulatedLaser>, found: number, count: number): Reading[] {
  vi.useFakeTimers();
  const read: Reading[] = [];
  const told: Told = { onState: vi.fn(), onReading: (one) => read.push(one) };
  const link = make(told);
  void link.connect();
  for (let at = 0; at < count; at++) link.read?.(found);
  vi.runAllTimers();
  return read;
}

describe("the stand-ins", () => {
  test("a laser trembles about the length less its own body, and is not sure of what it read badly", () => {
    const read = readings(simulatedLaser(3), 1000, 400);
    const sure = read.filter((one) => one.confidence > 0.6);
    for (const one of sure) expect(Math.abs(one.value + LASER.body - 1000)).toBeLessThan(5 * LASER.noise);
    expect(sure.length / read.length).toBeGreaterThan(0.85);
    expect(sure.length).toBeLessThan(read.length);
    expect(readings(simulatedLaser(3), 1000, 400)).toEqual(read);
    expect(readings(simulatedLaser(4), 1000, 400)).not.toEqual(read);
  });

  test("a finder reads what sprang back", () => {
    const read = readings(simulatedFinder(), 90, 200).map((one) => one.value);
    const mean = read.reduce((sum, one) => sum + one, 0) / read.length;
    expect(mean).toBeLessThan(90);
    expect(Math.abs(mean - FINDER.factor * 90 - FINDER.constant)).toBeLessThan(0.2);
  });
});

describe("a reading", () => {
  function focused(reads: string): HTMLInputElement {
    const field = document.body.appendChild(document.createElement("input"));
    field.dataset.reads = reads;
    field.focus();
    return field;
  }

  test("stands as on the tape, with what the device's own body adds", () => {
    expect(asTyped(length(71.51), "1/16")).toBe("71 1/2");
    expect(asTyped(length(1708.2, { unit: "mm", body: 108 }), "1/16")).toBe("67 1/4 + 4 1/4");
    expect(asTyped(length(1708.2, { unit: "mm", body: 108 }), "1 mm")).toBe("1708 + 108");
    expect(asTyped({ measures: "angle", value: -44.96, unit: "deg", confidence: 1 }, "1/16")).toBe("45");
  });

  test("goes into the figure that has the focus, of its own kind alone", () => {
    const field = focused("1/16");
    putReading("laser", length(30.25));
    expect(field.value).toBe("30 1/4");
    putReading("finder", { measures: "angle", value: 45, unit: "deg", confidence: 1 });
    expect(field.value).toBe("30 1/4");
    field.blur();
    putReading("laser", length(50));
    expect(field.value).toBe("30 1/4");
    expect(sessionStorage.getItem("crelda.readings")).toContain("50");
  });

  test("that the device is not sure of waits until it is taken", () => {
    const field = focused("1/16");
    const doubtful = length(30, { confidence: 0.3 });
    putReading("laser", doubtful);
    expect(field.value).toBe("");
    putReading("laser", doubtful, true);
    expect(field.value).toBe("30");
  });

  test("is told from what hands type by how fast its keys come", () => {
    const read: Reading[] = [];
    const link = wedgeLink({ onState: vi.fn(), onReading: (one) => read.push(one) });
    void link.connect();
    const press = (text: string, apart: number) => {
      let at = 1000 * (1 + read.length) + performance.now();
      for (const key of [...text, "Enter"]) {
        const event = new KeyboardEvent("keydown", { key, bubbles: true });
        Object.defineProperty(event, "timeStamp", { value: at });
        document.body.dispatchEvent(event);
        at += apart;
      }
    };
    press("1816mm", 150);
    expect(read).toEqual([]);
    press("1816mm", 8);
    expect(read).toEqual([length(1816, { unit: "mm" })]);
    link.disconnect();
    press("1816mm", 8);
    expect(read).toHaveLength(1);
  });
});

test("what one person printed is not another's to see", async () => {
  const { keepPrinted, usePrinted } = await import("./printed");
  const owner = await import("@/api/owner");
  const { renderHook } = await import("@testing-library/react");
  const shown = vi.spyOn(owner, "shownFor").mockReturnValue("1.1");
  keepPrinted(["S1", "41 3/8"]);
  expect(renderHook(usePrinted).result.current).toEqual([["S1", "41 3/8"]]);
  shown.mockReturnValue("1.2");
  expect(renderHook(usePrinted).result.current).toEqual([]);
  shown.mockReturnValue("1.1");
  expect(renderHook(usePrinted).result.current).toHaveLength(1);
});
