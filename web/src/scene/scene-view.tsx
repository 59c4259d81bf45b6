import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Point } from "@/api/types";
import type { Box } from "@/draw/labels";
import { Button } from "@/ui/button";
import { type Size, useSize } from "@/ui/use-size";
import { t } from "@/words/scene";
import { type Camera, framed, framedBest, projectionOf } from "./camera";
import { readColors } from "./colors";
import { SceneDrawing } from "./drawing";
import { layLabels } from "./labels";
import { LabelsOver, WayFigure } from "./labels-over";
import { pointsOf, type Scene } from "./model";
import type { Side } from "./sides";
import { touched } from "./touched";
import { useCamera, useWheel } from "./use-camera";
import type { SolidRenderer } from "./webgl";

const WAYS: Record<Exclude<Side, "turned">, Pick<Camera, "turn" | "rise">> = {
  front: { turn: 0, rise: 0 },
  plan: { turn: 0, rise: 89.9 },
  side: { turn: 90, rise: 0 },
};

interface Props {
  scene: Scene;
  side: Side;
  /** What it is a picture of. */
  name: string;
  description: string;
  /** What is to be framed; null: the whole. */
  focus?: readonly Point[] | null;
  inTheWay?: readonly Box[];
  /** What a touch of nothing does. */
  onNothing?: () => void;
}

const NONE: readonly Box[] = [];

/** A scene in space, to scale: framed to fill, turned by hand, by touch or by keys. */
export function SceneView(props: Props) {
  const [ref, size] = useSize<HTMLDivElement>();
  return (
    <div ref={ref} className="absolute inset-0">
      {size.width > 0 && <Framed {...props} size={size} />}
    </div>
  );
}

function Framed(props: Props & { size: Size }) {
  const { scene, side, size, focus = null, inTheWay = NONE } = props;
  const margins = size.width < 500 ? NARROW : WIDE;
  const points = useMemo(() => pointsOf(scene), [scene]);
  const frameFor = useCallback(
    (way: Pick<Camera, "turn" | "rise"> | null) => {
      const seen = focus ?? points;
      if (side === "turned" && !way) return framedBest(seen, size, margins);
      return framed(way ?? WAYS[side as keyof typeof WAYS], seen, size, margins);
    },
    [points, side, size, focus, margins],
  );
  const projectionRef = useRef<ReturnType<typeof projectionOf> | null>(null);
  const onTouch = useCallback(
    (at: [number, number]) => {
      const chooses = projectionRef.current && touched(scene, projectionRef.current, at);
      if (chooses) chooses();
      else props.onNothing?.();
    },
    [scene, props.onNothing],
  );
  const { camera, isMoved, frame, zoom, change, handlers } = useCamera(frameFor, size, onTouch);
  const [host, setHost] = useState<HTMLDivElement | null>(null);
  useWheel(host, size, change);
  const projection = useMemo(() => projectionOf(camera, size), [camera, size]);
  projectionRef.current = projection;
  const laid = useMemo(
    () => layLabels(scene, projection, camera.scale, size, [...inTheWay, ...ownControls(size)]),
    [scene, projection, camera.scale, size, inTheWay],
  );
  const gl = useSolids(scene, size, camera);
  return (
    <>
      <div
        ref={setHost}
        role="img"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it is turned by keys
        tabIndex={0}
        aria-label={t("turnable", { name: props.name })}
        aria-description={props.description}
        className="absolute inset-0 cursor-grab touch-none overflow-hidden active:cursor-grabbing"
        {...handlers}
      >
        {gl.state !== "none" && <canvas ref={gl.canvas} className="absolute inset-0 h-full w-full" />}
        <svg
          aria-hidden="true"
          width={size.width}
          height={size.height}
          className="absolute inset-0"
          data-drawn={gl.state}
        >
          {gl.state !== "solid" && <SceneDrawing scene={scene} camera={camera} projection={projection} />}
          <LabelsOver laid={laid} clashes={scene.clashes} projection={projection} />
        </svg>
        <WayFigure camera={camera} words={{ right: t("way.right"), up: t("way.up"), out: t("way.out") }} />
      </div>
      {gl.state === "solid" && (
        <Button
          className="absolute top-3 right-3 min-h-10! max-md:hidden"
          onClick={() => void gl.save(props.name)}
        >
          {t("save_model")}
        </Button>
      )}
      <div className="absolute right-3 bottom-3 flex rounded-md border border-line bg-paper">
        {isMoved && (
          <Button look="quiet" className="min-h-11!" onClick={frame}>
            {t("frame")}
          </Button>
        )}
        <Button
          look="quiet"
          className="min-h-11! min-w-11!"
          aria-label={t("nearer")}
          onClick={() => zoom(1.25)}
        >
          +
        </Button>
        <Button
          look="quiet"
          className="min-h-11! min-w-11!"
          aria-label={t("farther")}
          onClick={() => zoom(0.8)}
        >
          −
        </Button>
      </div>
    </>
  );
}

/** The buttons, and the figure of the directions. */
const ownControls = ({ width, height }: Size): Box[] => [
  { x: width - 110, y: height - 64, width: 110, height: 64 },
  { x: width - 170, y: 0, width: 170, height: 60 },
  { x: 0, y: height - 110, width: 116, height: 110 },
];

const WIDE = { side: 84, top: 72, bottom: 62 };
const NARROW = { side: 44, top: 64, bottom: 60 };

/** The page's own colours, read anew when the theme changes. */
function useColors() {
  const [colors, setColors] = useState(readColors);
  useEffect(() => {
    const observer = new MutationObserver(() => setColors(readColors()));
    observer.observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
    return () => observer.disconnect();
  }, []);
  return colors;
}

/** So many milliseconds after the last turn it is drawn as fine as it can be. */
const AT_REST = 180;

type Drawn = "lines" | "solid" | "none";

/** Draws the scene as solids as soon as what does that is here; as lines until then, and where there is no WebGL. */
function useSolids(scene: Scene, size: Size, camera: Camera) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const renderer = useRef<SolidRenderer | null>(null);
  const [state, setState] = useState<Drawn>("lines");
  const colors = useColors();
  const shown = useRef<unknown>(null);
  useEffect(() => {
    let dropped = false;
    import("./webgl")
      .then(({ SolidRenderer: Renderer }) => {
        if (dropped || !canvas.current) return;
        renderer.current = new Renderer(canvas.current);
        setState("solid");
      })
      .catch(() => setState("none"));
    return () => {
      dropped = true;
      renderer.current?.dispose();
      renderer.current = null;
      shown.current = null;
    };
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is drawn once there is something to draw with
  useEffect(() => {
    const drawer = renderer.current;
    if (!drawer) return;
    const now = [scene, colors] as const;
    const last = shown.current as typeof now | null;
    const isSame = last?.[0] === scene && last[1] === colors;
    if (!isSame) drawer.show(scene, colors);
    shown.current = now;
    drawer.draw(camera, size, isSame);
    const rest = setTimeout(() => drawer.draw(camera, size, false), isSame ? AT_REST : 0);
    return () => clearTimeout(rest);
  }, [scene, colors, size, camera, state]);
  const save = useCallback(async (name: string) => {
    if (!renderer.current) return;
    const { saveModel } = await import("./save-model");
    await saveModel(renderer.current.scene, name);
  }, []);
  return { canvas, state, save };
}
