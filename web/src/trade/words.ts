import type { BendStep, KickStep, OffsetStep, RunDocument, Step, SweepStep, Tape } from "@/api/types";
import type { Choice } from "@/ui/select";
import { t } from "@/words/trade";

export type Heading = RunDocument["start"]["heading"];
export type TradeSize = RunDocument["trade_size"];
export type Material = NonNullable<RunDocument["material"]>;

export const HEADINGS: Choice<Heading>[] = [
  { value: "up", label: t("up") },
  { value: "down", label: t("down") },
  { value: "left", label: t("left") },
  { value: "right", label: t("right") },
  { value: "out", label: t("out"), hint: t("offTheWallTowardYou") },
  { value: "in", label: t("in"), hint: t("intoTheWallAway") },
];

export const MEASURED_TO: Choice<NonNullable<BendStep["to"]>>[] = [
  { value: "back", label: t("back"), hint: t("whereThePipesBackTouches") },
  { value: "centre", label: t("centre"), hint: t("ofThePipe") },
  { value: "wall", label: t("wall"), hint: t("pipeStandsOffIt") },
];

export const BACK_OR_CENTRE = MEASURED_TO.slice(0, 2) as Choice<"back" | "centre">[];

export const NEXT_FROM: Choice<NonNullable<BendStep["next_from"]>>[] = [
  { value: "back", label: t("itsBack") },
  { value: "centre", label: t("itsCentre") },
];

export const OFFSET_REFERENCES: Choice<NonNullable<OffsetStep["ref"]>>[] = [
  { value: "raised_by", label: t("allTheWayOverBy"), hint: t("doneWhereTheThingBegins") },
  { value: "starts_at", label: t("startingAt"), hint: t("firstBendBeginsThere") },
  { value: "centred_at", label: t("centredAt"), hint: t("halfwayOverThere") },
];

export const KICK_WHEN: Choice<NonNullable<KickStep["when"]>>[] = [
  { value: "before", label: t("beforeThe90") },
  { value: "after", label: t("afterThe90") },
];

export const KICK_BY: Choice<"kick_back" | "kick_angle">[] = [
  { value: "kick_back", label: t("setBack"), hint: t("fromTheKickToThe") },
  { value: "kick_angle", label: t("atAnAngleOf") },
];

export const SHOTS_BY: Choice<"shots" | "shot_angle">[] = [
  { value: "shots", label: t("numberOfShots") },
  { value: "shot_angle", label: t("degreesAShot"), hint: t("atMostAllShotsAlike") },
];

export const SHOT_SPACING: Choice<NonNullable<SweepStep["spacing"]>>[] = [
  { value: "exact", label: t("halfAStepAtEach"), hint: t("theExactPolygon") },
  { value: "ends", label: t("firstAndLastOnThe"), hint: t("comesOutLarger") },
];

export const BOX_ENDS: Choice<"start" | "end">[] = [
  { value: "start", label: t("start") },
  { value: "end", label: t("end") },
];

/** How the rise of an offset or saddle is given: measured, or by what it gets over. */
export const RISE_BY: Choice<"rise" | "box" | "round">[] = [
  { value: "rise", label: t("by") },
  { value: "round", label: t("overSomethingRound"), hint: t("itsHeightAndClearance") },
  { value: "box", label: t("overSomethingFlat"), hint: t("itsHeightAndClearance") },
];

type RackHow = NonNullable<Step["rack"]>["how"];

/** How the pipes of a rack take a step, by its kind; the usual way first, as the server has it. */
export const RACK_WAYS: Partial<Record<Step["kind"], Choice<RackHow>[]>> = {
  bend: [
    { value: "equal", label: t("roundWithEqualRadii"), hint: t("sameShoeCornersShifted") },
    { value: "sweep", label: t("roundAboutOneCentre"), hint: t("theOthersSweepAroundThis") },
    { value: "kicks", label: t("withGrowingKicks"), hint: t("fromLyingFlatToStanding") },
  ],
  sweep: [
    { value: "sweep", label: t("roundAboutOneCentre"), hint: t("theGapStaysTheSame") },
    { value: "equal", label: t("roundWithEqualRadii"), hint: t("cornersShifted") },
  ],
  offset: [
    { value: "stagger", label: t("staggered"), hint: t("theGapStaysTheSame") },
    { value: "together", label: t("allAtOnePlace"), hint: t("closerOnTheSlope") },
  ],
};
RACK_WAYS.rolled = RACK_WAYS.offset ?? [];
RACK_WAYS.saddle4 = RACK_WAYS.offset ?? [];

