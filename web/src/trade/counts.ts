import { t } from "@/words/counts";

/** What was typed, as a number where it is one; else as it stands, so that it can be told. */
export const asCount = (text: string): number =>
  /^\d{1,4}$/.test(text.trim()) ? Number(text) : (text as unknown as number);

export type Thing =
  | "bend"
  | "box"
  | "bushing"
  | "connector"
  | "coupling"
  | "end"
  | "job"
  | "newStick"
  | "person"
  | "photo"
  | "piece"
  | "run"
  | "sawCut"
  | "stick"
  | "strap"
  | "strut";

/** So many of a thing, in words. */
export const things = (count: number, thing: Thing): string => t(thing, { count });
