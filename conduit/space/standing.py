"""A run where it stands in the job: by the box it starts at, bent in simulation, with what sits on its pipe. Inches."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from conduit.document import End, Start
from conduit.geometry import Vec
from conduit.layout import Hindrance
from conduit.plan import CheckedRun, Picture, picture_of
from conduit.simulation import Bent, Curve, CurvePart, curve_of, curve_parts
from conduit.space.boxes import RunEnd, StandingBox
from conduit.space.clipped import clipped
from conduit.space.frame import JobFrame
from conduit.tables import FITTING_OVER, FITTING_ROUND, STRAP_OVER, STRAP_WIDE
from conduit.units import Tape

# Of its radius, so much an arc lies outside the chords of an outline at most.
OUTSIDE_CHORD = 0.01


@dataclass(frozen=True)
class RunGiven:
    """A run of the job: how whoever keeps it knows it, its document, and for a rack's pipe whose it is and which."""

    key: str
    document: Mapping[str, Any]
    lead: str | None = None
    number: int = 1


@dataclass(frozen=True)
class AtBox:
    """An end of a run at a box that was placed: where it seats by the box, and which way it leaves it."""

    box: StandingBox
    end: RunEnd
    seat: Vec
    leaving: Vec
    aside_known: bool

    @property
    def side(self) -> tuple[str, int, int, int]:
        """The side of which box it leaves by."""
        return self.box.key, round(self.leaving.x), round(self.leaving.y), round(self.leaving.z)


@dataclass(frozen=True)
class Body:
    """Something of a run that takes room: a centreline, and how thick it is all around."""

    curve: Curve
    radius: float


@dataclass(frozen=True, eq=False)
class StandingRun:
    """A run laid out to its end, where it stands; `ends`: those at boxes that were placed. Told apart by itself."""

    given: RunGiven
    checked: CheckedRun
    bent: Bent
    frame: JobFrame
    by: RunEnd
    ends: Mapping[RunEnd, AtBox] = field(default_factory=dict)

    @property
    def name(self) -> str:
        """As it was called."""
        return self.checked.measured.head.name

    @property
    def tape(self) -> Tape:
        """By which it was measured."""
        return self.checked.measured.head.tape

    @property
    def diameter(self) -> float:
        """Of its pipe, outside."""
        return self.checked.shoe.diameter if self.checked.shoe else 0.0

    @property
    def rack(self) -> str:
        """The key of the rack that it lies in: of its lead, or its own."""
        return self.given.lead or self.given.key

    @property
    def in_rack(self) -> bool:
        """Whether it lies beside others on a rack's struts."""
        return self.given.lead is not None or bool(self.given.document.get("rack"))

    @cached_property
    def picture(self) -> Picture:
        """Its own picture, in its own frame."""
        checked = self.checked
        if not checked.layout or not checked.shoe:
            raise AssertionError("a run that stands is laid out on a shoe")
        return picture_of(checked.layout, checked.measured, checked.shoe, checked.couplings, checked.straps, ())

    @cached_property
    def parts(self) -> list[CurvePart]:
        """Its straights and arcs where they stand."""
        return [self.frame.part(one) for one in curve_parts(self.bent)]

    @cached_property
    def bodies(self) -> list[Body]:
        """Its pipe; its couplings and connectors; its straps' bands."""
        return self.bodies_within(0.0, self.bent.length)

    def bodies_within(self, low: float, high: float) -> list[Body]:
        """What of those lies between two places along its pipe."""
        radius = self.diameter / 2
        found = [(list(self._clipped(low, high)), radius)]
        for spans, over in ((self._fittings, FITTING_OVER), (self._straps, STRAP_OVER)):
            inside = [(max(low, a), min(high, b)) for a, b in spans if a < high and b > low]
            found.append(([part for span in inside for part in self._clipped(*span)], radius + over))
        return [Body(curve_of(parts, self.bent.radius), thick) for parts, thick in found if parts]

    def _clipped(self, low: float, high: float) -> Iterator[CurvePart]:
        return clipped(self.parts, self.bent.radius, low, high)

    @property
    def _fittings(self) -> Sequence[tuple[float, float]]:
        half = self.fitting_length / 2
        gap, long = self.checked.measured.head.gap_by(self.checked.limits), self.bent.length
        couplings = [(place + gap / 2 - half, place + gap / 2 + half) for place in self.checked.couplings]
        measured = self.checked.measured
        connectors = [
            span
            for end, span in ((measured.start, (0.0, half)), (measured.end, (long - half, long)))
            if end and not end.open
        ]
        return [*couplings, *connectors]

    @property
    def fitting_length(self) -> float:
        """Of a coupling on its pipe."""
        return self.diameter + FITTING_ROUND

    @property
    def _straps(self) -> Sequence[tuple[float, float]]:
        return [(place - STRAP_WIDE / 2, place + STRAP_WIDE / 2) for place in self.checked.straps]

    @cached_property
    def _box(self) -> tuple[Vec, Vec]:
        """The corners of a box around its outline."""
        points = [self.frame.placed(point) for point in self.bent.outline]
        lows, highs = (Vec(*(pick(axis) for axis in zip(*points, strict=True))) for pick in (min, max))
        return lows, highs

    @property
    def thickest(self) -> float:
        """How far what sits on it reaches out from its centreline."""
        return self.diameter / 2 + FITTING_OVER

    def is_apart_from(self, other: "StandingRun", distance: float) -> bool:
        """Whether boxes around both centrelines are farther apart than that."""
        (low, high), (their_low, their_high) = self._box, other._box
        spare = distance + (self.bent.radius + other.bent.radius) * OUTSIDE_CHORD
        return any(a - d > spare or c - b > spare for a, b, c, d in zip(low, high, their_low, their_high, strict=True))

    def is_farther_from(self, point: Vec, distance: float) -> bool:
        """Whether all of its centreline is farther from a point than that, by the box around it alone."""
        low, high = self._box
        off = [max(a - at, at - b, 0.0) for a, at, b in zip(low, point, high, strict=True)]
        return math.hypot(*off) > distance + self.bent.radius * OUTSIDE_CHORD

    def point_at(self, s: float) -> Vec:
        """Where a place along its straight pipe comes to be in the job."""
        return self.frame.placed(self.bent.point_at(s))

    def step_at(self, s: float) -> int | None:
        """The index of the step whose bends are nearest to a place along its pipe; None without any."""
        return self.checked.layout.step_near(s) if self.checked.layout else None

    @property
    def things(self) -> Sequence[Hindrance]:
        """What was measured as in its way."""
        return self.checked.layout.hindrances if self.checked.layout else ()

    @property
    def face_b(self) -> Vec:
        """Where end B comes to be by its own measures, at the box's face, as the job sees it."""
        layout, end = self.checked.layout, self.checked.measured.end
        if not layout:
            return self.frame.origin
        face = layout.ends_at.along(self.bent.end.heading, (end.connector if end else None) or 0.0)
        return self.frame.placed(face)


