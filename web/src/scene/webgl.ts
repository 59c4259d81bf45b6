import {
  BackSide,
  BufferGeometry,
  CanvasTexture,
  Color,
  Float32BufferAttribute,
  Group,
  LineBasicMaterial,
  LineSegments,
  type Material,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  MeshMatcapMaterial,
  type Object3D,
  OrthographicCamera,
  Plane,
  RepeatWrapping,
  SRGBColorSpace,
  Scene as ThreeScene,
  Vector2,
  Vector3,
  WebGLRenderer,
} from "three";
import type { Point } from "@/api/types";
import type { Size } from "@/ui/use-size";
import { axesOf, type Camera } from "./camera";
import type { Colors } from "./colors";
import { edgesOf, facesOf, gridOn, knockoutsOf, normalOf } from "./faces";
import { connectorBars, fittingBars } from "./fittings";
import { FOOT, LEAST_THICK, type Look, type Scene } from "./model";
import { addTube, emptyMesh, type Mesh as Triangles } from "./tube";
import { cross, dot, minus, unit } from "./vectors";

/** By these names a file of the model leaves out what only the picture has. */
export const [SHADOW, RIM] = ["shadow", "rim"];
// Pixels for each of the screen's.
const [COARSE, FINE, SHARP] = [0.5, 1.5, 2];
const OUTLINE = 1.1;
const SIDES = 12;
// Farther than anything that is drawn, in inches.
const FAR = 20_000;
// From where the light comes that throws shadows on walls: from the upper left, out of the wall.
const LIGHT: Point = unit([-0.45, 0.75, 1]);

/** Draws a scene with WebGL; nothing is drawn until it is asked for. */
export class SolidRenderer {
  private readonly renderer: WebGLRenderer;
  private readonly camera = new OrthographicCamera();
  private readonly least = { value: 0 };
  private readonly outline = { value: 0 };
  private shown: ThreeScene = new ThreeScene();
  /** What can be left out while it is turned. */
  private fine: Object3D[] = [];
  /** There is no graphics card: each pixel costs. */
  private readonly isSoft: boolean;

  constructor(canvas: HTMLCanvasElement) {
    // Edges are smoothed by drawing finer than the screen, which can be left out where each pixel costs.
    this.renderer = new WebGLRenderer({ canvas, antialias: false, alpha: true });
    this.isSoft = isSoftware(this.renderer.getContext());
    this.renderer.localClippingEnabled = true;
    this.renderer.sortObjects = false;
  }

  /** Finer than the screen; without a graphics card coarse while it is turned. */
  private resize({ width, height }: Size, isMoving: boolean) {
    const ratio = this.isSoft ? (isMoving ? COARSE : FINE) : Math.max(window.devicePixelRatio, SHARP);
    const now = this.renderer.getSize(new Vector2());
    if (this.renderer.getPixelRatio() === ratio && now.x === width && now.y === height) return;
    this.renderer.setPixelRatio(ratio);
    this.renderer.setSize(width, height, false);
  }

  show(scene: Scene, colors: Colors) {
    clear(this.shown);
    this.shown = new ThreeScene();
    this.shown.add(this.walls(scene, colors), this.bodies(scene, colors), this.pipes(scene, colors));
    this.fine = [];
    this.shown.traverse((one) => {
      if (one.name === SHADOW || one.name === RIM) this.fine.push(one);
    });
  }

  draw(view: Camera, size: Size, isMoving: boolean) {
    this.resize(size, isMoving);
    const { up, toward } = axesOf(view);
    const [x, y] = [size.width / 2 / view.scale, size.height / 2 / view.scale];
    Object.assign(this.camera, { left: -x, right: x, top: y, bottom: -y, near: 1, far: 2 * FAR });
    const middle = new Vector3(...view.middle);
    this.camera.position.copy(middle).addScaledVector(new Vector3(...toward), FAR);
    this.camera.up.set(...up);
    this.camera.lookAt(middle);
    this.camera.updateProjectionMatrix();
    this.least.value = LEAST_THICK / 2 / view.scale;
    this.outline.value = OUTLINE / view.scale;
    for (const one of this.fine) one.visible = !(this.isSoft && isMoving);
    this.renderer.render(this.shown, this.camera);
  }

