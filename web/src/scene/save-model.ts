import { Group, Mesh, MeshStandardMaterial, type Object3D } from "three";
import { GLTFExporter } from "three/examples/jsm/exporters/GLTFExporter.js";
import { RIM, SHADOW } from "./webgl";

const METRES_AN_INCH = 0.0254;

/** Writes what is drawn in space to a file, as binary glTF 2.0: in metres, as the format has it, y up. */
export async function saveModel(scene: Object3D, name: string) {
  const model = modelOf(scene);
  const written = await new GLTFExporter().parseAsync(model, { binary: true });
  if (!(written instanceof ArrayBuffer)) return;
  const address = URL.createObjectURL(new Blob([written], { type: "model/gltf-binary" }));
  const link = document.createElement("a");
  link.href = address;
  link.download = `${name || "run"}.glb`;
  link.click();
  URL.revokeObjectURL(address);
}

/** The solids alone, in plain materials: without shadows, and without the rims that are drawn around pipe. */
export function modelOf(scene: Object3D): Group {
  const model = new Group();
  scene.traverse((one) => {
    if (!(one instanceof Mesh) || one.name === SHADOW || one.name === RIM) return;
    const solid = new Mesh(one.geometry, new MeshStandardMaterial({ color: one.userData.color ?? "#999" }));
    solid.name = one.parent?.name ?? "";
    model.add(solid);
  });
  model.scale.setScalar(METRES_AN_INCH);
  return model;
}
