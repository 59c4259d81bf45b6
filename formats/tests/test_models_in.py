"""IFC in: models of other programs, swept, extruded, turned and mapped; things under saddles; what is hit is told."""

import math
from unittest import TestCase

import ifcopenshell
from ifcopenshell.guid import new as new_id

from formats.from_runs import model_of_run
from formats.importing import Meant, read_file
from formats.tests.support import DUCT, document, given_out, job, run

FOOT = 304.8


class Model:
    """A model as another program may write it, in millimetres and degrees."""

    def __init__(self, schema="IFC4"):
        self.file = ifcopenshell.file(schema=schema)
        make = self.make = self.file.create_entity
        degree = make(
            "IfcConversionBasedUnit",
            make("IfcDimensionalExponents", 0, 0, 0, 0, 0, 0, 0),
            "PLANEANGLEUNIT",
            "DEGREE",
            make(
                "IfcMeasureWithUnit",
                make("IfcPlaneAngleMeasure", math.pi / 180),
                make("IfcSIUnit", UnitType="PLANEANGLEUNIT", Name="RADIAN"),
            ),
        )
        length = make("IfcSIUnit", UnitType="LENGTHUNIT", Prefix="MILLI", Name="METRE")
        world = make("IfcAxis2Placement3D", self.point(0, 0, 0))
        self.context = make("IfcGeometricRepresentationContext", None, "Model", 3, 1e-5, world, None)
        make(
            "IfcProject",
            new_id(),
            Name="Hall",
            RepresentationContexts=[self.context],
            UnitsInContext=make("IfcUnitAssignment", [length, degree]),
        )

    def point(self, *at):
        return self.make("IfcCartesianPoint", [float(one) for one in at])

    def way(self, *ratios):
        return self.make("IfcDirection", [float(one) for one in ratios])

    def axes(self, at, axis=(0, 0, 1), first=(1, 0, 0)):
        return self.make("IfcAxis2Placement3D", self.point(*at), self.way(*axis), self.way(*first))

    def round(self, diameter=23.4188):
        return self.make(
            "IfcCircleProfileDef", "AREA", None, self.make("IfcAxis2Placement2D", self.point(0, 0)), diameter / 2
        )

    def extruded(self, length, profile=None):
        return self.make(
            "IfcExtrudedAreaSolid", profile or self.round(), self.axes((0, 0, 0)), self.way(0, 0, 1), float(length)
        )

    def element(self, kind, solid, at=(0, 0, 0), axis=(0, 0, 1), first=(1, 0, 0), shape="Body", **fields):
        """Something whose shape stands at a place, its own z along `axis`."""
        placed = self.make("IfcLocalPlacement", None, self.axes(at, axis, first))
        drawn = self.make("IfcShapeRepresentation", self.context, shape, "SweptSolid", [solid])
        body = self.make("IfcProductDefinitionShape", None, None, [drawn])
        return self.make(kind, new_id(), ObjectPlacement=placed, Representation=body, **fields)

    def system(self, members, name="Lights"):
        kind = "IfcSystem" if self.file.schema == "IFC2X3" else "IfcDistributionSystem"
        group = self.make(kind, new_id(), Name=name)
        self.make("IfcRelAssignsToGroup", new_id(), RelatedObjects=members, RelatingGroup=group)

    def read(self, **meant):
        return read_file(self.file.to_string().encode(), Meant(**meant))


def upright_then_right(model, segment, fitting, bend):
    """Four feet up, a bend of a radius of 5 inches, three feet right of the corner."""
    radius = 127.0
    lower = model.element(segment, model.extruded(4 * FOOT - radius))
    upper = model.element(segment, model.extruded(3 * FOOT - radius), (radius, 0, 4 * FOOT), (1, 0, 0), (0, 1, 0))
    turn = model.element(fitting, bend(radius), (0, 0, 4 * FOOT - radius))
    return [lower, turn, upper]


def revolved(model):
    """A bend that is a round turned about an axis a radius to the right, toward the right."""

    def bend(radius):
        about = model.make("IfcAxis1Placement", model.point(radius, 0, 0), model.way(0, 1, 0))
        return model.make("IfcRevolvedAreaSolid", model.round(), model.axes((0, 0, 0)), about, 90.0)

    return bend


def swept(model):
    """The same as a disk along an arc of a circle, mapped from a shape of its own."""

    def bend(radius):
        circle = model.make("IfcCircle", model.axes((radius, 0, 0), (0, -1, 0), (-1, 0, 0)), radius)
        ends = [[model.make("IfcParameterValue", float(angle))] for angle in (270, 0)]
        arc = model.make("IfcTrimmedCurve", circle, *ends, True, "PARAMETER")
        solid = model.make("IfcSweptDiskSolid", arc, 11.7094)
        shape = model.make("IfcShapeRepresentation", model.context, "Body", "AdvancedSweptSolid", [solid])
        source = model.make("IfcRepresentationMap", model.axes((0, 0, 0)), shape)
        target = model.make("IfcCartesianTransformationOperator3D", None, None, model.point(0, 0, 0), None, None)
        return model.make("IfcMappedItem", source, target)

    return bend