  /** What is shown now, for whoever writes it to a file. */
  get scene(): ThreeScene {
    return this.shown;
  }

  dispose() {
    clear(this.shown);
    this.renderer.dispose();
  }

  private walls(scene: Scene, colors: Colors): Group {
    const group = new Group();
    group.name = "walls";
    const shadows = tubesOf(scene.pipes.map(({ points, radius }) => ({ points, radius })));
    for (const corners of scene.walls) {
      const sheet = new Mesh(
        facesGeometry([[...corners]]),
        new MeshBasicMaterial({
          color: colors.paper,
          side: 2,
          polygonOffset: true,
          polygonOffsetFactor: 2,
          polygonOffsetUnits: 2,
        }),
      );
      group.add(sheet, lines(gridOn(corners, FOOT), colors.grid), lines(outlineOf(corners), colors.line));
      group.add(shadowOn(corners, shadows, mixed(colors.paper, "#000", 0.14)));
    }
    return group;
  }

  private bodies(scene: Scene, colors: Colors): Group {
    const group = new Group();
    group.name = "boxes and things";
    for (const box of scene.boxes) {
      const color = box.look === "chosen" ? colors.accent : mixed(colors.solid, colors.paper, 0.35);
      group.add(solid(facesGeometry(facesOf(box.body)), matcap(color), color));
      group.add(lines([...edgesOf(box.body), ...knockoutsOf(box.body)], colors.ink));
    }
    for (const thing of scene.things) {
      const edge =
        thing.look === "chosen" ? colors.accent : thing.look === "stop" ? colors.stop : colors.soft;
      group.add(solid(facesGeometry(facesOf(thing.body)), hatched(colors.well, edge), colors.well));
      group.add(lines(edgesOf(thing.body), edge));
    }
    return group;
  }

  private pipes(scene: Scene, colors: Colors): Group {
    const group = new Group();
    group.name = "pipe";
    const looks = new Map<string, { points: readonly Point[]; radius: number }[]>();
    const add = (color: string, points: readonly Point[], radius: number) =>
      looks.set(color, [...(looks.get(color) ?? []), { points, radius }]);
    for (const { look, points, radius } of scene.pipes) add(colorOf(look, colors), points, radius);
    for (const { points, radius } of scene.fittings.flatMap(fittingBars))
      add(mixed(colors.solid, colors.paper, 0.3), points, radius);
    for (const { points, radius } of scene.connectors.flatMap(connectorBars))
      add(mixed(colors.solid, colors.ink, 0.15), points, radius);
    for (const { ends } of scene.bars) add(colors.soft, ends, 0.8);
    for (const [color, bars] of looks) {
      const geometry = geometryOf(tubesOf(bars));
      const rim = new Mesh(
        geometry,
        this.grown(new MeshBasicMaterial({ color: mixed(colors.ink, color, 0.25), side: BackSide }), true),
      );
      rim.name = RIM;
      group.add(rim, solid(geometry, this.grown(matcap(color), false), color));
    }
    return group;
  }

  /** Never thinner than can be seen; the rim stands out beyond the pipe by its width. */
  private grown<M extends Material>(material: M, isRim: boolean): M {
    material.onBeforeCompile = (shader) => {
      shader.uniforms.uLeast = this.least;
      shader.uniforms.uOutline = this.outline;
      shader.vertexShader =
        `attribute float thick;\nuniform float uLeast;\nuniform float uOutline;\n${shader.vertexShader}`.replace(
          "#include <begin_vertex>",
          `vec3 transformed = position + normal * (max(0.0, uLeast - thick) ${isRim ? "+ uOutline" : ""});`,
        );
    };
    material.customProgramCacheKey = () => (isRim ? "rim" : "grown");
    return material;
  }
}

