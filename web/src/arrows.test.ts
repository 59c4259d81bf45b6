import { expect, test } from "vitest";

/** The folders of the front end, each may use those before it. */
const ORDER = ["words", "api", "draw", "ui", "trade", "devices", "outbox", "shell", "features", "app"];
const sources = import.meta.glob("./**/*.{ts,tsx}", { query: "?raw", import: "default", eager: true });

const folderOf = (path: string) => path.replace(/^\.?\/|^@\//, "").split("/")[0] ?? "";

test("arrows between the folders point one way", () => {
  const up: string[] = [];
  for (const [path, text] of Object.entries(sources as Record<string, string>)) {
    // What is shown to the tests may come from above.
    if (path.includes(".test.") || path.startsWith("./test/")) continue;
    const from = ORDER.indexOf(folderOf(path));
    for (const [, target = ""] of text.matchAll(/from "(@\/[^"]+)"/g)) {
      if (from >= 0 && ORDER.indexOf(folderOf(target)) > from) up.push(`${path} → ${target}`);
    }
  }
  expect(up).toEqual([]);
});

test("a feature uses no other feature but the bin", () => {
  const across: string[] = [];
  for (const [path, text] of Object.entries(sources as Record<string, string>)) {
    const own = path.match(/^\.\/features\/([^/]+)\//)?.[1];
    for (const [, other] of text.matchAll(/from "@\/features\/([^/]+)\//g)) {
      if (own && other !== own && other !== "bin") across.push(`${path} → ${other}`);
    }
  }
  expect(across).toEqual([]);
});