class OthersModels(TestCase):
    def assert_upright_then_right(self, brought, name):
        self.assertEqual(brought.passed_over, ())
        [one] = brought.runs
        [bend] = one.document["steps"]
        said = one.document["start"]["heading"], bend["turn"], bend["angle"], bend["at"], one.document["end"]["at"]
        heading, turn, angle, at, end = said
        # Drawn from either of its ends.
        if heading == "left":
            heading, turn, at, end = "up", "right", end, at
        self.assertEqual((heading, turn, angle), ("up", "right", 90.0))
        self.assertAlmostEqual(at, 48, 6)
        self.assertAlmostEqual(end, 36, 6)
        self.assertEqual((one.document["trade_size"], one.document["material"]), ("3/4", "EMT"))
        self.assertEqual(one.name, name)

    def test_extruded_pipe_and_bends_of_every_make_are_a_run_of_their_thickness(self):
        for bend in (revolved, swept):
            model = Model()
            model.system(upright_then_right(model, "IfcCableCarrierSegment", "IfcCableCarrierFitting", bend(model)))
            self.assert_upright_then_right(model.read(trade_size="1"), "Lights")

    def test_an_older_model_is_known_by_its_types_and_one_without_a_system_is_read(self):
        model = Model("IFC2X3")
        parts = upright_then_right(model, "IfcFlowSegment", "IfcFlowFitting", revolved(model))
        for kind, members in (("Segment", [parts[0], parts[2]]), ("Fitting", [parts[1]])):
            way = "CONDUITSEGMENT" if kind == "Segment" else "BEND"
            of_type = model.make(f"IfcCableCarrier{kind}Type", new_id(), PredefinedType=way)
            model.make("IfcRelDefinesByType", new_id(), RelatedObjects=members, RelatingType=of_type)
        self.assert_upright_then_right(model.read(), "")
        duct = model.element("IfcFlowSegment", model.extruded(900), (500, 0, 0))
        model.system([duct], "Air")
        self.assertEqual(len(model.read().runs), 1)

    def test_a_coupling_in_a_gap_joins_and_one_about_the_pipe_is_left(self):
        model = Model()
        lower = model.element("IfcCableCarrierSegment", model.extruded(500))
        upper = model.element("IfcCableCarrierSegment", model.extruded(500), (0, 0, 600))
        between = model.element("IfcCableCarrierFitting", model.extruded(100), (0, 0, 500))
        about = model.element("IfcCableCarrierFitting", model.extruded(80), (0, 0, 800))
        model.system([lower, upper, between, about])
        [one] = model.read().runs
        self.assertAlmostEqual(one.document["end"]["at"], 1100 / 25.4, 6)

    def test_a_shape_without_a_known_axis_is_told_by_its_number(self):
        model = Model()
        square = model.make("IfcRectangleProfileDef", "AREA", None, None, 50.0, 50.0)
        tray = model.element("IfcCableCarrierSegment", model.extruded(500, square))
        model.system([tray, model.element("IfcCableCarrierSegment", model.extruded(700), (900, 0, 0))])
        brought = model.read()
        self.assertEqual([where for where, _ in brought.passed_over], [f"#{tray.id()}"])
        self.assertEqual(len(brought.runs), 1)

    def test_what_a_pipe_runs_into_is_told_by_name_only_where_it_is_asked_for(self):
        model = Model()
        model.system([model.element("IfcCableCarrierSegment", model.extruded(2000))])
        beam = model.make("IfcRectangleProfileDef", "AREA", None, None, 100.0, 100.0)
        model.element("IfcBeam", model.extruded(600, beam), (-300, 0, 1016), (1, 0, 0), (0, 1, 0), Name="Beam 7")
        model.element("IfcBeam", model.extruded(600, beam), (-300, 200, 1016), (1, 0, 0), (0, 1, 0), Name="Beam 8")
        [told] = model.read(things=True).runs[0].told
        self.assertEqual(str(told), "It runs into Beam 7, 37 9/16 along its corners.")
        self.assertEqual(model.read().runs[0].told, ())


class OwnModels(TestCase):
    def test_things_come_back_under_their_saddles_and_boxes_at_their_ends(self):
        brought = read_file(given_out(run(DUCT), "ifc"), Meant(things=True))
        [one] = brought.runs
        again = next(step for step in one.document["steps"] if step["kind"] == "saddle3")
        self.assertEqual((again["over"]["shape"], again["over"]["name"]), ("round", "gas line"))
        self.assertAlmostEqual(again["over"]["height"], 1.75, 6)
        self.assertAlmostEqual(again["over"]["clear"], 0.5, 6)
        self.assertEqual(again["angle"], 45.0)
        self.assertEqual((one.document["start"]["name"], one.document["end"]["name"]), ("KP", "K2"))
        self.assertEqual(one.told, ())
        [before], [after] = (
            model_of_run(raw).pipes[0].things
            for raw in (document(DUCT), {**one.document, "shoe": document(DUCT)["shoe"]})
        )
        self.assertEqual((after.name, after.clearance), (before.name, before.clearance))

    def test_a_four_bend_saddle_has_its_room_and_what_it_goes_over(self):
        [one] = read_file(given_out(run("mezzanine-feed.note"), "ifc"), Meant(things=True)).runs
        saddle = one.document["steps"][1]
        self.assertEqual((saddle["kind"], saddle["margin"], saddle["width"], saddle["beyond"]), ("saddle4", 0.5, 10, 2))
        self.assertEqual(saddle["over"]["name"], "duct")
        [bare] = read_file(given_out(run("mezzanine-feed.note"), "ifc")).runs
        self.assertEqual(("over" in bare.document["steps"][1], bare.document["steps"][1]["width"]), (False, 11))

    def test_a_jobs_runs_come_back_by_name(self):
        brought = read_file(given_out(job(), "ifc"))
        self.assertEqual({one.name for one in brought.runs}, {"Kiln 2 feed, the long way", "Kiln 2 feed"})
