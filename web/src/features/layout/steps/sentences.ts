import type { Step } from "@/api/types";
import type { Word } from "@/trade/glossary";
import {
  ANGLES,
  BACK_OR_CENTRE,
  BOX_ENDS,
  KICK_BY,
  KICK_WHEN,
  MEASURED_TO,
  NEXT_FROM,
  OFFSET_REFERENCES,
  SADDLE_ANGLES,
  SHOT_SPACING,
  SHOTS_BY,
} from "@/trade/words";
import type { Choice } from "@/ui/select";
import { t } from "@/words/layout";

/** A part of a sentence: plain words, a word of the trade, or something of the step that can be changed. */
export type Part =
  | string
  | { show: "term"; word: Word; says: string }
  | { show: "length" | "direction" | "name"; field: string; from?: string }
  | { show: "angle"; field: string; steps: string[]; passedOver?: boolean }
  | { show: "choice"; field: string; choices: Choice<string>[]; from: string }
  | { show: "rise" }
  | { show: "radius" }
  | { show: "window" }
  | { show: "lever tool" }
  | { show: "either"; by: string; choices: Choice<string>[] }
  | { show: "when"; test: (step: Record<string, unknown>, chosen: boolean) => boolean; parts: Part[] };

const length = (field: string, from?: string): Part => ({ show: "length", field, ...(from ? { from } : {}) });
const direction = (field: string): Part => ({ show: "direction", field });
const angle = (field = "angle", steps = ANGLES): Part => ({ show: "angle", field, steps });
const term = (word: Word, says: string): Part => ({ show: "term", word, says });
const choice = (field: string, choices: Choice<string>[]): Part => ({
  show: "choice",
  field,
  choices,
  from: choices[0]?.value ?? "",
});
const isNinety = (step: Record<string, unknown>): boolean =>
  ["90", 90, undefined].includes(step.angle as string);

/** How an offset ends: its angle, and where it stands on the leg. */
const atAngleAndPlace: Part[] = [
  t("at2"),
  angle(),
  ", ",
  choice("ref", OFFSET_REFERENCES),
  " ",
  length("at"),
];

/** What a turn is bent to, where it is no 90 or can be made another. */
const turnedTo: Part[] = [
  {
    show: "when",
    test: (step, chosen) => chosen || !isNinety(step),
    parts: [
      t("bentTo"),
      { show: "angle", field: "angle", steps: ["30", "45", "60", "90"], passedOver: true },
    ],
  },
];

/** Each kind of step as a sentence, its numbers in the order in which they are measured. */
export const SENTENCES: Record<Step["kind"], Part[]> = {
  bend: [
    { show: "when", test: isNinety, parts: [term("90", "90")] },
    { show: "when", test: (step) => !isNinety(step), parts: [t("bend")] },
    " ",
    direction("turn"),
    ", ",
    choice("to", MEASURED_TO),
    t("at2"),
    length("at"),
    { show: "window" },
    {
      show: "when",
      test: (step) => step.to === "wall",
      parts: [t("standingOff"), length("stand_off", "0")],
    },
    ...turnedTo,
    {
      show: "when",
      test: (step, chosen) => chosen || (step.next_from ?? "back") !== "back",
      parts: [t("nextLegMeasuredFrom"), choice("next_from", NEXT_FROM)],
    },
  ],
  offset: [term("offset", t("offset")), " ", direction("toward"), " ", { show: "rise" }, ...atAngleAndPlace],
  slope: [
    term("offset of two angles", t("offsetOfTwoAngles")),
    " ",
    direction("toward"),
    t("by"),
    length("rise"),
    t("at2"),
    angle(),
    t("then"),
    angle("second_angle"),
    ", ",
    choice("ref", OFFSET_REFERENCES),
    " ",
    length("at"),
  ],
  rolled: [
    term("rolled offset", t("rolledOffset")),
    " ",
    direction("toward"),
    t("by"),
    length("rise"),
    t("and"),
    direction("roll_toward"),
    t("by"),
    length("roll"),
    ...atAngleAndPlace,
  ],
  box_offset: [
    term("box offset", t("boxOffset")),
    t("atThe"),
    choice("end", BOX_ENDS),
    t("boxKnockout"),
    length("knockout"),
    t("offTheSurfaceWhichLies"),
    direction("surface"),
    t("strapOff"),
    length("stand_off", "0"),
    t("straightKept"),
    length("straight", "2"),
    ", ",
    { show: "lever tool" },
  ],
  saddle3: [
    term("three-bend saddle", t("threeBendSaddle")),
    " ",
    direction("toward"),
    " ",
    { show: "rise" },
    t("at2"),
    angle("angle", SADDLE_ANGLES),
    t("centreAt"),
    length("at"),
    {
      show: "when",
      test: (step) => (step.over as { shape?: string } | null | undefined)?.shape === "box",
      parts: [", ", length("width"), t("wide")],
    },
  ],
  saddle4: [
    term("four-bend saddle", t("fourBendSaddle")),
    " ",
    direction("toward"),
    " ",
    { show: "rise" },
    t("at2"),
    angle(),
    t("nearEdgeAt"),
    length("near"),
    ", ",
    length("width"),
    t("wide2"),
    length("margin", "0"),
    t("keptToEachSide"),
    {
      show: "when",
      test: (step, chosen) => chosen || !["0", 0, undefined, null, ""].includes(step.beyond as string),
      parts: [t("beyondIt"), length("beyond", "0"), t("higherAMinusLower")],
    },
  ],
  kick90: [
    term("90", "90"),
    " ",
    direction("turn"),
    ", ",
    choice("to", BACK_OR_CENTRE),
    t("at2"),
    length("at"),
    { show: "window" },
    ", ",
    term("kick", "kicked"),
    " ",
    direction("toward"),
    t("by"),
    length("rise"),
    ", ",
    { show: "either", by: t("kickBy"), choices: KICK_BY },
    " ",
    choice("when", KICK_WHEN),
  ],
  sweep: [
    term("sweep", t("sweep")),
    " ",
    direction("turn"),
    ", ",
    choice("to", BACK_OR_CENTRE),
    t("at2"),
    length("at"),
    { show: "window" },
    ", ",
    { show: "radius" },
    ", ",
    { show: "either", by: t("shotsBy"), choices: SHOTS_BY },
    ", ",
    choice("spacing", SHOT_SPACING),
    ...turnedTo,
  ],
  coupling: [term("coupling", t("coupling")), t("at2"), length("at")],
  pull_point: [
    term("pull point", t("pullPoint2")),
    " ",
    { show: "name", field: "name" },
    t("at2"),
    length("at"),
    ", ",
    length("width", "0"),
    t("wide"),
  ],
};
