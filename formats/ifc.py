"""IFC 4, by ifcopenshell: straight segments, bends, couplings, boxes, supports and what is in the way. Millimetres.

| in the run | in IFC |
|---|---|
| straight pipe | `IfcCableCarrierSegment` CONDUITSEGMENT, its length in `Qto_CableCarrierSegmentBaseQuantities` |
| bend | `IfcCableCarrierFitting` BEND; angle and radius in `Crelda_Bend` |
| coupling | `IfcCableCarrierFitting` USERDEFINED, “COUPLING” |
| box, pull point | `IfcJunctionBox` POWER |
| strap | `IfcDiscreteAccessory` USERDEFINED, “STRAP” |
| thing in the way | `IfcBuildingElementProxy` USERDEFINED, “OBSTACLE” |

Each run is an `IfcDistributionSystem` (ELECTRICAL) of its parts; of a rack or a job there are several. Identifiers are
made from names and numbers, so that the same run gives the same file.
"""

from collections.abc import Sequence
from typing import Any
from uuid import NAMESPACE_URL, uuid5

import ifcopenshell
import ifcopenshell.guid

from conduit.geometry import Vec, square_to
from conduit.plan import PictureFitting
from formats.model import Arc, Box, Part, Pipe, Sleeve, SpaceModel

MILLIMETRE = 25.4
Entity = Any
WRITTEN_BY = "Crelda"


def write_ifc(model: SpaceModel) -> bytes:
    """A model as IFC 4 (a STEP file)."""
    return _Writer(model).write()