export const ANGLES = ["10", "15", "22 1/2", "30", "45", "60"];
export const SADDLE_ANGLES = ["22 1/2", "30", "45", "60"];

export const TRADE_SIZES: Choice<TradeSize>[] = (
  ["1/2", "3/4", "1", "1-1/4", "1-1/2", "2", "2-1/2", "3", "3-1/2", "4"] as const
).map((value) => ({ value, label: value }));

export const MATERIALS: Choice<Material>[] = (["EMT", "IMC", "rigid"] as const).map((value) => ({
  value,
  label: value,
}));

type Joint = NonNullable<RunDocument["joints"]>;

const HEAVY: Choice<Joint>[] = [
  { value: "threaded", label: t("threaded") },
  { value: "threadless", label: t("threadless"), hint: t("clampedOnNoThreadIs") },
];

/** How pipe is joined to couplings and connectors, by material; the usual way first, as the server has it. */
export const JOINTS: Record<Material, Choice<Joint>[]> = {
  EMT: [
    { value: "set-screw", label: t("setScrew") },
    { value: "compression", label: t("compression"), hint: t("rainTightOnesWhereIt") },
  ],
  IMC: HEAVY,
  rigid: HEAVY,
};

export const TAPES: Choice<Tape>[] = (["1/16", "1/8", "1/32", "1 mm"] as const).map((value) => ({
  value,
  label: value,
}));

export const READINGS: Choice<"inches" | "feet">[] = [
  { value: "inches", label: t("inches") },
  { value: "feet", label: t("feetAndInches") },
];

export const STEP_WORDS: Record<Step["kind"], string> = {
  bend: "90",
  offset: t("offset"),
  slope: t("offsetOfTwoAngles"),
  rolled: t("rolledOffset"),
  box_offset: t("boxOffset"),
  saddle3: t("threeBendSaddle"),
  saddle4: t("fourBendSaddle"),
  kick90: t("n90WithAKick"),
  sweep: t("sweep"),
  coupling: t("coupling"),
  pull_point: t("pullPoint"),
};

/** How a field is called for those who hear the screen. */
export const FIELD_WORDS: Record<string, string> = {
  at: t("measure"),
  at_least: t("atLeast"),
  at_most: t("atMost"),
  rise: t("rise"),
  angle: t("angle"),
  second_angle: t("secondAngle"),
  stand_off: t("standOff"),
  roll: t("roll"),
  near: t("nearEdge"),
  width: t("width"),
  margin: t("margin"),
  beyond: t("higherBeyondIt"),
  kick_back: t("setback"),
  kick_angle: t("kickAngle"),
  knockout: t("knockout"),
  straight: t("straightKept"),
  stamped: t("riseThatTheLeverTool"),
  stamped_length: t("lengthOfItsOffset"),
  radius: t("radius"),
  shots: t("shots"),
  shot_angle: t("degreesAShot"),
  name: t("name"),
  ref: t("placedBy"),
  to: t("measuredTo"),
  next_from: t("nextLegMeasuredFrom"),
  when: t("kickBeforeOrAfter"),
  spacing: t("spacingOfTheShots"),
  end: t("whichBox"),
  "around.radius": t("radiusOfThePipeThat"),
  "around.gap": t("gapToThePipeThat"),
  "over.height": t("height"),
  "over.clear": t("clearance"),
  "over.stand_off": t("pipeOffBeforeIt"),
  "over.reach": t("reachToEachSide"),
  "over.name": t("thingsName"),
};
