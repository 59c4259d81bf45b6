// @vitest-environment happy-dom
import { QueryClient } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { RackOption, RackPlan, RunDocument, Step } from "@/api/types";
import { NO_CONTEXT, StepContext } from "@/features/layout/steps/step-context";
import { made } from "@/test/made";
import { showWithinRun, stubResizeObserver } from "@/test/within-run";
import { RackPanel } from "./rack-panel";
import { RackWayClause } from "./rack-way";
import { RackWays } from "./rack-ways";

stubResizeObserver();
afterEach(cleanup);

interface Shown {
  document?: RunDocument;
  rack?: RackPlan | undefined;
  mayWrite?: boolean;
  options?: RackOption[];
}

function shown(children: React.ReactNode, more: Shown = {}) {
  const { document = made.racked, rack = made.rack, mayWrite = true, options } = more;
  const queries = new QueryClient({ defaultOptions: { queries: { staleTime: Number.POSITIVE_INFINITY } } });
  queries.setQueryData(["shoes"], []);
  if (options) queries.setQueryData(["rack ways", document, 1], options);
  const edit = showWithinRun(children, { document, plan: made.lead, rack, side: "rack", mayWrite, queries });
  /** The document as it was last changed to. */
  return () => edit.mock.lastCall?.[0] as RunDocument;
}

describe("a run without a rack", () => {
  const alone = { ...made.racked, rack: null };

  it("gets so many pipes beside it as are typed", async () => {
    const user = userEvent.setup();
    const last = shown(<RackPanel />, { document: alone, rack: undefined });
    const count = screen.getByLabelText("Pipes side by side");
    for (const wrong of ["1", "25", "many"]) {
      fireEvent.change(count, { target: { value: wrong } });
      expect(screen.getByText("2 to 24 pipes can run in parallel.")).toBeTruthy();
      expect((screen.getByRole("button", { name: "Make them" }) as HTMLButtonElement).disabled).toBe(true);
    }
    fireEvent.change(count, { target: { value: "6" } });
    await user.click(screen.getByRole("button", { name: "Make them" }));
    expect(last().rack?.pipes).toHaveLength(5);
  });

  it("is only told to whoever may not change it", () => {
    shown(<RackPanel />, { document: alone, rack: undefined, mayWrite: false });
    expect(screen.getByText("This run has no pipes beside it yet.")).toBeTruthy();
  });
});

describe("a rack", () => {
  it("lists its pipes with what each takes, and every gap beside what was asked", () => {
    shown(<RackPanel />);
    const pipes = within(screen.getByRole("list", { name: "Pipes of the rack" }));
    for (const pipe of made.rack.pipes.slice(1)) {
      expect(pipes.getByDisplayValue(pipe.name)).toBeTruthy();
      expect(pipes.getByText(pipe.developed_length?.reads ?? "none")).toBeTruthy();
    }
    const rows = within(screen.getByRole("region", { name: "Gaps" }))
      .getAllByRole("row")
      .slice(1);
    expect(rows).toHaveLength(made.rack.gaps.length);
    for (const [at, gap] of made.rack.gaps.entries()) {
      expect(rows[at]?.textContent).toContain(gap.least.reads);
      expect(rows[at]?.textContent).toContain(gap.equal ? "all along" : "step");
    }
    expect(screen.getByText(`${made.rack.struts.length} struts`)).toBeTruthy();
    expect(screen.getByRole("link", { name: "Lay them out on the floor" }).getAttribute("href")).toBe(
      "/runs/7/floor",
    );
  });

  it("is spaced by the gap instead, and what was typed stays", () => {
    const last = shown(<RackPanel />);
    fireEvent.change(screen.getByLabelText("Spacing of the pipes"), { target: { value: "2 1/2" } });
    expect(last().rack?.spacing).toBe("2 1/2");
    expect(last().rack?.pipes).toBe(made.racked.rack?.pipes);
  });

  it("names a pipe, and says which are to have boxes of their own", async () => {
    const user = userEvent.setup();
    const last = shown(<RackPanel />);
    fireEvent.change(screen.getByLabelText("Pipe 2, name"), { target: { value: "Oven" } });
    expect(last().rack?.pipes[0]?.name).toBe("Oven");
    expect(last().rack?.pipes.slice(1)).toEqual(made.racked.rack?.pipes.slice(1));
    expect(screen.getByDisplayValue("Trough T5")).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Pipe 3, ends further along"), { target: { value: "-4" } });
    expect(last().rack?.pipes[1]?.ends).toBe("-4");
    await user.click(screen.getByRole("button", { name: "One more pipe" }));
    expect(last().rack?.pipes).toHaveLength(5);
    expect(last().rack?.pipes.at(-1)?.trade_size).toBe("1/2");
  });

  it("asks before all pipes are taken away", async () => {
    const user = userEvent.setup();
    const last = shown(<RackPanel />);
    await user.click(screen.getByRole("button", { name: "Run this pipe alone again" }));
    expect(last()).toBeUndefined();
    await user.click(screen.getByRole("button", { name: "Remove them" }));
    expect(last().rack).toBeNull();
  });

  it("tells what is wrong at the pipe that it concerns, and of a touching pair that they touch", () => {
    const [lead, second, ...others] = made.rack.pipes;
    const finding = {
      code: "unreadable" as const,
      severity: "stop" as const,
      place: "rack.pipes.0.leaves",
      says: "Pipe 2: leaves too late.",
      remedy: "",
      fixes: [],
    };
    const [gap, ...rest] = made.rack.gaps;
    if (!lead || !second || !gap) throw new Error("no rack");
    const broken = {
      ...made.rack,
      pipes: [lead, { ...second, makeable: false, findings: [finding] }, ...others],
      gaps: [{ ...gap, kept: false, equal: false, least: { inches: -0.2, reads: "-3/16" } }, ...rest],
    };
    shown(<RackPanel />, { rack: broken });
    expect(screen.getByText(/leaves too late/)).toBeTruthy();
    expect(screen.getByText("touch")).toBeTruthy();
    expect(screen.getByText("cannot be bent yet")).toBeTruthy();
  });
});

