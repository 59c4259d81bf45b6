import type { RunDocument, Step, Tape } from "@/api/types";
import { usual } from "@/draw/fractions";
import type { Heading } from "@/trade/words";
import { t } from "@/words/layout";

type Kind = Step["kind"];

/** The kinds of step by their names in the trade, the most usual first, each with what it serves for. */
export const MET: { kind: Kind; called: string; met: string; profile: string }[] = [
  { kind: "bend", called: t("a90"), met: t("atAWall"), profile: "M3 17H18Q25 17 25 10V3" },
  { kind: "offset", called: t("offset"), met: t("toAnotherLevel"), profile: "M1 17H9L19 6H33" },
  {
    kind: "saddle3",
    called: t("saddleOverAPipe"),
    met: t("threeBends"),
    profile: "M1 17H6L14 9L20 9L28 17H33",
  },
  {
    kind: "saddle4",
    called: t("saddleOverSomethingWide"),
    met: t("fourBends"),
    profile: "M1 17H4L9 8H25L30 17H33",
  },
  {
    kind: "box_offset",
    called: t("boxOffset"),
    met: t("intoAKnockout"),
    profile: "M2 3V19M2 11H8L13 15H33",
  },
  {
    kind: "kick90",
    called: t("kicked90"),
    met: t("aCornerThatRises"),
    profile: "M1 18H10L20 14Q26 12 26 6V2",
  },
  {
    kind: "rolled",
    called: t("rolledOffset"),
    met: t("upAndSideways"),
    profile: "M1 18H8L22 5H33M8 18L22 12",
  },
  {
    kind: "slope",
    called: t("offsetOfTwoAngles"),
    met: t("ontoASlope"),
    profile: "M1 18H8L17 10L33 4",
  },
  { kind: "sweep", called: t("sweep"), met: t("wideBendOfShots"), profile: "M2 18L9 17L16 14L21 9L24 2" },
  {
    kind: "coupling",
    called: t("coupling"),
    met: t("thatMustBeHere"),
    profile: "M1 11H13M21 11H33M13 7H21V15H13Z",
  },
  {
    kind: "pull_point",
    called: t("pullPoint2"),
    met: t("toPullWireAt"),
    profile: "M1 11H11M23 11H33M11 5H23V17H11Z",
  },
];

const ACROSS: Record<Heading, Heading> = {
  up: "right",
  down: "right",
  left: "down",
  right: "down",
  out: "right",
  in: "right",
};

/** Something to get over, its figures still to be measured. */
export const newThing = (shape: "box" | "round", tape?: Tape) => ({
  shape,
  name: "",
  height: "",
  clear: usual("1/2", "13", tape),
});

/** A step to begin with: turned to a direction across the pipe, its numbers still to be measured. */
export function newStep(kind: Kind, document: RunDocument, index: number): Step {
  const before = headingBefore(document, index);
  const across = ACROSS[before];
  const { tape } = document;
  const outward: Heading = before === "out" || before === "in" ? across : "out";
  switch (kind) {
    case "bend":
      return { kind, turn: across, angle: "90", to: "back", at: "", stand_off: "0", next_from: "back" };
    case "offset":
      return { kind, toward: across, rise: "", angle: "30", ref: "raised_by", at: "" };
    case "slope":
      return { kind, toward: across, rise: "", angle: "30", second_angle: "15", ref: "starts_at", at: "" };
    case "rolled":
      return {
        kind,
        toward: outward,
        rise: "",
        roll_toward: across,
        roll: "",
        angle: "30",
        ref: "raised_by",
        at: "",
      };
    case "box_offset":
      return {
        kind,
        surface: outward === "out" ? "in" : across,
        knockout: "",
        stand_off: "0",
        straight: usual("2", "50", tape),
        angle: "10",
        end: index === 0 ? "start" : "end",
      };
    case "saddle3":
      return { kind, toward: outward, over: newThing("round", tape), angle: "45", at: "" };
    case "saddle4":
      return {
        kind,
        toward: outward,
        over: newThing("box", tape),
        angle: "30",
        near: "",
        width: "",
        margin: usual("1/2", "13", tape),
      };
    case "kick90":
      return {
        kind,
        turn: across,
        to: "back",
        at: "",
        toward: outward,
        rise: "",
        kick_back: "",
        when: "before",
      };
    case "sweep":
      return {
        kind,
        turn: across,
        to: "back",
        at: "",
        radius: usual("24", "600", tape),
        shots: 9,
        spacing: "exact",
      };
    case "coupling":
      return { kind, at: "" };
    case "pull_point":
      return { kind, name: "", at: "", width: usual("4", "100", tape) };
  }
}

/** The heading as the person named it last; only to propose a direction. */
function headingBefore(document: RunDocument, index: number): Heading {
  const turns = document.steps
    .slice(0, index)
    .flatMap((step) => ("turn" in step && !step.muted ? [step.turn] : []));
  return turns.at(-1) ?? document.start.heading;
}
