import type { PictureFitting, Point, Prism } from "@/api/types";

/** No pipe is drawn thinner, in pixels. */
export const LEAST_THICK = 4;
/** Apart on a wall's grid, in inches. */
export const FOOT = 12;

/** How a part of the scene is drawn; its colours are the page's. */
export type Look = "pipe" | "bend" | "beside" | "chosen" | "stop" | "made";

/** A piece of pipe: points along its centreline, as thick as it is. */
export interface ScenePipe {
  key: string;
  points: readonly Point[];
  radius: number;
  look: Look;
  /** What a touch of it chooses. */
  chooses?: () => void;
}

export interface SceneBox {
  key: string;
  body: Prism;
  look: "box" | "chosen";
  chooses?: () => void;
}

export interface SceneFitting extends Pick<PictureFitting, "kind" | "point" | "heading"> {
  /** Of the pipe that it sits on. */
  radius: number;
}

export interface SceneConnector {
  point: Point;
  /** From the box into the run. */
  into: Point;
  radius: number;
}

export interface SceneThing {
  key: string;
  body: Prism;
  look: "thing" | "chosen" | "stop";
  chooses?: () => void;
}

/** A place where two things come too near. */
export interface SceneClash {
  key: string;
  at: Point;
  isStop: boolean;
  chooses?: () => void;
}

/** What is written at a place, on a leader; the lower its rank the sooner it finds room. */
export interface SceneLabel {
  key: string;
  at: Point;
  text: string;
  look: "name" | "number" | "figure" | "clash";
  rank: number;
  isChosen?: boolean;
  /** Of a measure: from where to where it was taken. */
  span?: readonly [Point, Point];
  chooses?: () => void;
}

/** All that is drawn in space. Inches: right, up, out. */
export interface Scene {
  pipes: readonly ScenePipe[];
  boxes: readonly SceneBox[];
  connectors: readonly SceneConnector[];
  fittings: readonly SceneFitting[];
  things: readonly SceneThing[];
  /** Four corners each, in turn. */
  walls: readonly (readonly Point[])[];
  bars: readonly { key: string; ends: readonly Point[] }[];
  clashes: readonly SceneClash[];
  labels: readonly SceneLabel[];
}

/** Every point that is to be seen when the whole is framed. */
export const pointsOf = (scene: Scene): Point[] => [
  ...scene.pipes.flatMap((pipe) => pipe.points),
  ...scene.boxes.flatMap(({ body }) => [...body.near, ...body.far]),
  ...scene.things.flatMap(({ body }) => [...body.near, ...body.far]),
];