/** Whether what draws is a program and no graphics card. */
function isSoftware(context: WebGLRenderingContext | WebGL2RenderingContext): boolean {
  const told = context.getExtension("WEBGL_debug_renderer_info");
  const name = told ? String(context.getParameter(told.UNMASKED_RENDERER_WEBGL)) : "";
  return /swiftshader|llvmpipe|softpipe|software|basic render/i.test(name);
}

/** A part that a file of the model has too, in its colour. */
function solid(geometry: BufferGeometry, material: Material, color: string): Mesh {
  const mesh = new Mesh(geometry, material);
  mesh.userData.color = color;
  return mesh;
}

export const colorOf = (look: Look, colors: Colors): string =>
  ({
    pipe: colors.solid,
    bend: colors["solid-bend"],
    beside: mixed(colors.solid, colors.paper, 0.4),
    chosen: colors.accent,
    stop: colors.stop,
    made: mixed(colors.stop, colors.paper, 0.3),
  })[look];

export function mixed(color: string, other: string, part: number): string {
  return `#${new Color(color).lerp(new Color(other), part).getHexString()}`;
}

function tubesOf(bars: readonly { points: readonly Point[]; radius: number }[]): Triangles {
  const mesh = emptyMesh();
  for (const { points, radius } of bars) addTube(mesh, points, radius, SIDES);
  return mesh;
}

function geometryOf({ positions, normals, radii, indices }: Triangles): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new Float32BufferAttribute(positions, 3));
  geometry.setAttribute("normal", new Float32BufferAttribute(normals, 3));
  geometry.setAttribute("thick", new Float32BufferAttribute(radii, 1));
  geometry.setIndex(indices);
  return geometry;
}

// Of the hatch, in inches.
const HATCH = 3;

function facesGeometry(faces: readonly (readonly Point[])[]): BufferGeometry {
  const [positions, normals, uvs]: [number[], number[], number[]] = [[], [], []];
  for (const face of faces) {
    const normal = normalOf(face);
    const first = unit(minus(face[1] as Point, face[0] as Point));
    const second = cross(normal, first);
    const add = (corner: Point) => {
      positions.push(...corner);
      normals.push(...normal);
      uvs.push(dot(corner, first) / HATCH, dot(corner, second) / HATCH);
    };
    for (let i = 1; i < face.length - 1; i++) for (const at of [0, i, i + 1]) add(face[at] as Point);
  }
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new Float32BufferAttribute(positions, 3));
  geometry.setAttribute("normal", new Float32BufferAttribute(normals, 3));
  geometry.setAttribute("uv", new Float32BufferAttribute(uvs, 2));
  return geometry;
}

function lines(pairs: readonly (readonly [Point, Point])[], color: string): LineSegments {
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new Float32BufferAttribute(pairs.flat(2), 3));
  return new LineSegments(geometry, new LineBasicMaterial({ color }));
}

const outlineOf = (corners: readonly Point[]): [Point, Point][] =>
  corners.map((corner, i) => [corner, corners[(i + 1) % corners.length] as Point]);

/** The pipes' shadow on a wall: flattened onto it along the light, and cut off at its edges. */
function shadowOn(corners: readonly Point[], mesh: Triangles, color: string): Mesh {
  const [a, b, , d] = corners as [Point, Point, Point, Point];
  const face = unit(cross(minus(b, a), minus(d, a)));
  // The side of the wall that is looked at.
  const normal = dot(face, LIGHT) < 0 ? (face.map((one) => -one) as Point) : face;
  const shadow = new Mesh(
    geometryOf(mesh),
    new MeshBasicMaterial({
      color,
      side: 2,
      polygonOffset: true,
      polygonOffsetFactor: 1,
      polygonOffsetUnits: 1,
      clippingPlanes: edgesAsPlanes(corners),
    }),
  );
  shadow.name = SHADOW;
  const [nx, ny, nz] = normal;
  const [lx, ly, lz] = LIGHT;
  const lean = dot(normal, LIGHT);
  const off = dot(normal, a);
  // x − L·(n·x − n·a)/(n·L), for all points at once.
  shadow.matrixAutoUpdate = false;
  shadow.matrix = new Matrix4().set(
    1 - (lx * nx) / lean,
    (-lx * ny) / lean,
    (-lx * nz) / lean,
    (lx * off) / lean,
    (-ly * nx) / lean,
    1 - (ly * ny) / lean,
    (-ly * nz) / lean,
    (ly * off) / lean,
    (-lz * nx) / lean,
    (-lz * ny) / lean,
    1 - (lz * nz) / lean,
    (lz * off) / lean,
    0,
    0,
    0,
    1,
  );
  return shadow;
}

