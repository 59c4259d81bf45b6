"""IFC read, by ifcopenshell: systems that carry cables become runs, boxes name their ends, things lie in their way.

Segments and bends are known by their classes (`IfcCableCarrierSegment`, `IfcCableCarrierFitting`; in IFC 2x3 by their
types); a system is a group that has some. What of them is not understood is told by its number in the file.
"""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import islice
from typing import Any

import ifcopenshell
import ifcopenshell.geom
from ifcopenshell.util.element import get_pset, get_type
from ifcopenshell.util.unit import calculate_unit_scale

from conduit.catalogue import Message
from conduit.geometry import Vec
from formats.chains import Chain, DrawnPart, chains_of, joining
from formats.ifc_axes import Entity, Frame, NotUnderstood, axis_of
from formats.refusal import Refusal
from formats.solids import Solid
from formats.words import message

INCHES_IN_METRE = 1000 / 25.4
# What is looked at: of a larger model nothing is; and so many boxes, and things.
MOST_PARTS, MOST_SOLIDS = 20_000, 2_000
SEGMENTS, FITTINGS = "IfcCableCarrierSegment", "IfcCableCarrierFitting"
# Of IFC 2x3, whose segments and fittings are what their type is.
OLD = {"IfcFlowSegment": f"{SEGMENTS}Type", "IfcFlowFitting": f"{FITTINGS}Type"}
BOXES = ("IfcJunctionBox", "IfcOutlet", "IfcSwitchingDevice", "IfcElectricDistributionBoard", "IfcProtectiveDevice")
THINGS = ("IfcBeam", "IfcColumn", "IfcMember", "IfcBuildingElementProxy", "IfcFlowSegment", "IfcFlowFitting")
# What a file of another kind, or a broken one, makes the library say.
BROKEN = (RuntimeError, ValueError, TypeError, AttributeError, KeyError, IndexError, RecursionError, ArithmeticError)


class UnreadableModel(Refusal):
    """It is no model that can be read; the message says why."""


@dataclass(frozen=True)
class Carrier:
    """A system's pipe, as the model calls it; empty and None: it does not say."""

    name: str
    trade_size: str = ""
    material: str = ""
    diameter: float | None = None


@dataclass(frozen=True)
class Model:
    """What was read: centrelines with their pipe, what was passed over with why, boxes, and things in the way."""

    chains: tuple[tuple[Carrier, Chain], ...]
    passed_over: tuple[tuple[str, Message], ...]
    boxes: tuple[Solid, ...]
    things: tuple[Solid, ...]


def read_ifc(data: bytes, with_things: bool = False) -> Model:
    """The centrelines in a model, and on demand the things that may lie in their way. Raises UnreadableModel."""
    try:
        file = ifcopenshell.file.from_string(data.decode("utf-8", "replace"))
        return _Reader(file).read(with_things)
    except BROKEN as error:
        raise UnreadableModel(message("import.no_ifc")) from error