class _Writer:
    """One file as it grows."""

    def __init__(self, model: SpaceModel) -> None:
        self.model = model
        self.file = ifcopenshell.file(schema="IFC4")
        self.count = 0
        self.origin = self._axes(Vec(0.0, 0.0, 0.0))

    def write(self) -> bytes:
        """All of it."""
        storey = self._frame()
        parts = [entity for pipe in self.model.pipes for entity in self._pipe(pipe)]
        parts += [self._box(box) for box in self.model.boxes]
        parts += [
            self._solid("IfcBuildingElementProxy", thing.name, "OBSTACLE", thing.body.near, thing.body.far)
            for thing in self.model.things
        ]
        self._root("IfcRelContainedInSpatialStructure", "", RelatedElements=parts, RelatingStructure=storey)
        return self._text().encode()

    def _text(self) -> str:
        header = self.file.header
        header.file_description.description = ("ViewDefinition [DesignTransferView]",)
        header.file_name.name = self.model.name
        header.file_name.time_stamp = "1970-01-01T00:00:00"
        header.file_name.author = ("",)
        header.file_name.organization = ("",)
        header.file_name.preprocessor_version = header.file_name.originating_system = WRITTEN_BY
        header.file_name.authorization = ""
        return str(self.file.to_string())

    # --- project, units, places

    def _frame(self) -> Entity:
        make = self.file.create_entity
        length = make("IfcSIUnit", UnitType="LENGTHUNIT", Prefix="MILLI", Name="METRE")
        angle = make("IfcSIUnit", UnitType="PLANEANGLEUNIT", Name="RADIAN")
        self.context = make(
            "IfcGeometricRepresentationContext",
            ContextType="Model",
            CoordinateSpaceDimension=3,
            Precision=1e-5,
            WorldCoordinateSystem=self.origin,
        )
        self.body = make(
            "IfcGeometricRepresentationSubContext",
            ContextIdentifier="Body",
            ContextType="Model",
            ParentContext=self.context,
            TargetView="MODEL_VIEW",
        )
        project = self._root(
            "IfcProject",
            self.model.name,
            RepresentationContexts=[self.context],
            UnitsInContext=make("IfcUnitAssignment", Units=[length, angle]),
        )
        above = project
        for kind, name in (("IfcSite", "Site"), ("IfcBuilding", "Building"), ("IfcBuildingStorey", "Storey")):
            place = self._root(kind, name, ObjectPlacement=self._placement())
            self._root("IfcRelAggregates", "", RelatingObject=above, RelatedObjects=[place])
            above = place
        return above

    # --- what a run consists of

    def _pipe(self, pipe: Pipe) -> list[Entity]:
        material = self.file.create_entity("IfcMaterial", Name=pipe.material)
        made = [self._part(pipe, part, number) for number, part in enumerate(pipe.parts, 1)]
        made += [self._sleeve(pipe, one) for one in pipe.sleeves]
        made += [self._pull_point(pipe, one) for one in pipe.fittings if one.kind == "pull_point"]
        system = self._root("IfcDistributionSystem", pipe.name, Description=_size(pipe), PredefinedType="ELECTRICAL")
        self._root("IfcRelAssignsToGroup", "", RelatedObjects=made, RelatingGroup=system)
        self._root("IfcRelAssociatesMaterial", "", RelatedObjects=made, RelatingMaterial=material)
        self._properties(
            "Crelda_Run",
            [system],
            {
                "TradeSize": ("IfcLabel", pipe.trade_size),
                "Material": ("IfcLabel", pipe.material),
                "OutsideDiameter": ("IfcPositiveLengthMeasure", pipe.diameter * MILLIMETRE),
                "DevelopedLength": ("IfcPositiveLengthMeasure", pipe.length * MILLIMETRE),
                "Bends": ("IfcInteger", len(pipe.arcs)),
                "Couplings": ("IfcInteger", sum(one.kind == "coupling" for one in pipe.fittings)),
            },
        )
        return made

    def _part(self, pipe: Pipe, part: Part, number: int) -> Entity:
        solid = self._swept(part, pipe.diameter / 2)
        if not isinstance(part, Arc):
            made = self._element(
                "IfcCableCarrierSegment", f"{pipe.name}, part {number}", solid, PredefinedType="CONDUITSEGMENT"
            )
            self._length_of(made, part.length)
            return made
        made = self._element("IfcCableCarrierFitting", f"{pipe.name}, part {number}", solid, PredefinedType="BEND")
        bend = {
            "Angle": ("IfcPlaneAngleMeasure", part.angle),
            "CentrelineRadius": ("IfcPositiveLengthMeasure", part.radius * MILLIMETRE),
            "ArcLength": ("IfcPositiveLengthMeasure", part.length * MILLIMETRE),
        }
        self._properties("Crelda_Bend", [made], bend)
        return made

    def _sleeve(self, pipe: Pipe, one: Sleeve) -> Entity:
        kind = "IfcCableCarrierFitting" if one.kind == "coupling" else "IfcDiscreteAccessory"
        solid = self._cylinder(one.start, one.end, one.radius)
        return self._element(
            kind, f"{pipe.name}, {one.kind}", solid, PredefinedType="USERDEFINED", ObjectType=one.kind.upper()
        )

    def _pull_point(self, pipe: Pipe, one: PictureFitting) -> Entity:
        at, way, half = Vec(*one.point), Vec(*one.heading), 2 * pipe.diameter
        return self._junction(one.name, self._cylinder(at.along(way, -half), at.along(way, half), half))

    def _length_of(self, element: Entity, inches: float) -> None:
        length = self.file.create_entity("IfcQuantityLength", Name="Length", LengthValue=inches * MILLIMETRE)
        quantities = self._root("IfcElementQuantity", "Qto_CableCarrierSegmentBaseQuantities", Quantities=[length])
        self._root("IfcRelDefinesByProperties", "", RelatedObjects=[element], RelatingPropertyDefinition=quantities)

    def _properties(self, name: str, of: Sequence[Entity], values: dict[str, tuple[str, Any]]) -> None:
        make = self.file.create_entity
        single = [
            make("IfcPropertySingleValue", Name=key, NominalValue=make(kind, value))
            for key, (kind, value) in values.items()
        ]
        told = self._root("IfcPropertySet", name, HasProperties=single)
        self._root("IfcRelDefinesByProperties", "", RelatedObjects=list(of), RelatingPropertyDefinition=told)

    def _box(self, box: Box) -> Entity:
        return self._junction(box.name, self._faceted(box.back, box.front))

    def _junction(self, name: str, solid: Entity) -> Entity:
        return self._element("IfcJunctionBox", name, solid, PredefinedType="POWER")

    def _solid(self, kind: str, name: str, called: str, near: Sequence[Any], far: Sequence[Any]) -> Entity:
        faceted = self._faceted([Vec(*at) for at in near], [Vec(*at) for at in far])
        return self._element(kind, name, faceted, PredefinedType="USERDEFINED", ObjectType=called)

    # --- shapes

    def _swept(self, part: Part, radius: float) -> Entity:
        """A disk along a straight, or along an arc through its ends and middle."""
        make = self.file.create_entity
        points = part.points(2) if isinstance(part, Arc) else part.points()
        listed = make("IfcCartesianPointList3D", CoordList=[_mm(at) for at in points])
        index = make("IfcArcIndex", (1, 2, 3)) if isinstance(part, Arc) else make("IfcLineIndex", (1, 2))
        curve = make("IfcIndexedPolyCurve", Points=listed, Segments=[index], SelfIntersect=False)
        return make("IfcSweptDiskSolid", Directrix=curve, Radius=radius * MILLIMETRE)

    def _cylinder(self, start: Vec, end: Vec, radius: float) -> Entity:
        make = self.file.create_entity
        profile = make("IfcCircleProfileDef", ProfileType="AREA", Radius=radius * MILLIMETRE)
        return make(
            "IfcExtrudedAreaSolid",
            SweptArea=profile,
            Position=self._axes(start, end.minus(start).unit()),
            ExtrudedDirection=make("IfcDirection", (0.0, 0.0, 1.0)),
            Depth=end.minus(start).length() * MILLIMETRE,
        )

    def _faceted(self, near: Sequence[Vec], far: Sequence[Vec]) -> Entity:
        """The prism between two polygons of as many points."""
        make = self.file.create_entity
        count = len(near)
        rings = [list(range(count))[::-1], [count + i for i in range(count)]]
        rings += [[i, (i + 1) % count, count + (i + 1) % count, count + i] for i in range(count)]
        points = make("IfcCartesianPointList3D", CoordList=[_mm(at) for at in (*near, *far)])
        faces = [make("IfcIndexedPolygonalFace", CoordIndex=[at + 1 for at in ring]) for ring in rings]
        return make("IfcPolygonalFaceSet", Coordinates=points, Closed=True, Faces=faces)

    def _element(self, kind: str, name: str, solid: Entity, **fields: Any) -> Entity:
        make = self.file.create_entity
        shape = make(
            "IfcShapeRepresentation",
            ContextOfItems=self.body,
            RepresentationIdentifier="Body",
            RepresentationType=_SHAPES[solid.is_a()],
            Items=[solid],
        )
        return self._root(
            kind,
            name,
            ObjectPlacement=self._placement(),
            Representation=make("IfcProductDefinitionShape", Representations=[shape]),
            **fields,
        )

    # --- what everything has

    def _root(self, kind: str, name: str, **fields: Any) -> Entity:
        self.count += 1
        unique = uuid5(NAMESPACE_URL, f"crelda:{self.model.name}:{self.count}:{kind}:{name}")
        guid = ifcopenshell.guid.compress(unique.hex)
        return self.file.create_entity(kind, GlobalId=guid, Name=name or None, **fields)

    def _placement(self) -> Entity:
        return self.file.create_entity("IfcLocalPlacement", RelativePlacement=self.origin)

    def _axes(self, at: Vec, way: Vec | None = None) -> Entity:
        make = self.file.create_entity
        axis = make("IfcDirection", _ifc(way)) if way else None
        reference = make("IfcDirection", _ifc(square_to(way))) if way else None
        point = make("IfcCartesianPoint", _mm(at))
        return make("IfcAxis2Placement3D", Location=point, Axis=axis, RefDirection=reference)


_SHAPES = {
    "IfcSweptDiskSolid": "AdvancedSweptSolid",
    "IfcExtrudedAreaSolid": "SweptSolid",
    "IfcPolygonalFaceSet": "Tessellation",
}


def _size(pipe: Pipe) -> str:
    return f"{pipe.trade_size} {pipe.material}"


def _ifc(way: Vec) -> tuple[float, float, float]:
    """IFC's z is up: right, away from the person (into the wall), up."""
    return way.x, -way.z, way.y


def _mm(at: Vec) -> tuple[float, float, float]:
    x, y, z = _ifc(at)
    return x * MILLIMETRE, y * MILLIMETRE, z * MILLIMETRE
