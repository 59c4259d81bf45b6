import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import type { TapeLying } from "@/api/types";
import { TapeDrawing } from "./tape-lies";

const PICTURE = join(import.meta.dirname, "../../../docs/readings.svg");
const COLORS: Record<string, string> = {
  pipe: "#c3cad2",
  "pipe-edge": "#3d4650",
  ink: "#1c1f24",
  paper: "#ffffff",
  accent: "#5b1f52",
};
const SHOWN: [string, TapeLying, number][] = [
  ["corner", { kind: "corner", hook: "end_a", back: null, bends: [1] }, 45],
  ["back", { kind: "back", hook: "back", back: 1, bends: [2] }, 90],
  ["to end B", { kind: "end_b", hook: "back", back: 2, bends: [] }, 90],
  ["rise", { kind: "rise", hook: null, back: null, bends: [1, 2] }, 30],
  ["height", { kind: "height", hook: null, back: null, bends: [1, 2] }, 45],
  ["kick", { kind: "kick", hook: null, back: null, bends: [1, 2] }, 20],
];

function picture(): string {
  const parts = SHOWN.map(([name, lies, angle], at) => {
    const drawn = renderToStaticMarkup(<TapeDrawing lies={lies} angle={angle} />);
    const place = `x="${(at % 3) * 170 + 10}" y="${Math.floor(at / 3) * 120 + 26}" width="150" height="84"`;
    const label = `<text x="${(at % 3) * 170 + 14}" y="${Math.floor(at / 3) * 120 + 20}" font-size="14" font-family="sans-serif">${name}</text>`;
    return label + drawn.replace("<svg ", `<svg ${place} `).replace(/ class="[^"]*"/g, "");
  });
  const whole = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 520 240"><rect width="520" height="240" fill="#ffffff"/>${parts.join("\n")}</svg>\n`;
  return whole.replace(/var\(--([a-z-]+)\)/g, (_, name: string) => COLORS[name] ?? name);
}

describe("how a tape lies", () => {
  it("is drawn in the account of the trade as it is at the bench; UPDATE_DOCS=1 draws it anew", () => {
    if (process.env.UPDATE_DOCS) writeFileSync(PICTURE, picture());
    expect(readFileSync(PICTURE, "utf8")).toBe(picture());
  });

  it("hooks on the end that is told", () => {
    for (const [hook, sign] of [
      ["end_a", "A"],
      ["end_b", "B"],
    ] as const) {
      const lies: TapeLying = { kind: "corner", hook, back: null, bends: [1] };
      expect(renderToStaticMarkup(<TapeDrawing lies={lies} angle={30} />)).toContain(`>${sign}</text>`);
    }
  });
});
