// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { Finding, Plan, RackPlan } from "@/api/types";
import { made } from "@/test/made";
import { ChecksLine } from "./checks-line";

afterEach(cleanup);

const finding = (severity: Finding["severity"], place: string): Finding => ({
  code: "supports",
  severity,
  place,
  says: "Told.",
  remedy: "",
  fixes: [],
});

function line(plan: Partial<Plan>, isCalibrated = true, onChoose = vi.fn()) {
  render(<ChecksLine plan={{ ...made.plan, ...plan }} isCalibrated={isCalibrated} onChoose={onChoose} />);
  return onChoose;
}

test("“can be bent” is said without reserve only of a run without cautions on a calibrated shoe", () => {
  line({ findings: [] });
  expect(screen.getByText("Can be bent")).toBeTruthy();
  cleanup();
  line({ findings: [] }, false);
  expect(screen.queryByText("Can be bent")).toBeNull();
  expect(screen.getByText(/the shoe is not calibrated/)).toBeTruthy();
});

test("cautions are counted, and lead to where they are told", () => {
  const onChoose = line({ findings: [finding("caution", "steps.2"), finding("note", "steps.0")] });
  fireEvent.click(screen.getByRole("button", { name: /one caution/ }));
  expect(onChoose).toHaveBeenCalledWith(2);
  cleanup();
  line({ findings: [finding("caution", "end.at"), finding("caution", "steps.1")] });
  expect(screen.getByText(/2 cautions/)).toBeTruthy();
});

test("what stops it is told by its place, whatever else was found", () => {
  const onChoose = line({
    makeable: false,
    findings: [finding("caution", "steps.0"), finding("stop", "steps.3.at")],
  });
  fireEvent.click(screen.getByRole("button", { name: /Stops at step 4/ }));
  expect(onChoose).toHaveBeenCalledWith(3);
  expect(screen.queryByText(/Can be bent/)).toBeNull();
  cleanup();
  line({ makeable: false, findings: [finding("stop", "end.at")] });
  expect(screen.getByText("Stops at the end")).toBeTruthy();
  cleanup();
  line({ makeable: false, findings: [] });
  expect(screen.getByText("Not finished yet")).toBeTruthy();
});

test("figures are shown as the plan gives them", () => {
  line({});
  expect(screen.getByText(made.plan.developed_length?.reads ?? "none")).toBeTruthy();
  expect(
    screen.getByText(`${Math.round(made.plan.degrees * 10) / 10}° of ${made.plan.limits.most_degrees}°`),
  ).toBeTruthy();
  expect(screen.getByText(String(made.plan.supports.length))).toBeTruthy();
});

test("how the pipes beside stand is told beside it, and never better than they do", () => {
  const { rack } = made;
  const told = (changed: RackPlan) => {
    cleanup();
    render(<ChecksLine plan={made.lead} rack={changed} isCalibrated onChoose={vi.fn()} />);
  };
  told(rack);
  expect(screen.getByText("All 5 pipes, gaps kept")).toBeTruthy();
  told({ ...rack, gaps_kept: false });
  expect(screen.getByText("All 5 pipes; gaps smaller than asked")).toBeTruthy();
  told({ ...rack, makeable: false, findings: [{ ...finding("stop", "steps.1"), code: "rack_touches" }] });
  expect(screen.getByText("Pipes run into each other")).toBeTruthy();
  told({ ...rack, makeable: false, findings: [{ ...finding("stop", "rack.gap"), code: "rack_spacing" }] });
  expect(screen.getByText("The rack cannot be laid out yet")).toBeTruthy();
  const [first, second, ...others] = rack.pipes;
  if (!first || !second) throw new Error("no rack");
  told({ ...rack, makeable: false, pipes: [first, { ...second, makeable: false }, ...others] });
  expect(screen.getByText("4 of 5 pipes can be bent")).toBeTruthy();
  told({ ...rack, pipes: [first, { ...second, free: true }, ...others] });
  expect(screen.getByText("All 4 pipes, gaps kept")).toBeTruthy();
});
