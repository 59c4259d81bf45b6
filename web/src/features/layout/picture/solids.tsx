import { useEffect, useMemo } from "react";
import {
  BufferAttribute,
  BufferGeometry,
  CanvasTexture,
  type Curve,
  CurvePath,
  DoubleSide,
  LineCurve3,
  Quaternion,
  TubeGeometry,
  Vector3,
} from "three";
import type { PictureEnd, PictureFitting, PictureThing } from "@/api/types";
import type { Colors } from "./solid-colors";

export const vector = (point: number[]): Vector3 => new Vector3(point[0], point[1], point[2]);

const SIDES = 20;
const UP = new Vector3(0, 1, 0);
const FORWARD = new Vector3(0, 0, 1);

interface TubeProps {
  points: number[][];
  radius: number;
  color: string;
  onTouch?: (() => void) | undefined;
}

/** A piece of pipe along points that came from the plan. */
export function Tube({ points, radius, color, onTouch }: TubeProps) {
  const geometry = useMemo(() => {
    const path = new CurvePath<Vector3>();
    const ends = points.map(vector).filter((point, i, all) => !i || !all[i - 1]?.equals(point));
    ends.slice(1).forEach((end, i) => {
      path.add(new LineCurve3(ends[i] ?? end, end));
    });
    if (!path.curves.length) return null;
    const parts = ends.length === 2 ? 1 : (ends.length - 1) * 2;
    return new TubeGeometry(path as unknown as Curve<Vector3>, parts, radius, SIDES);
  }, [points, radius]);
  useEffect(() => () => geometry?.dispose(), [geometry]);
  if (!geometry) return null;
  return (
    <mesh
      geometry={geometry}
      onPointerDown={(event) => {
        if (!onTouch) return;
        event.stopPropagation();
        onTouch();
      }}
    >
      <meshStandardMaterial color={color} metalness={0.6} roughness={0.32} envMapIntensity={0.75} />
    </mesh>
  );
}

/** Couplings as sleeves, straps as thin bands, pull points as boxes. */
export function FittingSolid(props: { fitting: PictureFitting; radius: number; colors: Colors }) {
  const { fitting, radius, colors } = props;
  const turned = useMemo(
    () => new Quaternion().setFromUnitVectors(UP, vector(fitting.heading).normalize()),
    [fitting.heading],
  );
  const at = vector(fitting.point);
  if (fitting.kind === "pull_point")
    return (
      <mesh position={at} quaternion={turned}>
        <boxGeometry args={[4, 4, 4]} />
        <meshStandardMaterial color={colors.soft} />
      </mesh>
    );
  const [long, wide] =
    fitting.kind === "coupling" ? [radius * 4, radius * 1.32] : [radius * 1.1, radius * 1.22];
  return (
    <mesh position={at} quaternion={turned}>
      <cylinderGeometry args={[wide, wide, long, SIDES]} />
      <meshStandardMaterial
        color={fitting.kind === "coupling" ? colors.solid : colors.soft}
        metalness={0.5}
        roughness={0.5}
      />
    </mesh>
  );
}

const BOX = 4;

export function BoxSolid(props: { end: PictureEnd; sign: 1 | -1; colors: Colors; letter: string }) {
  const { end, sign, colors, letter } = props;
  const at = vector(end.point).addScaledVector(vector(end.heading), (sign * BOX) / 2);
  return (
    <group>
      <mesh position={at}>
        <boxGeometry args={[BOX, BOX, BOX * 0.7]} />
        <meshStandardMaterial color={colors.soft} roughness={0.7} />
      </mesh>
      <NumberSign
        text={end.name ? `${letter} · ${end.name}` : letter}
        at={at.clone().addScaledVector(FORWARD, BOX)}
        ink={colors.ink}
        paper={colors.paper}
      />
    </group>
  );
}

interface ThingProps {
  thing: PictureThing;
  chosen: boolean;
  colors: Colors;
  onTouch: () => void;
}