describe("how the pipes beside take a step", () => {
  const turn = made.racked.steps[1] as Step;
  const clause = (step: Step, mayWrite = true) => {
    const onChange = vi.fn();
    render(
      <StepContext value={{ ...NO_CONTEXT, called: "Step 2", mayWrite, racked: true }}>
        <RackWayClause step={step} onChange={onChange} />
      </StepContext>,
    );
    return onChange;
  };

  it("stands in the step's sentence, with its own figures", () => {
    const onChange = clause(turn);
    expect(screen.getByText(/with growing kicks/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Step 2, beside: setback"), { target: { value: "16" } });
    expect(onChange.mock.lastCall?.[0].rack).toMatchObject({ how: "kicks", after: "down", setback: "16" });
    expect(onChange.mock.lastCall?.[1]).toBe("rack.setback");
  });

  it("is the usual one where none was chosen, and asks for shots beside a 90 that they sweep around", () => {
    clause({ ...turn, rack: null } as Step);
    expect(screen.getByText(/round with equal radii/)).toBeTruthy();
    cleanup();
    const onChange = clause({ ...turn, rack: { how: "sweep" } } as Step);
    fireEvent.change(screen.getByLabelText("Step 2, beside: shots"), { target: { value: "12" } });
    expect(onChange.mock.lastCall?.[0].rack).toEqual({ how: "sweep", shots: 12 });
  });

  it("is no question where there is no choice", () => {
    clause({ kind: "coupling", at: "20" } as Step);
    expect(screen.queryByText(/The rack goes/)).toBeNull();
  });

  it("is listed with what each way costs, and taken with one touch", async () => {
    const user = userEvent.setup();
    const option = (how: RackOption["how"], more: Partial<RackOption>): RackOption => ({
      how,
      after: null,
      now: false,
      makeable: true,
      bent: 5,
      gaps_kept: true,
      least_gap: { inches: 1, reads: "1" },
      pipe: { inches: 1000, reads: "1000" },
      why_not: "",
      ...more,
    });
    const options = [
      option("equal", { gaps_kept: false, least_gap: { inches: 0.5, reads: "1/2" } }),
      option("sweep", { makeable: false, why_not: "No sweep is so tight." }),
      option("kicks", { after: "down", now: true }),
    ];
    const last = shown(<RackWays step={turn} index={1} />, { options });
    const ways = within(screen.getByRole("region", { name: "Ways to run them in parallel" })).getAllByRole(
      "listitem",
    );
    expect(ways.map((way) => way.textContent)).toEqual([
      expect.stringContaining("less than asked"),
      expect.stringContaining("No sweep is so tight."),
      expect.stringContaining("then down of this run"),
    ]);
    expect(screen.getAllByRole("button")).toHaveLength(1);
    await user.click(screen.getByRole("button", { name: "Use it: round with equal radii" }));
    expect(last().steps[1]).toMatchObject({ rack: { how: "equal" }, at: "71" });
  });
});
