import { useMemo } from "react";
import type { Size } from "@/ui/use-size";
import { framedBest, projectionOf } from "./camera";
import { SceneDrawing } from "./drawing";
import { layLabels } from "./labels";
import { LabelsOver } from "./labels-over";
import { pointsOf, type Scene } from "./model";

interface Props {
  scene: Scene;
  size: Size;
  label: string;
}

const MARGINS = { side: 70, top: 40, bottom: 40 };
const NOTHING: never[] = [];

/** A scene on paper: the same picture in lines, from the front right. */
export function ScenePrint({ scene, size, label }: Props) {
  const camera = useMemo(() => framedBest(pointsOf(scene), size, MARGINS), [scene, size]);
  const projection = useMemo(() => projectionOf(camera, size), [camera, size]);
  const laid = useMemo(
    () => layLabels(scene, projection, camera.scale, size, NOTHING),
    [scene, projection, camera, size],
  );
  return (
    <svg viewBox={`0 0 ${size.width} ${size.height}`} width="100%" role="img" aria-label={label}>
      <SceneDrawing scene={scene} camera={camera} projection={projection} />
      <LabelsOver laid={laid} clashes={scene.clashes} projection={projection} />
    </svg>
  );
}
