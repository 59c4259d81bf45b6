import type { CorrectIn, RunDocument, Step, Tape } from "@/api/types";
import type { Choice } from "@/ui/select";
import { clauseWord } from "@/words/clauses";
import { t } from "@/words/trade";
import { choiceOf, kindOf } from "./kinds";

export type Heading = RunDocument["start"]["heading"];
export type TradeSize = RunDocument["trade_size"];
export type Material = NonNullable<RunDocument["material"]>;
export type PipeEnd = NonNullable<CorrectIn["end_a"]>;

const WAYS: Heading[] = ["up", "down", "left", "right", "out", "in"];

export const HEADINGS: Choice<Heading>[] = WAYS.map((way) => choiceOf(way, `direction.${way}`));

const OPPOSITE: Record<Heading, Heading> = {
  up: "down",
  down: "up",
  left: "right",
  right: "left",
  out: "in",
  in: "out",
};

/** The four directions across one. */
export const sidesOf = (heading: Heading): Heading[] =>
  WAYS.filter((side) => side !== heading && side !== OPPOSITE[heading]);

type RackHow = NonNullable<Step["rack"]>["how"];

/** How the pipes of a rack can take a kind of step, the usual way first. */
export const rackWays = (kind: Step["kind"]): Choice<RackHow>[] =>
  kindOf(kind).rack.map((how) => {
    const own = `choice.rack.${kind}.${how}`;
    return choiceOf(how, clauseWord(own) ? own : `choice.rack.${how}`);
  });

export const ANGLES = ["10", "15", "22 1/2", "30", "45", "60"];

export const TRADE_SIZES: Choice<TradeSize>[] = (
  ["1/2", "3/4", "1", "1-1/4", "1-1/2", "2", "2-1/2", "3", "3-1/2", "4"] as const
).map((value) => ({ value, label: value }));

export const MATERIALS: Choice<Material>[] = (["EMT", "IMC", "rigid"] as const).map((value) => ({
  value,
  label: value,
}));

const ENDS: Record<PipeEnd, string> = {
  factory: t("end.factory"),
  cut: t("end.cut"),
  threaded: t("end.threaded"),
  rough: t("end.rough"),
  bent: t("end.bent"),
};

/** How a pipe's end is, in words. */
export const endOf = (end: PipeEnd): string => ENDS[end];

export const PIPE_ENDS: Choice<PipeEnd>[] = (Object.keys(ENDS) as PipeEnd[]).map((value) => ({
  value,
  label: endOf(value),
}));

type Joint = NonNullable<RunDocument["joints"]>;

const HEAVY: Choice<Joint>[] = [
  { value: "threaded", label: t("joint.threaded") },
  { value: "threadless", label: t("joint.threadless"), hint: t("joint.threadless.hint") },
];

/** How pipe is joined to couplings and connectors, by material; the usual way first, as the server has it. */
export const JOINTS: Record<Material, Choice<Joint>[]> = {
  EMT: [
    { value: "set-screw", label: t("joint.set_screw") },
    { value: "compression", label: t("joint.compression"), hint: t("joint.compression.hint") },
  ],
  IMC: HEAVY,
  rigid: HEAVY,
};

export const TAPES: Choice<Tape>[] = (["1/16", "1/8", "1/32", "1 mm"] as const).map((value) => ({
  value,
  label: value,
}));

export const READINGS: Choice<"inches" | "feet">[] = [
  { value: "inches", label: t("readings.inches") },
  { value: "feet", label: t("readings.feet") },
];