function edgesAsPlanes(corners: readonly Point[]): Plane[] {
  const middle = new Vector3(...(corners[0] as Point)).lerp(new Vector3(...(corners[2] as Point)), 0.5);
  return corners.map((corner, i) => {
    const along = unit(minus(corners[(i + 1) % 4] as Point, corner));
    const inward = middle.clone().sub(new Vector3(...corner));
    inward.addScaledVector(new Vector3(...along), -inward.dot(new Vector3(...along))).normalize();
    return new Plane().setFromNormalAndCoplanarPoint(inward, new Vector3(...corner));
  });
}

const SHADED = 64;
const shades = new Map<string, CanvasTexture>();

/** How a round thing of a colour looks, by the way each place of it faces: lit from the upper left. */
function matcap(color: string): MeshMatcapMaterial {
  const known = shades.get(color);
  if (known) return new MeshMatcapMaterial({ matcap: known });
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = SHADED;
  const pen = canvas.getContext("2d");
  if (pen) shade(pen, new Color(color));
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = SRGBColorSpace;
  shades.set(color, texture);
  return new MeshMatcapMaterial({ matcap: texture });
}

function shade(pen: CanvasRenderingContext2D, color: Color) {
  const image = pen.createImageData(SHADED, SHADED);
  const [r, g, b] = color.clone().convertLinearToSRGB().toArray();
  for (let row = 0; row < SHADED; row++)
    for (let column = 0; column < SHADED; column++) {
      const [x, y] = [(column / (SHADED - 1)) * 2 - 1, 1 - (row / (SHADED - 1)) * 2];
      const z = Math.sqrt(Math.max(0, 1 - x * x - y * y));
      const lit = Math.max(0, -0.42 * x + 0.58 * y + 0.7 * z);
      const gloss = lit ** 18 * 0.45;
      const light = 0.42 + 0.72 * lit;
      const at = (row * SHADED + column) * 4;
      image.data.set(
        [r, g, b].map((part) => Math.min(255, ((part as number) * light + gloss) * 255)),
        at,
      );
      image.data[at + 3] = 255;
    }
  pen.putImageData(image, 0, 0);
}

function hatched(color: string, line: string): MeshBasicMaterial {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = 64;
  const pen = canvas.getContext("2d");
  if (pen) {
    pen.fillStyle = color;
    pen.fillRect(0, 0, 64, 64);
    pen.strokeStyle = line;
    pen.lineWidth = 5;
    for (const from of [-64, 0, 64]) {
      pen.beginPath();
      pen.moveTo(from, 64);
      pen.lineTo(from + 64, 0);
      pen.stroke();
    }
  }
  const texture = new CanvasTexture(canvas);
  texture.wrapS = texture.wrapT = RepeatWrapping;
  texture.colorSpace = SRGBColorSpace;
  return new MeshBasicMaterial({ map: texture });
}

function clear(scene: ThreeScene) {
  scene.traverse((one) => {
    if (one instanceof Mesh || one instanceof LineSegments) {
      one.geometry.dispose();
      const { material } = one;
      if (material instanceof MeshBasicMaterial) material.map?.dispose();
      material.dispose();
    }
  });
}