/** What is to be got over as a solid, and the clearance around it as a veil. */
export function ThingSolid({ thing, chosen, colors, onTouch }: ThingProps) {
  const body = useMemo(() => prism(thing.body.near, thing.body.far), [thing.body]);
  const clear = useMemo(() => prism(thing.kept_clear.near, thing.kept_clear.far), [thing.kept_clear]);
  return (
    <group
      onPointerDown={(event) => {
        event.stopPropagation();
        onTouch();
      }}
    >
      <mesh geometry={body}>
        <meshStandardMaterial color={colors.line} side={DoubleSide} roughness={0.85} />
      </mesh>
      <mesh geometry={clear}>
        <meshBasicMaterial
          color={chosen ? colors.accent : colors.soft}
          transparent
          opacity={chosen ? 0.22 : 0.12}
          side={DoubleSide}
          depthWrite={false}
        />
      </mesh>
    </group>
  );
}

/** A solid between two polygons of as many corners: its sides, and both ends as fans. */
function prism(near: number[][], far: number[][]): BufferGeometry {
  const corners = near.length;
  const index: number[] = [];
  for (let i = 0; i < corners; i += 1) {
    const next = (i + 1) % corners;
    index.push(i, next, corners + next, i, corners + next, corners + i);
  }
  for (let i = 1; i < corners - 1; i += 1) index.push(0, i, i + 1, corners, corners + i + 1, corners + i);
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new BufferAttribute(new Float32Array([...near, ...far].flat()), 3));
  geometry.setIndex(index);
  const flat = geometry.toNonIndexed();
  flat.computeVertexNormals();
  return flat;
}

export function SurfaceSolid({ corners, colors }: { corners: number[][]; colors: Colors }) {
  const geometry = useMemo(() => {
    const sheet = new BufferGeometry();
    sheet.setAttribute("position", new BufferAttribute(new Float32Array(corners.flat()), 3));
    sheet.setIndex([0, 1, 2, 0, 2, 3]);
    sheet.computeVertexNormals();
    return sheet;
  }, [corners]);
  return (
    <mesh geometry={geometry}>
      <meshBasicMaterial
        color={colors.paper}
        transparent
        opacity={0.55}
        side={DoubleSide}
        depthWrite={false}
      />
    </mesh>
  );
}

interface SignProps {
  text: string;
  at: Vector3;
  ink: string;
  paper: string;
}

const SIGN_HEIGHT = 64;
// Of the picture's height, however far it stands.
const SIGN_SIZE = 0.034;

/** A number or a name that always faces the person. */
export function NumberSign({ text, at, ink, paper }: SignProps) {
  const { texture, ratio } = useMemo(() => {
    const canvas = document.createElement("canvas");
    const measure = canvas.getContext("2d");
    const font = `700 42px "Inter Variable", sans-serif`;
    if (measure) measure.font = font;
    const width = Math.max(SIGN_HEIGHT * 1.2, (measure?.measureText(text).width ?? 0) + 40);
    canvas.height = SIGN_HEIGHT;
    canvas.width = width;
    const pen = canvas.getContext("2d");
    if (pen) {
      pen.fillStyle = ink;
      pen.beginPath();
      pen.roundRect(0, 0, canvas.width, canvas.height, SIGN_HEIGHT / 2);
      pen.fill();
      pen.fillStyle = paper;
      pen.font = font;
      pen.textAlign = "center";
      pen.textBaseline = "middle";
      pen.fillText(text, canvas.width / 2, canvas.height / 2 + 2);
    }
    return { texture: new CanvasTexture(canvas), ratio: canvas.width / canvas.height };
  }, [text, ink, paper]);
  useEffect(() => () => texture.dispose(), [texture]);
  return (
    <sprite position={at} scale={[SIGN_SIZE * ratio, SIGN_SIZE, 1]} renderOrder={2}>
      <spriteMaterial map={texture} depthTest={false} sizeAttenuation={false} />
    </sprite>
  );
}
