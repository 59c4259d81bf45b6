import type { BendStep, KickStep, OffsetStep, RunDocument, Step, SweepStep, Tape } from "@/api/types";
import type { Choice } from "@/ui/select";

export type Heading = RunDocument["start"]["heading"];
export type TradeSize = RunDocument["trade_size"];
export type Material = NonNullable<RunDocument["material"]>;

export const HEADINGS: Choice<Heading>[] = [
  { value: "up", label: "up" },
  { value: "down", label: "down" },
  { value: "left", label: "left" },
  { value: "right", label: "right" },
  { value: "out", label: "out", hint: "off the wall, toward you" },
  { value: "in", label: "in", hint: "into the wall, away" },
];

export const MEASURED_TO: Choice<NonNullable<BendStep["to"]>>[] = [
  { value: "back", label: "back", hint: "where the pipe's back touches" },
  { value: "centre", label: "centre", hint: "of the pipe" },
  { value: "wall", label: "wall", hint: "pipe stands off it" },
];

export const BACK_OR_CENTRE = MEASURED_TO.slice(0, 2) as Choice<"back" | "centre">[];

export const NEXT_FROM: Choice<NonNullable<BendStep["next_from"]>>[] = [
  { value: "back", label: "its back" },
  { value: "centre", label: "its centre" },
];

export const OFFSET_REFERENCES: Choice<NonNullable<OffsetStep["ref"]>>[] = [
  { value: "raised_by", label: "all the way over by", hint: "done where the thing begins" },
  { value: "starts_at", label: "starting at", hint: "first bend begins there" },
  { value: "centred_at", label: "centred at", hint: "halfway over there" },
];

export const KICK_WHEN: Choice<NonNullable<KickStep["when"]>>[] = [
  { value: "before", label: "before the 90" },
  { value: "after", label: "after the 90" },
];

export const KICK_BY: Choice<"kick_back" | "kick_angle">[] = [
  { value: "kick_back", label: "set back", hint: "from the kick to the 90" },
  { value: "kick_angle", label: "at an angle of" },
];

export const SHOTS_BY: Choice<"shots" | "shot_angle">[] = [
  { value: "shots", label: "number of shots" },
  { value: "shot_angle", label: "degrees a shot", hint: "at most; all shots alike" },
];

export const SHOT_SPACING: Choice<NonNullable<SweepStep["spacing"]>>[] = [
  { value: "exact", label: "half a step at each end", hint: "the exact polygon" },
  { value: "ends", label: "first and last on the ends", hint: "comes out larger" },
];

export const BOX_ENDS: Choice<"start" | "end">[] = [
  { value: "start", label: "start" },
  { value: "end", label: "end" },
];

/** How the rise of an offset or saddle is given: measured, or by what it gets over. */
export const RISE_BY: Choice<"rise" | "box" | "round">[] = [
  { value: "rise", label: "by" },
  { value: "round", label: "over something round", hint: "its height and clearance" },
  { value: "box", label: "over something flat", hint: "its height and clearance" },
];

type RackHow = NonNullable<Step["rack"]>["how"];

/** How the pipes of a rack take a step, by its kind; the usual way first, as the server has it. */
export const RACK_WAYS: Partial<Record<Step["kind"], Choice<RackHow>[]>> = {
  bend: [
    { value: "equal", label: "round with equal radii", hint: "same shoe, corners shifted" },
    { value: "sweep", label: "round about one centre", hint: "the others sweep around this 90" },
    { value: "kicks", label: "with growing kicks", hint: "from lying flat to standing" },
  ],
  sweep: [
    { value: "sweep", label: "round about one centre", hint: "the gap stays the same" },
    { value: "equal", label: "round with equal radii", hint: "corners shifted" },
  ],
  offset: [
    { value: "stagger", label: "staggered", hint: "the gap stays the same" },
    { value: "together", label: "all at one place", hint: "closer on the slope" },
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
  { value: "threaded", label: "threaded" },
  { value: "threadless", label: "threadless", hint: "clamped on; no thread is cut" },
];

/** How pipe is joined to couplings and connectors, by material; the usual way first, as the server has it. */
export const JOINTS: Record<Material, Choice<Joint>[]> = {
  EMT: [
    { value: "set-screw", label: "set-screw" },
    { value: "compression", label: "compression", hint: "rain-tight ones where it is wet" },
  ],
  IMC: HEAVY,
  rigid: HEAVY,
};

export const TAPES: Choice<Tape>[] = (["1/16", "1/8", "1/32", "1 mm"] as const).map((value) => ({
  value,
  label: value,
}));

export const READINGS: Choice<"inches" | "feet">[] = [
  { value: "inches", label: "inches" },
  { value: "feet", label: "feet and inches" },
];

export const STEP_WORDS: Record<Step["kind"], string> = {
  bend: "90",
  offset: "Offset",
  slope: "Offset of two angles",
  rolled: "Rolled offset",
  box_offset: "Box offset",
  saddle3: "Three-bend saddle",
  saddle4: "Four-bend saddle",
  kick90: "90 with a kick",
  sweep: "Sweep",
  coupling: "Coupling",
  pull_point: "Pull point",
};

/** How a field is called for those who hear the screen. */
export const FIELD_WORDS: Record<string, string> = {
  at: "measure",
  at_least: "at least",
  at_most: "at most",
  rise: "rise",
  angle: "angle",
  second_angle: "second angle",
  stand_off: "stand-off",
  roll: "roll",
  near: "near edge",
  width: "width",
  margin: "margin",
  beyond: "higher beyond it",
  kick_back: "setback",
  kick_angle: "kick angle",
  knockout: "knockout",
  straight: "straight kept",
  stamped: "rise that the lever tool stamps",
  stamped_length: "length of its offset",
  radius: "radius",
  shots: "shots",
  shot_angle: "degrees a shot",
  name: "name",
  ref: "placed by",
  to: "measured to",
  next_from: "next leg measured from",
  when: "kick before or after",
  spacing: "spacing of the shots",
  end: "which box",
  "around.radius": "radius of the pipe that it goes around",
  "around.gap": "gap to the pipe that it goes around",
  "over.height": "height",
  "over.clear": "clearance",
  "over.stand_off": "pipe off before it",
  "over.name": "thing's name",
};
