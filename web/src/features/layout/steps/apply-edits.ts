import type { Edit, RunDocument } from "@/api/types";

/** The document after a fix's edits; the one given stays as it is. */
export function applyEdits(document: RunDocument, edits: readonly Edit[]): RunDocument {
  return edits.reduce<unknown>(
    (part, edit) => applied(part, edit.place.split("."), edit),
    document,
  ) as RunDocument;
}

function applied(part: unknown, path: string[], edit: Edit): unknown {
  const [here = "", ...rest] = path;
  if (Array.isArray(part)) {
    const at = Number(here);
    if (rest.length) return part.with(at, applied(part[at], rest, edit));
    if (edit.op === "insert") return part.toSpliced(at, 0, edit.value);
    return edit.op === "remove" ? part.toSpliced(at, 1) : part.with(at, edit.value);
  }
  const fields = (part ?? {}) as Record<string, unknown>;
  return { ...fields, [here]: rest.length ? applied(fields[here], rest, edit) : edit.value };
}

/** What stands at a place of the document. */
export const written = (document: RunDocument, place: string): unknown =>
  place
    .split(".")
    .reduce<unknown>((part, key) => (part as Record<string, unknown> | undefined)?.[key], document);