def stood(
    given: RunGiven, checked: CheckedRun, start: StandingBox | None, end: StandingBox | None
) -> StandingRun | None:
    """A run by the box that it starts at, or else by the one that it ends at; None where neither was placed.

    None too where it is not laid out to its end, or cannot be bent: what stands nowhere is measured against nothing.
    """
    prover, layout, measured = checked.prover, checked.layout, checked.measured
    if not prover or not layout or not measured.start or not measured.end or not (start or end):
        return None
    bent = prover.exact_bent
    ways: dict[RunEnd, Vec] = {"A": layout.path.heading, "B": bent.end.heading.times(-1)}
    faces: dict[RunEnd, Vec] = {
        "A": layout.starts_at.along(ways["A"], -(measured.start.connector or 0.0)),
        "B": layout.ends_at.along(ways["B"], -(measured.end.connector or 0.0)),
    }
    parts: dict[RunEnd, Start | End] = {"A": measured.start, "B": measured.end}
    placed: dict[RunEnd, StandingBox] = {end: box for end, box in (("A", start), ("B", end)) if box}  # type: ignore[misc]
    by: RunEnd = "A" if start else "B"
    facing = JobFrame.facing(placed[by].given.wall)
    ends = {}
    for name, box in placed.items():
        leaving = box.frame.own(facing.turned(ways[name]))
        aside = box.aside_of(given.key, name)
        off = parts[name].knockout
        off = checked.measured.head.stand_off + prover.shoe.diameter / 2 if off is None else off
        ends[name] = AtBox(box, name, box.seat(leaving, aside or 0.0, off), leaving, aside is not None)
    return StandingRun(given, checked, bent, facing.through(faces[by], ends[by].seat), by, ends)


def stood_in_rack(given: RunGiven, checked: CheckedRun, lead: StandingRun, origin: Vec) -> StandingRun | None:
    """A rack's pipe, which stands beside its lead; `origin`: its end A from the lead's, in the lead's frame."""
    if not checked.prover:
        return None
    return StandingRun(given, checked, checked.prover.exact_bent, lead.frame.moved(origin), lead.by)


def ends_named(checked: CheckedRun) -> Iterator[tuple[RunEnd, str]]:
    """The names of the boxes at a run's ends; none of an end that is open, or has no name."""
    ends: tuple[tuple[RunEnd, Start | End | None], ...] = (("A", checked.measured.start), ("B", checked.measured.end))
    yield from ((name, part.name) for name, part in ends if part and part.name.strip() and not part.open)
