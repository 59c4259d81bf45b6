import ts from "typescript";
import { describe, expect, test } from "vitest";

type Sentences = Record<string, string>;
interface Said {
  where: string;
  view: string;
  keys: string[];
  figures: string[] | null;
}

const raw = import.meta.glob<string>(
  ["../**/*.ts", "../**/*.tsx", "!../**/*.test.*", "!../api/schema.d.ts"],
  {
    query: "?raw",
    import: "default",
    eager: true,
  },
);
const catalogues = import.meta.glob<Sentences>("./*/*.json", { import: "default", eager: true });

const inLanguage = (language: string): [string, Sentences][] =>
  Object.entries(catalogues)
    .filter(([file]) => file.startsWith(`./${language}/`))
    .map(([file, sentences]) => [file.replace(/^.*\/|\.json$/g, ""), sentences]);
const english = Object.fromEntries(inLanguage("en"));

const figuresOf = (sentence: string) =>
  [...sentence.matchAll(/\{\{(\w+)\}\}/g)].map((found) => found[1] ?? "");
const baseOf = (key: string) => key.replace(/(_ordinal)?_(one|two|few|other)$/, "");
const formsOf = (sentences: Sentences, key: string) =>
  Object.keys(sentences).filter((form) => baseOf(form) === key);

/** The names of an object's parts; unknown where they are not written out. */
function namesIn(node: ts.Node): string[] | null {
  if (!ts.isObjectLiteralExpression(node)) return null;
  const named = node.properties.filter((property) => !ts.isSpreadAssignment(property));
  return named.length < node.properties.length ? null : named.map((one) => one.name?.getText() ?? "");
}

/** What stands in the slots of a pattern whose sentence this is; nothing of any other call. */
function slotsBeside(call: ts.Node): string[] | null {
  let node: ts.Node = call;
  while (node.parent && !ts.isJsxAttribute(node) && !ts.isStatement(node)) node = node.parent;
  if (!ts.isJsxAttribute(node) || node.name.getText() !== "sentence") return [];
  const slots = node.parent.properties.find(
    (one) => ts.isJsxAttribute(one) && one.name.getText() === "slots",
  );
  const given = slots && ts.isJsxAttribute(slots) ? slots.initializer : undefined;
  return given && ts.isJsxExpression(given) && given.expression ? namesIn(given.expression) : null;
}

/** Each call of a catalogue's `t`: the view, its key or the two of a choice, and the figures where they are named. */
function saidIn([file, source]: [string, string]): Said[] {
  const view = /import \{ t \} from "@\/words\/(\w+)"/.exec(source)?.[1];
  if (!view) return [];
  const found: Said[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) && ts.isIdentifier(node.expression) && node.expression.text === "t") {
      const [key, figures] = node.arguments;
      const keys: string[] = [];
      const choices = (one: ts.Node | undefined): void => {
        if (one && ts.isStringLiteral(one)) keys.push(one.text);
        if (one && ts.isConditionalExpression(one)) [one.whenTrue, one.whenFalse].map(choices);
      };
      choices(key);
      const names = figures ? namesIn(figures) : slotsBeside(node);
      found.push({ where: file, view, keys, figures: names });
    }
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX));
  return found;
}

// Fewer words are a label, which may be the same in two places and differ in another language.
const SEVERAL = 8;
const TOLD = ["label", "aria-label", "title", "placeholder", "says", "alt"];
const WORDS = /(?!Crelda\b)\b[A-Za-z]{2,}/;

/** What a component shows that stands in it as it is: text between tags, and attributes that are read or heard. */
function literalsIn([file, source]: [string, string]): string[] {
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    const told = ts.isJsxAttribute(node) && TOLD.includes(node.name.getText()) ? node.initializer : undefined;
    const text = ts.isJsxText(node) ? node.text : told && ts.isStringLiteral(told) ? told.text : "";
    if (WORDS.test(text)) found.push(`${file}: ${text.trim()}`);
    ts.forEachChild(node, visit);
  };
  if (file.endsWith(".tsx"))
    visit(ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX));
  return found;
}

const said = Object.entries(raw).flatMap(saidIn);

describe("The interface's sentences", () => {
  test("each that is said brings the figures that its sentence names", () => {
    const wrong = said.flatMap(({ where, view, keys, figures }) =>
      keys.flatMap((key) =>
        formsOf(english[view] ?? {}, key)
          .flatMap((form) => figuresOf(english[view]?.[form] ?? ""))
          .filter((name) => figures && !figures.includes(name))
          .map((name) => `${where}: ${view}.${key} wants ${name}`),
      ),
    );
    expect(wrong).toEqual([]);
  });

  test("each of a catalogue is said somewhere", () => {
    const used = new Set(said.flatMap(({ view, keys }) => keys.map((key) => `${view}.${key}`)));
    const silent = Object.entries(english)
      // Said by keys that are put together; those of the clause table are held to it where it is made.
      .filter(([view]) => !["counts", "clauses"].includes(view))
      .flatMap(([view, sentences]) => Object.keys(sentences).map((key) => `${view}.${baseOf(key)}`))
      .filter((key) => !used.has(key));
    expect(silent).toEqual([]);
  });

  test("none of several words stands twice", () => {
    const keys = new Map<string, string[]>();
    for (const [view, sentences] of Object.entries(english).filter(([view]) => view !== "clauses"))
      for (const [key, sentence] of Object.entries(sentences))
        if (sentence.split(" ").length >= SEVERAL)
          keys.set(sentence, [...(keys.get(sentence) ?? []), `${view}.${key}`]);
    expect([...keys.values()].filter((one) => one.length > 1)).toEqual([]);
  });

  test("none stands in the code", () => {
    expect(Object.entries(raw).flatMap(literalsIn)).toEqual([]);
  });

  test("other languages name the same figures, and nothing that English has not", () => {
    for (const [view, sentences] of inLanguage("es"))
      for (const [key, sentence] of Object.entries(sentences)) {
        const own = english[view]?.[key];
        expect(own, `${view}.${key}`).toBeDefined();
        expect(figuresOf(sentence).sort(), `${view}.${key}`).toEqual(figuresOf(own ?? "").sort());
      }
  });
});
