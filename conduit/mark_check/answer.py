"""Checking marks that somebody laid on the pieces of a run, as given from outside: read, judge, draw.

Marks are given in the order of the run's bends, each measured from end A of its own piece.
"""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any, Literal

from pydantic import Field

from conduit.catalogue import Message, joined, message, said_by
from conduit.document import Head, Name, Typed
from conduit.mark_check.mistakes import MarksDoNotMatch, PencilMark, within_a_sixteenth
from conduit.mark_check.verdict import ANGLE_RIGHT, TURN_RIGHT, CutPiece, Verdict, check_marks
from conduit.plan import Measure, Plan, Point, check_run, plan_of
from conduit.simulation import Bent
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import Degrees, UnreadableAngle, UnreadableLength, format_angle, parse_angle, parse_length
from conduit.values import Given, Result

ARC_STEPS = 12


class GivenMark(Given):
    """One mark as it is given; what is left out is taken as the plan has it."""

    at: Typed
    reference: Name = ""
    hook: Literal["A", "B"] | None = None
    angle: Typed | None = Field(None, description="Degrees, as typed; null: as planned.")
    turned: Degrees = Field(0.0, ge=-180, le=180, description="Rolled so many degrees off the plan, clockwise from B.")


class UnreadableMark(ValueError):
    """A mark's place or a piece's length cannot be read: where it stands in what was given, and why."""

    def __init__(self, place: str, says: str) -> None:
        super().__init__(says)
        self.place = place


class JudgedMark(Result):
    """A mark against what it should be."""

    bend: int
    should_be: Measure
    off: float
    off_reads: Message
    angle_off: Degrees = Field(description="Degrees more than wanted.")
    right: bool = Field(description="Within a sixteenth, half a degree, and not turned.")


class PassedThing(Result):
    """The least clearance to a thing with the pipe that these marks make."""

    name: Message
    clearance: str
    touches: bool


class MarksJudged(Result):
    """What laid marks will make, and which known mistake they look like."""

    right: bool
    says: Message
    mistake: str = Field(description="The mistake's stable name; empty where none explains the marks.")
    step: int | None = Field(description="The step where the mistake was made, from 0, where it is of one step.")
    explains: float | None
    marks: list[JudgedMark]
    end_misses_by: Measure
    end_fits: bool = Field(description="Whether the tape reads no miss at the far end.")
    end_off: Point = Field(description="Right, up, out.")
    passed: list[PassedThing]
    lines: list[list[Point]] = Field(description="The pipe they make, as in the picture.")


def judge_marks(
    raw: Mapping[str, Any],
    given: Sequence[GivenMark],
    cuts: Sequence[str | float] = (),
    limits: Limits = DEFAULT_LIMITS,
) -> MarksJudged:
    """Judge laid marks, on pieces cut to `cuts` (in their order; empty text: as planned).

    Raises MarksDoNotMatch where there is not one mark for each bend or the run cannot be made, and
    UnreadableDocument where `raw` is not a run document at all; UnreadableMark.
    """
    run = check_run(raw, limits)
    plan, measured, layout, shoe = plan_of(raw, run), run.measured, run.layout, run.shoe
    if not plan.makeable or not layout or not shoe:
        told = [finding.says for finding in plan.findings if finding.severity == "stop"]
        raise MarksDoNotMatch(joined(told, "; ") or message("marks.unfinished"))
    planned = [(piece.start, bend.use) for piece in plan.pieces for bend in piece.bends]
    if len(planned) != len(given):
        raise MarksDoNotMatch(message("marks.count", bends=len(planned), marks=len(given)))
    tape = measured.head.tape.step
    places = [_read(mark.at, f"marks.{number}.at", tape) for number, mark in enumerate(given)]
    angles = [_angle(mark.angle, f"marks.{number}.angle") for number, mark in enumerate(given)]
    marks = [
        PencilMark(at + start, mark.reference or use.reference, mark.hook or use.hook, angle, mark.turned)
        for mark, at, angle, (start, use) in zip(given, places, angles, planned, strict=True)
    ]
    verdict = check_marks(measured, layout, shoe, limits, marks, list(_pieces(plan, cuts, tape)))
    return _told(verdict, marks, [start for start, _ in planned], measured.head)


def _pieces(plan: Plan, cuts: Sequence[str | float], tape: str) -> Iterator[CutPiece]:
    for number, piece in enumerate(plan.pieces):
        cut = cuts[number] if number < len(cuts) else ""
        as_planned = isinstance(cut, str) and not cut.strip()
        length = piece.length.inches if as_planned else _read(cut, f"cuts.{number}", tape)
        yield CutPiece(piece.start, piece.length.inches, length)


def _read(written: str | float, place: str, tape: str) -> float:
    try:
        return parse_length(written, tape)
    except UnreadableLength as error:
        raise UnreadableMark(place, said_by(error)) from error


def _angle(written: str | float | None, place: str) -> float | None:
    try:
        return None if written is None else parse_angle(written)
    except UnreadableAngle as error:
        raise UnreadableMark(place, said_by(error)) from error


def _told(verdict: Verdict, laid: Sequence[PencilMark], starts: Sequence[float], head: Head) -> MarksJudged:
    end, why = verdict.judgement.end, verdict.explanation
    says = joined(one.says for one in verdict.explanations) or message("marks.unexplained")
    rows = zip(laid, verdict.should_be, verdict.off, verdict.angle_off, starts, strict=True)
    return MarksJudged(
        right=verdict.right,
        says=message("marks.right") if verdict.right else says,
        mistake=why.code if why else "",
        step=why.step if why else None,
        explains=why.explains if why else None,
        marks=[
            JudgedMark(
                bend=number,
                should_be=Measure.of(should - start, head.tape),
                off=off,
                off_reads=_off(off, angle_off, mark, head),
                angle_off=angle_off,
                right=within_a_sixteenth(off) and abs(angle_off) <= ANGLE_RIGHT and abs(mark.turned) <= TURN_RIGHT,
            )
            for number, (mark, should, off, angle_off, start) in enumerate(rows, 1)
        ],
        end_misses_by=Measure.of(end.distance, head.tape),
        end_fits=not head.tape.tells(end.distance),
        end_off=(end.right, end.up, end.out),
        passed=[
            PassedThing(
                name=Message(one.name) if one.name else message("thing.unnamed"),
                clearance=head.tape.shows(one.clearance),
                touches=one.clearance < 0,
            )
            for one in verdict.judgement.cleared
        ],
        lines=_lines(verdict.bent),
    )


def _off(off: float, angle_off: Degrees, mark: PencilMark, head: Head) -> Message:
    by = head.tape.shows(abs(off))
    parts = [message("mark.far" if off > 0 else "mark.near", off=by)] if head.tape.tells(off) else []
    if abs(angle_off) > ANGLE_RIGHT:
        key = "mark.bent_far" if angle_off > 0 else "mark.bent_little"
        parts.append(message(key, off=format_angle(abs(angle_off))))
    if abs(mark.turned) > TURN_RIGHT:
        parts.append(message("mark.turned"))
    return joined(parts, ", ") or message("mark.right")


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
