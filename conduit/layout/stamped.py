"""An offset that a lever tool stamps at an end of the run, in one pull (docs/trade.md, Stamped offset). Inches."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from conduit.document import BoxOffsetStep, MeasuredRun, step_name
from conduit.findings import Code, Finding, found
from conduit.geometry import Vec
from conduit.layout.centreline import Path
from conduit.tables import Limits
from conduit.units import TOLERANCE, Radians, Tape

# How far off the pipe's axis strap and knockout forgive.
FORGIVEN = 1 / 16


@dataclass(frozen=True)
class StampedEnd:
    """The tool's offset at an end of the run: two equal arcs that touch.

    It is stamped when all else is bent: until then it is straight pipe of that length, in line with the run.

    `toward`: from the box's axis to the strap's; `straight`: kept between the end and the offset.
    """

    end: Literal["start", "end"]
    step: int
    toward: Vec
    straight: float
    rise: float
    length: float

    @property
    def angle(self) -> Radians:
        """How far each arc turns: tan(θ/2) = H/L."""
        return 2 * math.atan2(self.rise, self.length)

    @property
    def radius(self) -> float:
        """The centreline radius of its arcs: (L² + H²) / 4H."""
        return (self.length**2 + self.rise**2) / (4 * self.rise)

    @property
    def pipe(self) -> float:
        """How much pipe is in it: 2Rθ."""
        return 2 * self.radius * self.angle

    @property
    def shrink(self) -> float:
        """What it takes off the run's length."""
        return self.pipe - self.length

    @property
    def reach(self) -> float:
        """How much pipe there is from the end to where it is straight again."""
        return self.straight + self.pipe


def stamped_findings(stamps: Sequence[StampedEnd], path: Path, measured: MeasuredRun, limits: Limits) -> list[Finding]:
    """Where the tool's offset has no room before a bend, or too little straight at the box."""
    return [finding for one in stamps for finding in _of(one, path, measured, limits)]


def _of(one: StampedEnd, path: Path, measured: MeasuredRun, limits: Limits) -> Iterator[Finding]:
    head, called = measured.head, step_name(one.step, measured.steps[one.step])
    before = path.bends[0].start if path.bends and one.end == "start" else path.straight_after
    if before < one.reach - TOLERANCE and path.bends:
        needs, has = head.tape.at_least(one.reach), head.tape.shows(before)
        place = f"steps.{one.step}.stamped"
        yield found(Code.SHORT_STRAIGHT, place, case="stamped", step=called, needs=needs, straight=has)
    if one.straight < limits.straight_at_connector - TOLERANCE:
        least = head.tape.at_least(limits.straight_at_connector)
        place, has = f"steps.{one.step}.straight", head.tape.shows(one.straight)
        yield found(Code.STRAIGHT_AT_CONNECTOR, place, case="stamped", step=called, straight=has, least=least)


def off_the_knockout(index: int, step: BoxOffsetStep, rise: float, drop: float, tape: Tape) -> Finding | None:
    """The finding where the tool stamps another offset than the knockout wants."""
    off = abs(drop) - rise
    if abs(off) <= FORGIVEN + TOLERANCE:
        return None
    stands, stamps = tape.shows(abs(drop)), tape.shows(rise)
    return found(
        Code.STAMP_MISSES,
        f"steps.{index}.stamped",
        case="under" if off > 0 else "over",
        step=step_name(index, step),
        stands=stands,
        stamps=stamps,
        off=tape.shows(off),
    )
