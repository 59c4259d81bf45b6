"""What is told of a job's space. Points are in the job's frame: along, up, out from the datum. Inches."""

from typing import Literal

from pydantic import Field

from conduit.catalogue import Message
from conduit.findings import Edit, Finding, Severity
from conduit.plan import Measure, PictureEnd, PictureFitting, PictureSurface, PictureThing, Point, Prism
from conduit.space.boxes import RunEnd
from conduit.values import Result


class BoxInSpace(Result):
    """A box where it was placed. `runs`: which end of which run is there."""

    key: str
    name: str
    body: Prism
    middle: Point
    runs: list["EndAtBox"]


class EndAtBox(Result):
    """An end of a run at a box."""

    run: str
    end: RunEnd
    aside_known: bool = Field(description="Whether it was said which knockout it takes.")


class UnplacedBox(Result):
    """A box that runs name and nobody placed yet."""

    key: str
    name: str
    runs: list[EndAtBox]


class RunInSpace(Result):
    """A run of the job; one that does not stand says why, and has no lines.

    `lines`: legs and arcs in turn, each as points, starting with a leg.
    """

    key: str
    name: str
    stands: bool
    why_not: Message
    by: RunEnd | None = Field(description="By the box at which end it stands.")
    diameter: float
    lines: list[list[Point]]
    bends: list[Point]
    fittings: list[PictureFitting]
    things: list[PictureThing]
    ends: list[PictureEnd]


class ClosingOfRun(Result):
    """A run between two placed boxes."""

    run: str
    box: str
    closes: bool
    misses: Measure
    says: Message


class SpaceClash(Result):
    """Where runs come nearer than they should, said once for both.

    `steps`: the index of the step of each at which it is; `along`: how far along each that is from its end A.
    `other` is empty, and `thing` the name, where it is something in the way of `owner`.
    """

    kind: Literal["runs", "thing", "knockout"]
    severity: Severity
    run: str
    other: str
    thing: str
    least: Measure | None
    asked: Measure | None
    at: Point
    steps: dict[str, int | None]
    says: Message


class JobSpace(Result):
    """The job in one space."""

    boxes: list[BoxInSpace]
    unplaced: list[UnplacedBox]
    runs: list[RunInSpace]
    closings: list[ClosingOfRun]
    clashes: list[SpaceClash]
    walls: list[PictureSurface]
    asked: Measure = Field(description="What the crew keeps clear between runs.")
    clear: bool = Field(description="Every run stands, was measured against every other, and none comes too near.")
    findings: list[Finding]


class RunAmongOthers(Result):
    """What a job's space says of one run, at its steps."""

    stands: bool
    findings: list[Finding]


class SpaceRemedy(Result):
    """A change to one run after which a clash is gone, tried: the run can be made, it closes, and nothing new clashes.

    `least`: what both then keep.
    """

    run: str
    called: str
    says: Message
    edits: tuple[Edit, ...]
    least: Measure
