"""Checking marks that somebody laid on the pieces of a run, as given from outside: read, judge, draw.

Marks are given in the order of the run's bends, each measured from end A of its own piece.
"""

from collections.abc import Mapping, Sequence
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from conduit.document import Head
from conduit.laying import laid_out
from conduit.mistakes import LaidMark, MarksDoNotMatch, Verdict, check_marks, within_a_sixteenth
from conduit.plan import make_plan
from conduit.results import Measure
from conduit.scene import Point
from conduit.simulate import Bent
from conduit.steps import Length, MaybeAngle, Name
from conduit.tables import DEFAULT_RULES, Rules
from conduit.units import format_length

ARC_STEPS = 12


class GivenMark(BaseModel):
    """One mark as it is given; what is left out is taken as the plan has it."""

    model_config = ConfigDict(extra="forbid")

    at: Length
    reference: Name = ""
    hook: Literal["A", "B"] | None = None
    angle: MaybeAngle = None


class JudgedMark(BaseModel):
    """A mark against what it should be."""

    bend: int
    should_be: Measure
    off: float
    off_reads: str
    right: bool = Field(description="Within a sixteenth.")


class PassedThing(BaseModel):
    """The least clearance to a thing with the pipe that these marks make."""

    name: str
    clearance: str
    touches: bool


class MarksJudged(BaseModel):
    """What laid marks will make, and which known mistake they look like."""

    right: bool
    says: str
    mistake: str = Field(description="The mistake's stable name; empty where none explains the marks.")
    step: int | None = Field(description="The step where the mistake was made, from 0, where it is of one step.")
    explains: float | None
    marks: list[JudgedMark]
    end_misses_by: Measure
    end_off: Point = Field(description="Right, up, out.")
    passed: list[PassedThing]
    lines: list[list[Point]] = Field(description="The pipe they make, as in the picture.")


def judge_marks(raw: Mapping[str, Any], given: Sequence[GivenMark], rules: Rules = DEFAULT_RULES) -> MarksJudged:
    """Judge laid marks.

    Raises MarksDoNotMatch where there is not one mark for each bend or the run cannot be made, and
    UnreadableDocument where `raw` is not a run document at all.
    """
    plan = make_plan(raw, rules)
    reading, layout, shoe, _ = laid_out(raw, rules)
    if not plan.makeable or not layout or not shoe:
        told = [problem.says for problem in plan.problems if problem.severity == "stop"]
        raise MarksDoNotMatch("; ".join(told) or "the run is not finished")
    planned = [(piece.start, bend.use) for piece in plan.pieces for bend in piece.bends]
    if len(planned) != len(given):
        raise MarksDoNotMatch(f"the run has {len(planned)} bends; lay one mark for each, not {len(given)}")
    laid = [
        LaidMark(mark.at + start, mark.reference or use.reference, mark.hook or use.hook, mark.angle)
        for mark, (start, use) in zip(given, planned, strict=True)
    ]
    starts = [start for start, _ in planned]
    return _told(check_marks(reading, layout, shoe, rules, laid), starts, reading.head)


def _told(verdict: Verdict, starts: Sequence[float], head: Head) -> MarksJudged:
    end, why = verdict.judgement.end, verdict.explanation
    unexplained = "No known mistake explains these marks."
    return MarksJudged(
        right=verdict.right,
        says="These marks are right within a sixteenth." if verdict.right else why.says if why else unexplained,
        mistake=why.code if why else "",
        step=why.step if why else None,
        explains=why.explains if why else None,
        marks=[
            JudgedMark(
                bend=number,
                should_be=Measure.of(should - start, head.tape, head.feet),
                off=off,
                off_reads=_off(off, head),
                right=within_a_sixteenth(off),
            )
            for number, (should, off, start) in enumerate(zip(verdict.should_be, verdict.off, starts, strict=True), 1)
        ],
        end_misses_by=Measure.of(end.distance, head.tape, head.feet),
        end_off=(end.right, end.up, end.out),
        passed=[
            PassedThing(
                name=one.name or "what it goes over",
                clearance=format_length(one.clearance, head.tape, head.feet),
                touches=one.clearance < 0,
            )
            for one in verdict.judgement.cleared
        ],
        lines=_lines(verdict.bent),
    )


def _off(off: float, head: Head) -> str:
    shows = format_length(abs(off), head.tape, head.feet)
    return "right" if shows in ("0", "0 mm") else f"{shows} {'too far from A' if off > 0 else 'too near A'}"


def _lines(bent: Bent) -> list[list[Point]]:
    """Straights and arcs in turn, a polyline each."""
    lines: list[list[Point]] = []
    here = 0.0
    for arc in bent.arcs:
        lines.append([bent.point_at(min(here, arc.start)), bent.point_at(arc.start)])
        places = [arc.start + (arc.end - arc.start) * i / ARC_STEPS for i in range(ARC_STEPS + 1)]
        lines.append([bent.point_at(s) for s in places])
        here = arc.end
    return [*lines, [bent.point_at(min(here, bent.length)), bent.end.point]]
