// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { first, made, shoe } from "@/test/made";
import { RollClock } from "./clock";
import { InTheShoeDrawing } from "./in-the-shoe";
import { ShoeDrawing } from "./shoe";

afterEach(cleanup);

const label = () => screen.getByRole("img").getAttribute("aria-label") ?? "";

describe("the clock", () => {
  it("points where the bend before must stand, clockwise from straight up", () => {
    const wanted: Record<number, [number, number]> = {
      0: [60, 20],
      90: [100, 60],
      180: [60, 100],
      270: [20, 60],
    };
    for (const [points, [x, y]] of Object.entries(wanted)) {
      const { container } = render(
        <RollClock points={Number(points)} previous={3} down={false} size={100} />,
      );
      const [pointer] = [...container.querySelectorAll('line[stroke="var(--pipe)"]')];
      expect(Number(pointer?.getAttribute("x2"))).toBeCloseTo(x, 6);
      expect(Number(pointer?.getAttribute("y2"))).toBeCloseTo(y, 6);
      expect(screen.getByText("3")).toBeTruthy();
      cleanup();
    }
  });

  it("shows no pointer at the first bend, and the new bend down in the air", () => {
    const { container } = render(<RollClock points={null} previous={0} down size={100} />);
    expect(container.querySelectorAll("text")).toHaveLength(0);
    expect(label()).toContain("this bend goes down");
    expect(container.querySelector("path")?.getAttribute("transform")).toContain("rotate(180");
  });
});

describe("the shoe", () => {
  const mark = { reference: "arrow", hook: "A" as const, at: { inches: 20, reads: "20" }, on_pipe: true };
  const lineOf = (container: Element) => Number(container.querySelector("line")?.getAttribute("x1"));

  it("sets the mark on the reference: further references stand to scale toward the heel", () => {
    const at = (reference: string) => {
      const { container } = render(
        <ShoeDrawing shoe={shoe} mark={{ ...mark, reference }} angle={90} width={400} />,
      );
      const x = lineOf(container);
      cleanup();
      return x;
    };
    const scale = Math.min(22, 120 / shoe.radius);
    for (const [reference, distance] of Object.entries(shoe.references))
      expect(at(reference) - at("arrow")).toBeCloseTo(distance * scale, 6);
  });

  it("is mirrored for a hook toward B, its words are not", () => {
    const { container } = render(
      <ShoeDrawing shoe={shoe} mark={{ ...mark, hook: "B" }} angle={45} width={400} />,
    );
    expect(label()).toContain("hook toward end B");
    expect(container.querySelector("g")?.getAttribute("transform")).toContain("scale(-1 1)");
    expect(screen.getByText("mark 20").closest("g[transform]")).toBeNull();
  });

  it("names all references where none is chosen", () => {
    render(<ShoeDrawing shoe={shoe} angle={90} width={400} />);
    for (const reference of Object.keys(shoe.references)) {
      expect(label()).toContain(reference);
      expect(screen.getByText(reference)).toBeTruthy();
    }
  });
});

describe("shoe and pipe from the side", () => {
  const shown = (number: number, at: "start" | "end") => {
    const bend = made.sheet.bends[number] ?? first;
    return render(
      <InTheShoeDrawing
        drawn={bend.in_the_shoe}
        shoe={shoe}
        hook={bend.use.hook}
        where={bend.where}
        angle={bend.angle}
        at={at}
        width={398}
        tall={210}
      />,
    ).container;
  };

  it("keeps every bend of the stick, at its start and its end, within the picture", () => {
    made.sheet.bends.forEach((_, number) => {
      for (const at of ["start", "end"] as const) {
        const svg = shown(number, at).querySelector("svg") as SVGSVGElement;
        const [, , width = 0, height = 0] = (svg.getAttribute("viewBox") ?? "").split(" ").map(Number);
        for (const path of svg.querySelectorAll("path:not(:first-of-type)")) {
          const spots = [...(path.getAttribute("d") ?? "").matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)];
          for (const [, x, y] of spots) {
            expect(Number(x)).toBeGreaterThanOrEqual(-30);
            expect(Number(x)).toBeLessThanOrEqual(width + 30);
            expect(Number(y)).toBeLessThanOrEqual(height + 30);
          }
        }
        expect(label()).toContain(`at the ${at} of the bend`);
        cleanup();
      }
    });
  });

  it("names both ends of the pipe", () => {
    shown(0, "end");
    expect(screen.getAllByText(/^[AB]$/).map((one) => one.textContent)).toEqual(["A", "B"]);
  });
});
