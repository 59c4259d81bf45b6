// @vitest-environment happy-dom
import { cleanup, render } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { shoe } from "@/test/made";
import { DegreeLines } from "./degree-lines";

afterEach(cleanup);

const RADIUS = 100;
const at = (turned: number, out: number): [number, number] => [
  RADIUS * out * Math.sin(turned),
  -RADIUS * out * Math.cos(turned),
];

function drawn(more: { dial?: string; named?: boolean } = {}) {
  const { container } = render(
    <svg role="img" aria-label="shoe">
      <DegreeLines shoe={shoe} at={at} named {...more} />
    </svg>,
  );
  return container;
}

const names = (container: HTMLElement) =>
  [...container.querySelectorAll("text")].map((text) => text.textContent);

test("each line stands where the pipe is bent so far, on the groove's radius", () => {
  const lines = [...drawn().querySelectorAll("line")];
  expect(lines).toHaveLength(shoe.degree_lines.length);
  lines.forEach((line, number) => {
    const [x, y] = ["x2", "y2"].map((name) => Number(line.getAttribute(name))) as [number, number];
    const turned = (Math.atan2(x, -y) * 180) / Math.PI;
    expect(turned).toBeCloseTo(shoe.degree_lines[number]?.true ?? 0, 6);
    expect(Math.hypot(x, y)).toBeCloseTo(RADIUS * 0.97, 6);
  });
});

test("where the notch is in the way only the line in use is named, and none on a small drawing", () => {
  expect(names(drawn())).toEqual(["60°", "90°"]);
  cleanup();
  expect(names(drawn({ dial: "22 1/2°" }))).toEqual(["22 1/2°", "60°", "90°"]);
  cleanup();
  expect(names(drawn({ dial: "30°", named: false }))).toEqual([]);
});
