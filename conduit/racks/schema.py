"""What is worked out for a rack: every pipe, every gap, the struts that carry it. Inches; right, up and out."""

from typing import Any

from pydantic import Field

from conduit.findings import Finding
from conduit.plan import Measure, PictureEnd, PictureFitting, Point
from conduit.tables import Material, TradeSize
from conduit.values import Result


class RackedStep(Result):
    """What a pipe makes of one of the lead's steps, where it differs from the lead's."""

    step: int = Field(description="Index of the lead's step, from 0.")
    kind: str
    later: Measure = Field(description="How much further along its leg than the lead's it lies; negative: earlier.")
    kick: Measure | None = Field(description="How far a kick of its own lifts it.")
    setback: Measure | None
    radius: Measure | None = Field(description="Of a sweep.")


class RackedPipe(Result):
    """One pipe of a rack as it would be bent, where it stands beside the lead."""

    number: int
    name: str
    material: Material
    trade_size: TradeSize
    diameter: float
    free: bool = Field(description="Its place is left free.")
    leaves: bool = Field(description="It goes on with steps of its own.")
    follows: int = Field(description="How many of the lead's steps it takes.")
    beside: Measure = Field(description="From the lead's centre to its own at the start.")
    makeable: bool
    complete: bool
    shoe: str
    developed_length: Measure | None
    degrees: float
    steps: list[RackedStep]
    lines: list[list[Point]] = Field(description="Legs and arcs in turn, a polyline each, starting with a leg.")
    start: PictureEnd
    end: PictureEnd | None
    fittings: list[PictureFitting]
    document: dict[str, Any] = Field(description="Its own run document, as it would have been measured.")
    findings: list[Finding] = Field(description="At places in the lead's document.")


class RackGap(Result):
    """How near two pipes come to each other, bent in simulation, surface to surface."""

    first: int
    second: int
    asked: Measure | None = Field(
        description="What was asked between neighbours; null: they are none, or one has left."
    )
    least: Measure
    kept: bool
    equal: bool = Field(description="It is what was asked, to a millionth of an inch.")
    at: Point = Field(description="Where they come nearest.")
    step: int | None = Field(description="Index of the lead's step where that is; null: on the first leg.")


class RackStrut(Result):
    """A strut across the rack at one of the lead's supports."""

    at: Measure = Field(description="Along the lead.")
    ends: tuple[Point, Point]
    length: Measure
    holes: list[Measure] = Field(description="Each pipe's centre along the strut, from its end on the lead's side.")
    pipes: list[int]


class RackPlan(Result):
    """All that is worked out for a rack. An impossible one is drawn as far as it goes."""

    makeable: bool = Field(description="Every pipe can be bent, and none runs into another, bent in simulation.")
    gaps_kept: bool = Field(description="No two come nearer than was asked.")
    pipes: list[RackedPipe]
    gaps: list[RackGap]
    struts: list[RackStrut]
    findings: list[Finding]

    def all_findings(self) -> list[Finding]:
        """What is found of the rack, and of every pipe beside the lead."""
        return [*self.findings, *(one for pipe in self.pipes[1:] for one in pipe.findings)]
