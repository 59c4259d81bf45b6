import type { MarksJudged, Picture, Plan, Point, RackPlan } from "@/api/types";
import type { Look, Scene, SceneBox, SceneConnector, SceneLabel } from "@/scene/model";
import { middleOf } from "@/scene/vectors";
import { t } from "@/words/layout";
import { isNumbered } from "./numbered";
import { besideOf } from "./picture-rack";

const RANK = { chosen: 0, end: 1, bend: 2, thing: 3, pipe: 4, figure: 5 };

interface Shown {
  plan: Plan;
  picture: Picture;
  rack: RackPlan | undefined;
  chosen: number | null;
  judged: MarksJudged | null;
  /** The measurements are written too. */
  withFigures: boolean;
  choose: (step: number) => void;
}

/** A run in space: its pipe with each bend, its boxes, what sits on it and what it goes over, and its rack. */
export function runScene(shown: Shown): Scene {
  const { picture, rack, plan } = shown;
  const radius = (plan.shoe?.diameter ?? 1) / 2;
  const ends = [picture.start, ...(picture.end ? [picture.end] : [])];
  return {
    pipes: [...own(shown, radius), ...beside(rack), ...made(shown, radius)],
    boxes: ends.flatMap(({ body }, i): SceneBox[] => (body ? [{ key: `box ${i}`, body, look: "box" }] : [])),
    connectors: ends.flatMap(({ point, heading, body }, i): SceneConnector[] =>
      body ? [{ point, into: i ? (heading.map((one) => -one) as Point) : heading, radius }] : [],
    ),
    fittings: [
      ...picture.fittings.map((one) => ({ ...one, radius })),
      ...besideOf(rack).flatMap((pipe) =>
        pipe.fittings.map((one) => ({ ...one, radius: pipe.diameter / 2 })),
      ),
    ],
    things: picture.things.map(({ step, body }) => ({
      key: `thing ${step}`,
      body,
      look: step === shown.chosen ? ("chosen" as const) : ("thing" as const),
      chooses: () => shown.choose(step),
    })),
    walls: picture.surfaces.map(({ corners }) => corners),
    bars: (rack?.struts ?? []).map((strut) => ({ key: `strut ${strut.at.inches}`, ends: strut.ends })),
    clashes: (rack?.gaps ?? [])
      .filter((gap) => !gap.kept)
      .map((gap) => ({ key: `gap ${gap.first} ${gap.second}`, at: gap.at, isStop: gap.least.inches < 0 })),
    labels: [...labelsOf(shown, ends)],
  };
}

/** Legs and arcs in turn: the arc of bend k + 1 is line 2k + 1. */
function own({ picture, plan, chosen, choose }: Shown, radius: number) {
  return picture.lines.map((points, at) => {
    const bend = at % 2 ? plan.bends[(at - 1) / 2] : undefined;
    const look: Look = !bend ? "pipe" : bend.step === chosen ? "chosen" : "bend";
    return { key: `line ${at}`, points, radius, look, ...(bend ? { chooses: () => choose(bend.step) } : {}) };
  });
}

const beside = (rack: RackPlan | undefined) =>
  besideOf(rack).flatMap((pipe) =>
    pipe.lines.map((points, at) => ({
      key: `pipe ${pipe.number} ${at}`,
      points,
      radius: pipe.diameter / 2,
      look: pipe.makeable ? ("beside" as const) : ("stop" as const),
    })),
  );

/** The pipe that laid marks would make, where they are not right. */
const made = ({ judged }: Shown, radius: number) =>
  judged && !judged.right
    ? judged.lines.map((points, at) => ({
        key: `made ${at}`,
        points,
        radius: radius * 0.6,
        look: "made" as const,
      }))
    : [];

function* labelsOf(shown: Shown, ends: Picture["start"][]): Iterable<SceneLabel> {
  const { picture, plan, rack, chosen, choose } = shown;
  for (const [i, { name, point, body }] of ends.entries()) {
    const letter = i ? "B" : "A";
    const at = body ? middleOf([...body.near, ...body.far]) : point;
    yield { key: letter, at, text: name ? `${letter} · ${name}` : letter, look: "name", rank: RANK.end };
  }
  for (const { number, point } of picture.bends) {
    const step = plan.bends[number - 1]?.step ?? 0;
    if (!isNumbered(plan, number, false)) continue;
    const isChosen = step === chosen;
    yield {
      key: `bend ${number}`,
      at: point,
      text: String(number),
      look: "number",
      rank: RANK.bend,
      isChosen,
      chooses: () => choose(step),
    };
  }
  for (const { step, name, body } of picture.things)
    yield {
      key: `name of ${step}`,
      at: middleOf([...body.near, ...body.far]),
      text: name || t("thing.unnamed"),
      look: "name",
      rank: RANK.thing,
      isChosen: step === chosen,
      chooses: () => choose(step),
    };
  for (const pipe of besideOf(rack)) {
    const end = pipe.lines.at(-1)?.at(-1);
    if (end)
      yield { key: `of ${pipe.number}`, at: end, text: String(pipe.number), look: "figure", rank: RANK.pipe };
  }
  if (shown.withFigures)
    for (const { place, start, end, reads } of picture.dimensions)
      yield {
        key: place,
        at: middleOf([start, end]),
        text: reads,
        look: "figure",
        rank: RANK.figure,
        span: [start, end],
      };
}

// Around what is framed, so that one sees where it is, in inches.
const AROUND = 14;

/** What is framed of a step: its bends and what they go over, with some of the run around. */
export function pointsOfStep(
  { picture, plan }: Pick<Shown, "picture" | "plan">,
  step: number,
): Point[] | null {
  const arcs = plan.bends
    .filter((bend) => bend.step === step)
    .flatMap((bend) => picture.lines[2 * bend.number - 1] ?? []);
  const thing = picture.things.find((one) => one.step === step);
  const points = [...arcs, ...(thing ? [...thing.body.near, ...thing.body.far] : [])];
  if (!points.length) return null;
  return points.flatMap(([x, y, z]): Point[] => [
    [x - AROUND, y - AROUND, z - AROUND],
    [x + AROUND, y + AROUND, z + AROUND],
  ]);
}
