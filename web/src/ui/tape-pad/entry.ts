/** What is typed with the pad, as text that is read like any other: figures joined by plus, less and again. */

export type Join = "+" | "less" | "again";
const JOINS = / (?:\+|less|again) /g;
const FIGURE = /^(?:(?<feet>\d+)' ?)?(?<whole>\d*(?:\.\d*)?)(?: ?(?<part>\d+\/\d+))?$/;
const MOST = 60;

interface Figure {
  feet: string;
  whole: string;
  part: string;
}

/** The text in front of the last figure, and that figure; none where it was typed otherwise. */
function lastOf(text: string): [before: string, last: string, figure: Figure | null] {
  const from = [...text.matchAll(JOINS)].at(-1);
  const at = from ? from.index + from[0].length : 0;
  const last = text.slice(at);
  const read = FIGURE.exec(last.trim())?.groups;
  return [
    text.slice(0, at),
    last,
    read ? { feet: read.feet ?? "", whole: read.whole ?? "", part: read.part ?? "" } : null,
  ];
}

const written = ({ feet, whole, part }: Figure): string =>
  [feet && `${feet}'`, whole, part].filter(Boolean).join(" ");

function changed(
  text: string,
  change: (figure: Figure) => Figure,
  otherwise: (last: string) => string,
): string {
  const [before, last, figure] = lastOf(text);
  const next = before + (figure ? written(change(figure)) : otherwise(last));
  return next.length > MOST ? text : next;
}

/** A digit or a point at the end of the whole inches (or millimetres, or degrees); a fraction stays behind it. */
export const withDigit = (text: string, digit: string): string =>
  changed(
    text,
    (figure) => ({ ...figure, whole: figure.whole === "0" && digit !== "." ? digit : figure.whole + digit }),
    (last) => last + digit,
  );

/** The fraction of the last figure, picked off the ruler; the same once more takes it off. */
export const withPart = (text: string, part: string): string =>
  changed(
    text,
    (figure) => ({ ...figure, part: figure.part === part ? "" : part }),
    (last) => `${last} ${part}`.trim(),
  );

/** What was whole becomes feet; inches follow. */
export const withFeet = (text: string): string =>
  changed(
    text,
    (figure) => (figure.feet || !figure.whole ? figure : { ...figure, feet: figure.whole, whole: "" }),
    (last) => last,
  );

/** Another figure to be added, taken away, or read again; in place of a join that has none yet. */
export function joinedBy(text: string, join: Join): string {
  const [before, last] = lastOf(text);
  const begun = last.trim() ? text : before.replace(/ (?:\+|less|again) $/, "");
  return begun.trim() ? `${begun.trimEnd()} ${join} ` : text;
}

/** The last that was typed taken back: the fraction, a digit, the feet, or the join. */
export function shortened(text: string): string {
  const [before, last, figure] = lastOf(text);
  if (!last.trim()) return before.replace(/ (?:\+|less|again) $/, "");
  if (!figure) return before + last.slice(0, -1).trimEnd();
  if (figure.part) return before + written({ ...figure, part: "" });
  if (figure.whole) return before + written({ ...figure, whole: figure.whole.slice(0, -1) });
  return before + figure.feet;
}

/** The fraction that stands in the last figure. */
export const partOf = (text: string): string => lastOf(text)[2]?.part ?? "";