class _Reader:
    """One model as it is read."""

    def __init__(self, file: Any) -> None:
        self.file = file
        inches = calculate_unit_scale(file) * INCHES_IN_METRE
        self.frame = Frame(inches, calculate_unit_scale(file, "PLANEANGLEUNIT"))
        self.passed = list[tuple[str, Message]]()

    def read(self, with_things: bool) -> Model:
        carriers = self._carriers()
        if len(carriers) > MOST_PARTS:
            raise UnreadableModel(message("import.too_many_parts", most=MOST_PARTS))
        chains = [one for system, parts in self._systems(carriers) for one in self._chains(system, parts)]
        boxes = tuple(self._solids(BOXES, ())) if chains else ()
        # A junction box is a fitting to IFC, and what carries cables is a run's own.
        own = {*carriers, *(one.id() for one in self._of(*BOXES))}
        things = tuple(self._solids(THINGS, own)) if chains and with_things else ()
        return Model(tuple(chains), tuple(self.passed), boxes, things)

    def _of(self, *classes: str) -> Iterator[Entity]:
        """Elements of classes; some versions of IFC lack some of them."""
        for one in classes:
            try:
                yield from self.file.by_type(one)
            except RuntimeError:
                continue

    def _carriers(self) -> dict[int, Entity]:
        """Segments and fittings that carry cables, by their number."""
        found = {one.id(): one for one in self._of(SEGMENTS, FITTINGS)}
        if not found:
            for old, by_type in OLD.items():
                for one in self._of(old):
                    kind = get_type(one)
                    if kind and kind.is_a(by_type):
                        found[one.id()] = one
        return found

    def _systems(self, carriers: Mapping[int, Entity]) -> Iterator[tuple[Entity | None, list[Entity]]]:
        """Each system that has some of them, in the file's order; then those that are in none, together."""
        alone = dict(carriers)
        for group in self._of("IfcRelAssignsToGroup"):
            members = [alone.pop(one.id()) for one in group.RelatedObjects if one.id() in alone]
            if members and group.RelatingGroup.is_a("IfcSystem"):
                yield group.RelatingGroup, members
            else:
                alone |= {one.id(): one for one in members}
        if alone:
            yield None, list(alone.values())

    def _chains(self, system: Entity | None, members: Sequence[Entity]) -> Iterator[tuple[Carrier, Chain]]:
        parts, sleeves, diameters = list[DrawnPart](), list[DrawnPart](), list[float]()
        for element in members:
            called = f"#{element.id()}"
            try:
                axis = axis_of(element, called, self.frame)
            except NotUnderstood:
                self.passed.append((called, message("import.no_axis")))
                continue
            if not axis.parts:
                self.passed.append((called, message("import.half_round")))
            is_pipe = _is_segment(element) or any(part.corner for part in axis.parts)
            (parts if is_pipe else sleeves).extend(axis.parts)
            if is_pipe and axis.diameter:
                diameters.append(axis.diameter)
        joined, refused = chains_of([*parts, *joining(sleeves, parts)])
        self.passed += refused
        carrier = _carrier(system, sorted(diameters)[len(diameters) // 2] if diameters else None)
        yield from ((carrier, chain) for chain in joined)

    def _solids(self, classes: Sequence[str], but: Collection[int]) -> Iterator[Solid]:
        """Elements by their outermost points; what has no shape is passed over, and what would be too many told."""
        settings = ifcopenshell.geom.settings()
        settings.set("use-world-coords", True)
        settings.set("disable-opening-subtractions", True)
        wanted = (one for one in self._of(*classes) if one.Representation and one.id() not in but)
        for element in islice(wanted, MOST_SOLIDS):
            try:
                vertices = ifcopenshell.geom.create_shape(settings, element).geometry.verts
            except RuntimeError:
                self.passed.append((f"#{element.id()}", message("import.no_shape")))
                continue
            points = {tuple(vertices[i : i + 3]) for i in range(0, len(vertices), 3)}
            metres = Frame(INCHES_IN_METRE, 1.0)
            if points:
                placed = tuple(metres.vec(at) for at in sorted(points))
                yield Solid(element.Name or element.is_a(), f"#{element.id()}", placed)
        if next(wanted, None):
            self.passed.append((classes[0], message("import.too_many_solids", most=MOST_SOLIDS)))


def _is_segment(element: Entity) -> bool:
    return bool(element.is_a(SEGMENTS) or element.is_a("IfcFlowSegment"))


def _carrier(system: Entity | None, diameter: float | None) -> Carrier:
    if system is None:
        return Carrier("", diameter=diameter)
    own = get_pset(system, "Crelda_Run") or {}
    size, material = (str(own.get(name) or "") for name in ("TradeSize", "Material"))
    return Carrier(str(system.Name or "")[:80], size, material, diameter)


def box_at(point: Vec, boxes: Sequence[Solid], near: float = 1.0) -> str:
    """The name of the box in which a pipe ends; empty where it ends in none. Inches."""
    for box in boxes:
        spans = [box.spans(point, way) for way in (Vec(1, 0, 0), Vec(0, 1, 0), Vec(0, 0, 1))]
        if all(low - near <= 0 <= high + near for low, high in spans):
            return box.name[:80]
    return ""
