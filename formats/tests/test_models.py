"""DXF, IFC and glTF, read back by readers that are not our writers, against the run as it is laid out."""

import io
import math
from itertools import pairwise
from tempfile import NamedTemporaryFile
from unittest import TestCase

import ezdxf
import ezdxf.recover
import ifcopenshell
import ifcopenshell.util.element
import ifcopenshell.validate
import trimesh

from formats.from_runs import NothingToDraw, model_of_run
from formats.tests.support import EXAMPLES, RACK, given_out, job, job_model, model, run

INCH = 25.4


def dxf_of(source):
    document, auditor = ezdxf.recover.read(io.BytesIO(given_out(source, "dxf")))
    return document, [*auditor.errors, *auditor.fixes]


def parts_in(group):
    """Each entity of a centreline as its two ends, its length, and its radius."""
    for entity in sorted(group, key=lambda one: int(one.dxf.handle, 16)):
        if entity.dxftype() == "LINE":
            yield entity.dxf.start, entity.dxf.end, entity.dxf.end.distance(entity.dxf.start), None
        else:
            turned = math.radians((entity.dxf.end_angle - entity.dxf.start_angle) % 360)
            yield entity.start_point, entity.end_point, turned * entity.dxf.radius, entity.dxf.radius


class Dxf(TestCase):
    def test_each_run_is_one_unbroken_centreline_as_long_as_its_pipe(self):
        for path in EXAMPLES:
            with self.subTest(path.name):
                document, faults = dxf_of(run(path.name))
                self.assertEqual(faults, [])
                wanted = model(path.name).pipes
                groups = [list(group) for _, group in document.groups if list(group)]
                self.assertEqual(len(groups), len(wanted))
                for group, pipe in zip(groups, wanted, strict=True):
                    parts = list(parts_in(group))
                    self.assertAlmostEqual(sum(length for _, _, length, _ in parts), pipe.length, 6)
                    self.assertEqual(sum(radius is not None for *_, radius in parts), len(pipe.arcs))
                    for before, after in pairwise(parts):
                        self.assertLess(before[1].distance(after[0]), 1e-6)

    def test_every_measure_is_dimensioned_once_and_every_box_named(self):
        document, _ = dxf_of(run())
        texts = sorted(one.dxf.text for one in document.modelspace().query("DIMENSION"))
        [pipe] = model().pipes
        self.assertEqual(texts, sorted(one.reads for one in pipe.dimensions))
        names = {one.dxf.text for one in document.modelspace().query('TEXT[layer=="FRONT-NAMES"]')}
        self.assertEqual(names, {"KP", "K2", "gas line"})

    def test_a_jobs_runs_stand_where_its_boxes_are(self):
        document, faults = dxf_of(job())
        groups = [list(group) for _, group in document.groups if list(group)]
        self.assertEqual((faults, len(groups)), ([], 2))
        starts = [next(parts_in(group))[0] for group in groups]
        self.assertAlmostEqual(starts[1].x - starts[0].x, 30.0, 6)
        self.assertEqual(list(job_model().aside), ["Stands nowhere"])


class Ifc(TestCase):
    def test_it_is_valid_and_tells_lengths_bends_and_couplings(self):
        for path in EXAMPLES:
            with self.subTest(path.name):
                pipes = model(path.name).pipes
                file = ifcopenshell.file.from_string(given_out(run(path.name), "ifc").decode())
                log = ifcopenshell.validate.json_logger()
                ifcopenshell.validate.validate(file, log, express_rules=path.name == RACK)
                self.assertEqual(log.statements, [])
                told = [ifcopenshell.util.element.get_psets(one) for one in file.by_type("IfcCableCarrierSegment")]
                straight = sum(one["Qto_CableCarrierSegmentBaseQuantities"]["Length"] for one in told)
                fittings = file.by_type("IfcCableCarrierFitting")
                bends = [one for one in fittings if one.PredefinedType == "BEND"]
                arcs = sum(ifcopenshell.util.element.get_psets(one)["Crelda_Bend"]["ArcLength"] for one in bends)
                self.assertAlmostEqual((straight + arcs) / INCH, sum(pipe.length for pipe in pipes), 6)
                self.assertEqual(len(bends), sum(len(pipe.arcs) for pipe in pipes))
                couplings = sum(one.kind == "coupling" for pipe in pipes for one in pipe.fittings)
                self.assertEqual(len(fittings) - len(bends), couplings)
                systems = [one.Name for one in file.by_type("IfcDistributionSystem")]
                self.assertEqual(systems, [pipe.name or None for pipe in pipes])

    def test_the_same_run_gives_the_same_file(self):
        for to in ("ifc", "dxf", "gltf"):
            self.assertEqual(given_out(run(), to), given_out(run(), to), to)


class Gltf(TestCase):
    def test_a_pipe_is_a_closed_tube_of_its_size_along_its_centreline(self):
        with NamedTemporaryFile(suffix=".glb") as file:
            file.write(given_out(run(), "gltf"))
            file.flush()
            scene = trimesh.load(file.name)
        [pipe] = model().pipes
        [mesh] = [one for name, one in scene.geometry.items() if name == f"{pipe.name} (1)"]
        self.assertTrue(mesh.is_watertight)
        # A tube of sixteen sides holds less than a round one, by sin(2π/16) / (2π/16).
        round_one = math.pi * (pipe.diameter / 2) ** 2 * pipe.length * math.sin(math.pi / 8) / (math.pi / 8)
        self.assertAlmostEqual(mesh.volume / 0.0254**3 / round_one, 1, 2)
        tops = [max(at[axis] for at in pipe.points()) for axis in range(3)]
        for axis in range(3):
            over = mesh.bounds[1][axis] / 0.0254 - tops[axis]
            self.assertTrue(-1e-6 < over < pipe.diameter / 2 + 1e-6, (axis, over))


class Nothing(TestCase):
    def test_a_run_that_is_not_laid_out_is_told_and_not_drawn(self):
        with self.assertRaises(NothingToDraw):
            model_of_run({"trade_size": "5", "start": {"heading": "up"}})
