// @vitest-environment happy-dom
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { at } from "@/test/at-bench";
import { first, made } from "@/test/made";
import { AsBent } from "./as-bent";
import type { BenchContext } from "./bench-context";
import { BendScreen } from "./bend-screen";
import { CorrectionTold } from "./correction";

afterEach(cleanup);

describe("a bend's screen", () => {
  it("shows the mark, what it is set on, and everything that must then read", () => {
    for (const bend of made.sheet.bends) {
      at(made.sheet, <BendScreen bend={bend} />);
      expect(screen.getByTestId("mark").textContent).toBe(bend.use.at.reads);
      expect(screen.getByText(bend.turn_says)).toBeTruthy();
      const reads = within(screen.getByRole("region", { name: "Then it must read" }));
      for (const check of bend.checks) expect(reads.getAllByText(check.reads).length).toBeGreaterThan(0);
      cleanup();
    }
  });

  it("reads an inch more where the first inch is burnt", () => {
    at(made.sheet, <BendScreen bend={first} />, { burnt: true });
    expect(screen.getByTestId("mark").textContent).toBe(first.burnt.reads);
    expect(first.burnt.inches - first.use.at.inches).toBeCloseTo(1, 9);
  });
});

describe("a bend that came out otherwise on another pipe of the rack", () => {
  it("is dialed so by choice, and sent with the dial", async () => {
    const user = userEvent.setup();
    const setDial = vi.fn();
    const carried = [{ bend: first.number, pipe: 2, off_reads: "+2.0°", dial: 88, dial_reads: "88°" }];
    at(made.sheet, <BendScreen bend={first} />, {
      bench: { run_id: 1, carried } as unknown as BenchContext["bench"],
      setDial,
    });
    await user.click(screen.getByRole("button", { name: "Set the dial to 88°" }));
    expect(setDial).toHaveBeenCalledWith(first.number, 88);
    cleanup();
    const { act } = at(made.sheet, <AsBent bend={first} />, { dialOf: () => 88 });
    await user.type(screen.getByLabelText(/finder reads/), "90");
    await user.click(screen.getByRole("button", { name: "Enter it" }));
    expect(act).toHaveBeenCalledWith(expect.objectContaining({ angle: 90, dial: 88 }));
  });
});

