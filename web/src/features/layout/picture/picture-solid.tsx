import { Canvas, useThree } from "@react-three/fiber";
import { useEffect, useMemo, useState } from "react";
import { Box3, PerspectiveCamera, PMREMGenerator, Vector3 } from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import { RoomEnvironment } from "three/examples/jsm/environments/RoomEnvironment.js";
import type { MarksJudged, Picture, Plan, Point, RackPlan } from "@/api/types";
import { Button } from "@/ui/button";
import { t } from "@/words/layout";
import { besideOf } from "./picture-rack";
import { runInWords } from "./run-in-words";
import { type Colors, readColors } from "./solid-colors";
import { BoxSolid, FittingSolid, NumberSign, SurfaceSolid, ThingSolid, Tube, vector } from "./solids";

interface Props {
  plan: Plan;
  rack: RackPlan | undefined;
  picture: Picture;
  chosen: number | null;
  onChoose: (step: number) => void;
  judged: MarksJudged | null;
}

const MOST_NUMBERED = 6;

/** The run as a lit solid, turned and zoomed by hand, by touch or by keys. Drawn only when something changes. */
export function SolidPicture(props: Props) {
  const colors = useColors();
  const [zoom, setZoom] = useState({ by: 1, count: 0 });
  const step = (by: number) => setZoom((last) => ({ by, count: last.count + 1 }));
  return (
    <>
      <Canvas
        frameloop="demand"
        camera={{ fov: 28, near: 1, far: 6000 }}
        role="img"
        tabIndex={0}
        aria-label={t("picture.turnable", { plan: props.plan.name })}
        aria-description={runInWords(props.plan)}
        onKeyDown={(event) => {
          if (event.key === "+" || event.key === "=") step(0.85);
          if (event.key === "-") step(1 / 0.85);
        }}
      >
        <directionalLight position={[60, 160, 220]} intensity={1.6} />
        <Surroundings />
        <Camera
          lines={[props.picture, ...besideOf(props.rack)].flatMap((one) => one.lines.flat())}
          zoom={zoom}
        />
        <Scene {...props} colors={colors} />
      </Canvas>
      <div className="absolute right-3 bottom-3 flex rounded-md border border-line bg-paper">
        <Button
          look="quiet"
          className="min-h-11! min-w-11!"
          aria-label={t("picture.nearer")}
          onClick={() => step(0.8)}
        >
          +
        </Button>
        <Button
          look="quiet"
          className="min-h-11! min-w-11!"
          aria-label={t("picture.farther")}
          onClick={() => step(1.25)}
        >
          −
        </Button>
      </div>
    </>
  );
}

/** The page's own colours, read anew when the theme changes. */
function useColors(): Colors {
  const [colors, setColors] = useState(readColors);
  useEffect(() => {
    const observer = new MutationObserver(() => setColors(readColors()));
    observer.observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
    return () => observer.disconnect();
  }, []);
  return colors;
}

const FROM = new Vector3(0.55, 0.38, 1).normalize();
const ROOM = 1.12;
const SIDE_ROOM = 6;

/** How far off a camera that looks from FROM must stand to see every corner of the box. */
function standOff(box: Box3, middle: Vector3, camera: PerspectiveCamera): number {
  const up = Math.tan((camera.fov * Math.PI) / 360);
  const right = new Vector3(0, 1, 0).cross(FROM).normalize();
  const above = FROM.clone().cross(right);
  const corners = [box.min, box.max].flatMap((a) =>
    [box.min, box.max].flatMap((b) => [box.min, box.max].map((c) => new Vector3(a.x, b.y, c.z).sub(middle))),
  );
  const needs = corners.map(
    (corner) =>
      corner.dot(FROM) +
      Math.max(Math.abs(corner.dot(right)) / (up * camera.aspect), Math.abs(corner.dot(above)) / up),
  );
  return Math.max(...needs) * ROOM;
}

