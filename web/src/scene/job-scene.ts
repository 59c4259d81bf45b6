import type { JobSpace, Point, SpaceClash } from "@/api/types";
import { t } from "@/words/space";
import type { Scene, SceneLabel } from "./model";
import { middleOf } from "./vectors";

/** What is chosen in the job's space: a run by its key, a box by its key, or a clash by its number. */
export interface Chosen {
  of: "run" | "box" | "clash";
  key: string;
}

const RANK = { clash: 0, run: 1, box: 2, thing: 4 };

/** The whole job in space: every run that stands, its boxes, what is in the way, and where it comes too near. */
export function jobScene(space: JobSpace, chosen: Chosen | null, choose: (chosen: Chosen) => void): Scene {
  const standing = space.runs.filter((run) => run.stands);
  const isOf = (clash: SpaceClash, key: string) => clash.run === key || clash.other === key;
  const clashing = new Set(
    space.clashes.filter((clash) => clash.kind !== "knockout").flatMap((one) => [one.run, one.other]),
  );
  const picked = chosen?.of === "clash" ? space.clashes[Number(chosen.key)] : undefined;
  const isChosen = (key: string) =>
    (chosen?.of === "run" && chosen.key === key) || (picked !== undefined && isOf(picked, key));
  return {
    pipes: standing.flatMap((run) =>
      run.lines.map((points, at) => ({
        key: `${run.key} ${at}`,
        points,
        radius: run.diameter / 2,
        look: isChosen(run.key) ? ("chosen" as const) : at % 2 ? ("bend" as const) : ("pipe" as const),
        chooses: () => choose({ of: "run", key: run.key }),
      })),
    ),
    boxes: [
      ...space.boxes.map(({ key, body }) => ({
        key,
        body,
        look: chosen?.of === "box" && chosen.key === key ? ("chosen" as const) : ("box" as const),
        chooses: () => choose({ of: "box", key }),
      })),
      ...standing.flatMap((run) =>
        run.ends.flatMap(({ body, name }) =>
          body ? [{ key: `${run.key} ${name}`, body, look: "box" as const }] : [],
        ),
      ),
    ],
    connectors: standing.flatMap((run) => connectorsOf(run.lines, run.diameter / 2)),
    fittings: standing.flatMap((run) => run.fittings.map((one) => ({ ...one, radius: run.diameter / 2 }))),
    things: standing.flatMap((run) =>
      run.things.map(({ step, body, name }) => ({
        key: `${run.key} thing ${step}`,
        body,
        look: space.clashes.some((one) => one.kind === "thing" && one.other === run.key && one.thing === name)
          ? ("stop" as const)
          : ("thing" as const),
      })),
    ),
    walls: space.walls.map(({ corners }) => corners),
    bars: [],
    clashes: space.clashes.flatMap((clash, i) =>
      clash.kind === "knockout"
        ? []
        : [
            {
              key: `clash ${i}`,
              at: clash.at,
              isStop: clash.severity === "stop",
              chooses: () => choose({ of: "clash", key: String(i) }),
            },
          ],
    ),
    labels: [
      ...standing.map(
        (run): SceneLabel => ({
          key: `run ${run.key}`,
          at: longestMiddle(run.lines),
          text: run.name || t("run.unnamed"),
          look: clashing.has(run.key) ? "clash" : "name",
          rank: RANK.run,
          isChosen: isChosen(run.key),
          chooses: () => choose({ of: "run", key: run.key }),
        }),
      ),
      ...space.boxes.map(
        (box): SceneLabel => ({
          key: `box ${box.key}`,
          at: middleOf([...box.body.near, ...box.body.far]),
          text: box.name,
          look: "figure",
          rank: RANK.box,
          isChosen: chosen?.of === "box" && chosen.key === box.key,
          chooses: () => choose({ of: "box", key: box.key }),
        }),
      ),
      ...standing
        .flatMap((run) =>
          run.things.map(
            ({ step, name, body }): SceneLabel => ({
              key: `${run.key} thing ${step}`,
              at: middleOf([...body.near, ...body.far]),
              text: name,
              look: "figure",
              rank: RANK.thing,
            }),
          ),
        )
        .filter(({ text }) => text),
    ],
  };
}

/** The connectors at both ends of a run's pipe. */
function connectorsOf(lines: readonly (readonly Point[])[], radius: number) {
  const [first, second] = lines[0] ?? [];
  const [before, last] = (lines.at(-1) ?? []).slice(-2);
  return [
    [first, second],
    [last, before],
  ].flatMap(([at, toward]) =>
    at && toward
      ? [{ point: at, into: [toward[0] - at[0], toward[1] - at[1], toward[2] - at[2]] as Point, radius }]
      : [],
  );
}

/** The middle of a run's longest straight, where there is most room for its name. */
function longestMiddle(lines: readonly (readonly Point[])[]): Point {
  const long = (line: readonly Point[]) => {
    const [a, b] = [line[0], line.at(-1)];
    return a && b ? Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]) : 0;
  };
  const longest = lines.filter((_, i) => i % 2 === 0).toSorted((a, b) => long(b) - long(a))[0] ?? [];
  return middleOf([longest[0] ?? [0, 0, 0], longest.at(-1) ?? [0, 0, 0]]);
}

const AROUND = 16;

/** What is framed of what was chosen: a run, a box with what is near it, the place of a clash. */
export function pointsOfChosen(space: JobSpace, chosen: Chosen | null): Point[] | null {
  if (chosen?.of === "run") return space.runs.find((run) => run.key === chosen.key)?.lines.flat() ?? null;
  const at =
    chosen?.of === "clash"
      ? space.clashes[Number(chosen.key)]?.at
      : space.boxes.find((box) => box.key === chosen?.key)?.middle;
  if (!at) return null;
  const corner = (by: number): Point => [at[0] + by, at[1] + by, at[2] + by];
  return [corner(-AROUND), corner(AROUND)];
}
