import type { Point } from "@/api/types";
import { type Flat, polyline } from "@/draw/projection";
import { axesOf, type Camera, type Projection } from "./camera";
import { edgesOf, facesOf, gridOn, knockoutsOf, normalOf } from "./faces";
import { connectorBars, fittingBars } from "./fittings";
import { FOOT, LEAST_THICK, type Look, type Scene } from "./model";
import { dot, middleOf, minus, plus } from "./vectors";

interface Props {
  scene: Scene;
  camera: Camera;
  projection: Projection;
}

const COLORS: Record<Look, string> = {
  pipe: "var(--pipe)",
  bend: "var(--bend)",
  beside: "var(--pipe-light)",
  chosen: "var(--accent)",
  stop: "var(--stop)",
  made: "var(--stop)",
};

/** Something that is drawn, by how near it is to whoever looks. */
interface Piece {
  near: number;
  key: string;
  drawn: React.ReactNode;
}

/** The scene as lines and faces, the farthest first (painter's algorithm): where there is no WebGL, and on paper. */
export function SceneDrawing({ scene, camera, projection }: Props) {
  const pieces = [...bars(scene, camera, projection), ...bodies(scene, camera, projection)];
  pieces.sort((a, b) => a.near - b.near);
  return (
    <g strokeLinejoin="round" strokeLinecap="butt">
      <defs>
        <pattern
          id="scene-hatch"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="7" height="7" fill="var(--well)" />
          <line x1="0" y1="0" x2="0" y2="7" stroke="var(--soft)" strokeWidth="1.6" />
        </pattern>
      </defs>
      {scene.walls.map((corners) => (
        <Wall key={corners.join(" ")} corners={corners} place={projection.place} />
      ))}
      {pieces.map(({ key, drawn }) => (
        <g key={key}>{drawn}</g>
      ))}
    </g>
  );
}

type Place = Projection["place"];

function Wall({ corners, place }: { corners: readonly Point[]; place: Place }) {
  return (
    <>
      <path
        d={`${polyline(corners.map(place))}Z`}
        fill="var(--paper)"
        stroke="var(--line)"
        strokeWidth="1.5"
      />
      <path d={pathOf(gridOn(corners, FOOT), place)} stroke="var(--grid)" strokeWidth="1" fill="none" />
    </>
  );
}

const pathOf = (pairs: readonly (readonly [Point, Point])[], place: Place): string =>
  pairs.map((pair) => polyline(pair.map(place))).join("");

/** Round bars: pipe piece by piece, what sits on it in front of it. */
function* bars(scene: Scene, camera: Camera, { place, nearness }: Projection): Iterable<Piece> {
  for (const { key, points, radius, look } of scene.pipes)
    for (const [i, part] of partsOf(points).entries())
      yield {
        near: nearness(middleOf(part)) + radius,
        key: `${key} ${i}`,
        drawn: <Bar ends={part.map(place)} thick={2 * radius * camera.scale} color={COLORS[look]} />,
      };
  const on = [...scene.fittings.flatMap(fittingBars), ...scene.connectors.flatMap(connectorBars)];
  for (const [i, { points, radius }] of on.entries())
    yield {
      near: nearness(middleOf(points)) + radius + ON_PIPE,
      key: `fitting ${i}`,
      drawn: (
        <Bar
          ends={points.map(place)}
          thick={Math.max(2 * radius * camera.scale, 6)}
          color="var(--pipe-light)"
        />
      ),
    };
  for (const { key, ends } of scene.bars)
    yield {
      near: nearness(middleOf(ends)) - 1,
      key,
      drawn: <Bar ends={ends.map(place)} thick={1.6 * camera.scale} color="var(--soft)" />,
    };
}

// What sits on pipe is drawn after it, in inches.
const ON_PIPE = 0.2;
const LONGEST_PART = 24;

/** An arc as it is; a leg in parts, as what crosses it lies behind one part and before another. */
function partsOf(points: readonly Point[]): (readonly Point[])[] {
  const [a, b] = points;
  if (points.length !== 2 || !a || !b) return [points];
  const count = Math.max(1, Math.ceil(Math.hypot(...minus(b, a)) / LONGEST_PART));
  const at = (i: number): Point => plus(a, minus(b, a), i / count);
  return Array.from({ length: count }, (_, i) => [at(i), at(i + 1)]);
}

function Bar({ ends, thick, color }: { ends: Flat[]; thick: number; color: string }) {
  const wide = Math.max(thick, LEAST_THICK);
  const path = polyline(ends);
  return (
    <g fill="none">
      <path d={path} stroke="var(--pipe-edge)" strokeWidth={wide + 2} />
      <path d={path} stroke={color} strokeWidth={wide} />
      <path d={path} stroke="var(--pipe-light)" strokeWidth={wide * 0.25} opacity="0.7" />
    </g>
  );
}

/** Faces of boxes and things that look toward whoever looks. */
function* bodies(scene: Scene, camera: Camera, { place, nearness }: Projection): Iterable<Piece> {
  const { toward } = axesOf(camera);
  const solids = [
    ...scene.boxes.map((one) => ({ ...one, fill: "var(--pipe-light)", rings: knockoutsOf(one.body) })),
    ...scene.things.map((one) => ({ ...one, fill: "url(#scene-hatch)", rings: [] })),
  ];
  for (const { key, body, look, fill, rings } of solids) {
    const line = look === "chosen" ? "var(--accent)" : look === "stop" ? "var(--stop)" : "var(--pipe-edge)";
    const faces = facesOf(body).filter((face) => dot(normalOf(face), toward) > 1e-6);
    const seen = rings.filter(([at]) => faces.some((face) => isOn(face, at)));
    yield {
      near: nearness(middleOf([...body.near, ...body.far])),
      key,
      drawn: (
        <>
          {faces.map((face) => (
            <path
              key={face.join(" ")}
              d={`${polyline(face.map(place))}Z`}
              fill={fill}
              stroke={edgesOf(body).length > 16 ? "none" : line}
              strokeWidth="1.6"
            />
          ))}
          <path d={pathOf(seen, place)} stroke={line} strokeWidth="1" fill="none" />
        </>
      ),
    };
  }
}

const isOn = (face: readonly Point[], at: Point): boolean =>
  Math.abs(dot(normalOf(face), at) - dot(normalOf(face), face[0] as Point)) < 0.1;