/** Stands where the whole run is seen, from the front right; from then on the hand moves it. */
function Camera({ lines, zoom }: { lines: Point[]; zoom: { by: number; count: number } }) {
  const { camera, gl, invalidate } = useThree();
  const controls = useMemo(() => new OrbitControls(camera, gl.domElement), [camera, gl]);
  const [framed] = useState(() => new Box3().setFromPoints(lines.map(vector)).expandByScalar(SIDE_ROOM));

  useEffect(() => {
    const middle = framed.getCenter(new Vector3());
    if (camera instanceof PerspectiveCamera)
      camera.position.copy(middle).addScaledVector(FROM, standOff(framed, middle, camera));
    controls.target.copy(middle);
    const host = gl.domElement.parentElement?.parentElement ?? gl.domElement;
    controls.listenToKeyEvents(host);
    controls.keyRotateSpeed = 6;
    controls.addEventListener("change", () => invalidate());
    controls.update();
    return () => controls.dispose();
  }, [camera, controls, framed, gl, invalidate]);

  useEffect(() => {
    if (!zoom.count) return;
    camera.position.sub(controls.target).multiplyScalar(zoom.by).add(controls.target);
    controls.update();
    invalidate();
  }, [camera, controls, invalidate, zoom]);
  return null;
}

/** What the metal reflects: a lit room. Without a graphics card that takes many seconds, and lamps do. */
function Surroundings() {
  const { gl } = useThree();
  return useMemo(() => isDrawnBySoftware(gl.getContext()), [gl]) ? (
    <>
      <hemisphereLight args={["#ffffff", "#8a8478", 2.6]} />
      <directionalLight position={[-160, 40, 90]} intensity={1.4} />
      <directionalLight position={[40, -80, 160]} intensity={0.8} />
    </>
  ) : (
    <Room />
  );
}

function isDrawnBySoftware(context: WebGLRenderingContext | WebGL2RenderingContext): boolean {
  const told = context.getExtension("WEBGL_debug_renderer_info");
  const name = told ? String(context.getParameter(told.UNMASKED_RENDERER_WEBGL)) : "";
  return /swiftshader|llvmpipe|softpipe|software|basic render/i.test(name);
}

function Room() {
  const { gl, scene, invalidate } = useThree();
  useEffect(() => {
    const maker = new PMREMGenerator(gl);
    const room = new RoomEnvironment();
    const map = maker.fromScene(room, 0.04).texture;
    scene.environment = map;
    invalidate();
    return () => {
      scene.environment = null;
      map.dispose();
      room.dispose();
      maker.dispose();
    };
  }, [gl, invalidate, scene]);
  return null;
}

function Scene({ plan, rack, picture, chosen, onChoose, judged, colors }: Props & { colors: Colors }) {
  const radius = (plan.shoe?.diameter ?? 1) / 2;
  const numbered = picture.bends.filter(({ number }) => {
    const own = plan.bends.filter((bend) => bend.step === plan.bends[number - 1]?.step);
    return own.length <= MOST_NUMBERED || number === own[0]?.number;
  });
  return (
    <group>
      {picture.lines.map((line, at) => {
        const bend = at % 2 ? plan.bends[(at - 1) / 2] : undefined;
        const color = !bend ? colors.solid : bend.step === chosen ? colors.accent : colors["solid-bend"];
        return (
          <Tube
            // biome-ignore lint/suspicious/noArrayIndexKey: legs and arcs are known by their order
            key={at}
            points={line}
            radius={radius}
            color={color}
            onTouch={bend && (() => onChoose(bend.step))}
          />
        );
      })}
      {besideOf(rack).map((pipe) => (
        <Tube
          key={pipe.number}
          points={pipe.lines.flat()}
          radius={pipe.diameter / 2}
          color={pipe.makeable ? colors.solid : colors.stop}
        />
      ))}
      {judged && !judged.right && (
        <Tube points={judged.lines.flat()} radius={radius * 0.6} color={colors.stop} />
      )}
      {picture.fittings.map((fitting) => (
        <FittingSolid
          key={`${fitting.kind} ${fitting.point.join()}`}
          fitting={fitting}
          radius={radius}
          colors={colors}
        />
      ))}
      <BoxSolid end={picture.start} sign={-1} colors={colors} letter="A" />
      {picture.end && <BoxSolid end={picture.end} sign={1} colors={colors} letter="B" />}
      {picture.things.map((thing) => (
        <ThingSolid
          key={thing.step}
          thing={thing}
          chosen={thing.step === chosen}
          colors={colors}
          onTouch={() => onChoose(thing.step)}
        />
      ))}
      {picture.surfaces.map((surface) => (
        <SurfaceSolid key={surface.corners.join(" ")} corners={surface.corners} colors={colors} />
      ))}
      {numbered.map((bend) => (
        <NumberSign
          key={bend.number}
          text={String(bend.number)}
          at={vector(bend.point).addScaledVector(vector(bend.outward), radius + 3)}
          ink={plan.bends[bend.number - 1]?.step === chosen ? colors.accent : colors.ink}
          paper={colors.paper}
        />
      ))}
    </group>
  );
}
