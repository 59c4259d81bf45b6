"""Binary glTF 2.0, by trimesh: pipes as tubes, boxes, fittings, things in the way and walls. Metres, y up."""

import math
from collections.abc import Sequence
from itertools import pairwise

import numpy as np
import trimesh
from trimesh.visual.material import PBRMaterial
from trimesh.visual.texture import TextureVisuals

from conduit.geometry import Vec, square_to
from conduit.plan import Prism
from formats.model import SpaceModel

METRE = 0.0254
# Sides of a round pipe.
AROUND = 16
# Red, green, blue and how opaque, of 255.
COLOURS = {
    "pipe": (150, 158, 168, 255),
    "fitting": (96, 104, 114, 255),
    "box": (92, 110, 140, 255),
    "thing": (188, 140, 84, 255),
    "wall": (222, 218, 210, 120),
}


def write_gltf(model: SpaceModel) -> bytes:
    """A model as one `.glb` file, each pipe a node of its run's name."""
    scene = trimesh.Scene()
    for number, pipe in enumerate(model.pipes, 1):
        name = pipe.name or f"run {number}"
        _add(scene, f"{name} ({number})", [_tube(pipe.points(), pipe.diameter / 2)], "pipe")
        _add(
            scene,
            f"{name} ({number}), fittings",
            [_tube([one.start, one.end], one.radius) for one in pipe.sleeves],
            "fitting",
        )
    for number, box in enumerate(model.boxes, 1):
        _add(scene, f"box {box.name or number} ({number})", [_prism(box.back, box.front)], "box")
    for number, thing in enumerate(model.things, 1):
        _add(scene, f"{thing.name or 'thing'} ({number})", [_solid(thing.body)], "thing")
    walls = [_sheet([Vec(*corner) for corner in surface.corners]) for surface in model.walls]
    _add(scene, "walls", walls, "wall")
    return bytes(scene.export(file_type="glb"))


def _add(scene: trimesh.Scene, name: str, meshes: Sequence[trimesh.Trimesh], kind: str) -> None:
    if not meshes:
        return
    mesh = trimesh.util.concatenate(meshes)
    seen_through = COLOURS[kind][3] < 255
    material = PBRMaterial(
        name=kind,
        baseColorFactor=COLOURS[kind],
        metallicFactor=0.6 if kind in ("pipe", "fitting") else 0.0,
        roughnessFactor=0.5,
        alphaMode="BLEND" if seen_through else "OPAQUE",
        doubleSided=seen_through,
    )
    mesh.apply_scale(METRE)
    mesh.visual = TextureVisuals(material=material)
    scene.add_geometry(mesh, node_name=name, geom_name=name)


def _tube(points: Sequence[Vec], radius: float) -> trimesh.Trimesh:
    """A closed tube along a polyline, its rings square to the way on, carried along without twist."""
    ways = [b.minus(a).unit() for a, b in pairwise(points)]
    ahead = [ways[0], *(a.plus(b).unit() for a, b in pairwise(ways)), ways[-1]]
    across, rings = square_to(ahead[0]), list[list[Vec]]()
    for at, way in zip(points, ahead, strict=True):
        across = across.along(way, -across.dot(way)).unit()
        up = way.cross(across)
        turns = [2 * math.pi * i / AROUND for i in range(AROUND)]
        rings.append([at.along(across, radius * math.cos(turn)).along(up, radius * math.sin(turn)) for turn in turns])
    return _lofted(rings)


def _lofted(rings: Sequence[Sequence[Vec]]) -> trimesh.Trimesh:
    """The closed solid through rings of as many points each."""
    count = len(rings[0])
    faces = list[tuple[int, int, int]]()
    for ring in range(len(rings) - 1):
        for i in range(count):
            a, b = ring * count + i, ring * count + (i + 1) % count
            faces += [(a, b, b + count), (a, b + count, a + count)]
    last = (len(rings) - 1) * count
    for i in range(1, count - 1):
        faces += [(0, i + 1, i), (last, last + i, last + i + 1)]
    points = np.array([tuple(at) for ring in rings for at in ring])
    mesh = trimesh.Trimesh(points, np.array(faces), process=False)
    trimesh.repair.fix_inversion(mesh)
    return mesh


def _solid(body: Prism) -> trimesh.Trimesh:
    return _prism([Vec(*at) for at in body.near], [Vec(*at) for at in body.far])


def _prism(back: Sequence[Vec], front: Sequence[Vec]) -> trimesh.Trimesh:
    return _lofted([back, front])


def _sheet(corners: Sequence[Vec]) -> trimesh.Trimesh:
    points = np.array([tuple(at) for at in corners])
    return trimesh.Trimesh(points, np.array([(0, 1, 2), (0, 2, 3)]), process=False)