describe("a sweep's screen", () => {
  const user = userEvent.setup();
  const shots = made.swept.bends;
  const third = shots[2] as typeof first;

  it("says which shot it is and what the finder over all of it must then show", async () => {
    const { go } = at(made.swept, <BendScreen bend={third} />, { at: third.number });
    const sweep = within(screen.getByRole("region", { name: "Sweep" }));
    expect(sweep.getByText("Shot 3 of 9")).toBeTruthy();
    expect(sweep.getByText(third.sweep?.then_reads ?? "none")).toBeTruthy();
    const buttons = sweep.getAllByRole("button");
    expect(buttons.map((one) => one.getAttribute("aria-label"))).toEqual(
      shots.map((shot) => `Shot ${shot.sweep?.shot}${shot.made ? ", made" : ""}`),
    );
    await user.click(sweep.getByRole("button", { name: "Shot 5" }));
    expect(go).toHaveBeenCalledWith(shots[4]?.number);
    expect(screen.getByRole("button", { name: "Next shot ›" })).toBeTruthy();
  });

  it("takes what the finder reads over the whole sweep, and goes on to the next shot", async () => {
    const { act, go } = at(made.swept, <AsBent bend={third} />);
    await user.type(screen.getByLabelText("Angle finder reads over the whole sweep, degrees"), "20");
    await user.click(screen.getByRole("button", { name: "Enter it" }));
    expect(screen.getByText(/The sweep was at 21.0° before this shot/)).toBeTruthy();
    expect(act).not.toHaveBeenCalled();
    await user.clear(screen.getByLabelText("Angle finder reads over the whole sweep, degrees"));
    await user.type(screen.getByLabelText("Angle finder reads over the whole sweep, degrees"), "31 1/4");
    await user.click(screen.getByRole("button", { name: "Enter it" }));
    expect(act).toHaveBeenCalledWith(expect.objectContaining({ bend: third.number, angle: 10.25 }));
    expect(go).toHaveBeenCalledWith(shots[3]?.number);
  });

  it("asks for the finder and not the dial at the last one", () => {
    const last = shots.at(-1) as typeof first;
    at(made.swept, <BendScreen bend={last} />, { at: last.number });
    expect(screen.getByText(/The last one by the angle finder, not by the dial/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Next shot ›" })).toBeNull();
  });
});

describe("a bend as it came out", () => {
  const user = userEvent.setup();

  it("is sent with what was typed, and its reference", async () => {
    const bench = at(made.sheet, <AsBent bend={first} />);
    await user.type(screen.getByLabelText("Angle finder reads, degrees"), "29 1/2");
    if (first.tape) await user.type(screen.getByLabelText("Tape reads"), "20 1/8");
    await user.click(screen.getByRole("button", { name: /bent|enter|keep|log/i }));
    expect(bench.act).toHaveBeenCalledWith(
      expect.objectContaining({
        kind: "bent",
        bend: first.number,
        angle: 29.5,
        reference: first.use.reference,
      }),
    );
  });

  it("that cannot be read stays as it was typed, with what would do", async () => {
    const bench = at(made.sheet, <AsBent bend={first} />);
    const finder = screen.getByLabelText("Angle finder reads, degrees") as HTMLInputElement;
    await user.type(finder, "thirty");
    await user.click(screen.getByRole("button", { name: /bent|enter|keep|log/i }));
    expect(screen.getByText(/as 30.5 or 22 1\/2/)).toBeTruthy();
    expect(finder.value).toBe("thirty");
    expect(bench.act).not.toHaveBeenCalled();
  });
});

describe("a bend that is being sent and is here already", () => {
  it("has as many lines as once it is sent: what is touched below them stays where it is", () => {
    const bend = made.after.bends.find((one) => one.made);
    if (!bend) throw new Error("a bend was made");
    const sent = [{ bend: bend.number, by: "Dana", at: new Date().toISOString() }];
    const lines = [new Map(), new Map([[bend.number, { angle: 34, tape: null, turned: 0 }]])].map(
      (waiting) => {
        const stick = { sheet: made.after, made: sent } as unknown as BenchContext["stick"];
        at(made.after, <AsBent bend={bend} />, { waiting, stick });
        const count = screen.getByRole("region", { name: "As bent" }).children.length;
        cleanup();
        return count;
      },
    );
    expect(lines[0]).toBe(lines[1]);
  });
});

describe("a correction", () => {
  it("is told as the core gives it: what to do, and where end B comes without and with it", () => {
    const { correction } = made.after;
    if (!correction) throw new Error("the bend was bad");
    at(made.after, <CorrectionTold />);
    const told = within(screen.getByRole("region", { name: "Correction" }));
    expect(told.getByText(correction.says)).toBeTruthy();
    for (const one of correction.rebends)
      expect(
        told.getByText(new RegExp(`bend ${one.bend} by ${one.by_reads}, to ${one.until_reads}`)),
      ).toBeTruthy();
    expect(told.getByText(new RegExp(`would be ${correction.misses.reads} off`))).toBeTruthy();
  });

  it("leaves the choice to leave it as it is, and none to who may only look", async () => {
    const bench = at(made.after, <CorrectionTold />);
    await userEvent.click(screen.getByRole("button", { name: /Leave bend/ }));
    expect(bench.act).toHaveBeenCalledWith({
      kind: "left",
      piece: 1,
      bend: made.after.correction?.rebends[0]?.bend,
    });
    cleanup();
    at(made.after, <CorrectionTold />, { mayWrite: false });
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("is not told where nothing needs doing", () => {
    at(made.sheet, <CorrectionTold />);
    expect(screen.queryByRole("region", { name: "Correction" })).toBeNull();
  });
});
