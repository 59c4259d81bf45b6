"""Findings about a run: coded, placed, in plain sentences, with what would do instead."""

from enum import StrEnum
from typing import Any, Literal, Self

from pydantic import Field

from conduit.catalogue import NOTHING, Figure, Message, has_message, message
from conduit.values import Result

Severity = Literal["stop", "caution", "note"]


class Code(StrEnum):
    """The kinds of findings: a stable name, how severe it is, what it means, and what mends it."""

    severity: Severity
    means: str
    mended_by: str

    def __new__(cls, name: str, severity: Severity, means: str, mended_by: str) -> Self:
        """A code with what is to be known of it."""
        code = str.__new__(cls, name)
        code._value_, code.severity, code.means, code.mended_by = name, severity, means, mended_by
        return code

    # What was typed.
    UNREADABLE = "unreadable", "stop", "A field is missing or cannot be read.", "Writing it so that it can be."
    NOT_MEASURED = "not_measured", "stop", "A figure is still to be measured.", "Measuring it."
    FAR_OUT = "far_out", "caution", "A bare figure is far out of the run's scale.", "Writing its unit."
    TAKEN_TWICE = "taken_twice", "caution", "A measure came out otherwise when it was taken again.", "A third reading."
    # The shoe.
    NO_SUCH_SHOE = "no_such_shoe", "stop", "Deduct and gain cannot be those of a shoe.", "Measuring a 90 in scrap."
    NO_TYPICAL_SHOE = "no_typical_shoe", "stop", "No typical shoe is known for this pipe.", "Giving deduct and gain."
    DOUBTFUL_SHOE = "doubtful_shoe", "caution", "A shoe's figures are unusual for its size.", "Measuring a 90 in scrap."
    SHORT_RADIUS = (
        "short_radius",
        "caution",
        "The shoe's radius is under the least allowed.",
        "A larger shoe.",
    )
    # Each step's geometry.
    ALONG_HEADING = "along_heading", "stop", "The pipe runs along that direction already.", "A direction across it."
    NO_RISE = "no_rise", "stop", "A step has no rise, or two, or one of nothing.", "Writing the rise."
    NO_KICK = "no_kick", "stop", "A kick has neither setback nor angle, or both.", "Giving one of them."
    NO_SHOTS = "no_shots", "stop", "A sweep's shots are not given, given twice, or too many.", "Giving their number."
    NO_END = "no_end", "stop", "A step is measured from an end that is not written.", "Writing the end."
    RADIUS_TOO_SMALL = "radius_too_small", "stop", "A sweep's radius is under the shoe's.", "A larger radius."
    BOX_OFFSET_NOT_NEEDED = "box_offset_not_needed", "note", "A box offset moves the pipe by nothing.", "Taking it out."
    LARGER_RADIUS = (
        "larger_radius",
        "note",
        "A sweep made of short arcs comes out wider than asked.",
        "Exact spacing.",
    )
    # Room along the run.
    TOO_NEAR = "too_near", "stop", "A bend begins before the one before it ends.", "More room before it."
    BENDS_OVERLAP = "bends_overlap", "stop", "A step's own bends run into each other.", "A flatter angle, or more rise."
    END_TOO_NEAR = "end_too_near", "stop", "The pipe ends before its last bend is finished.", "Seating farther on."
    TOO_MANY_BENDS = "too_many_bends", "stop", "A run has more bends than are planned at once.", "Ending it at a box."
    OUTSIDE_WINDOW = "outside_window", "caution", "A turn or an open end lies outside its window.", "Measuring again."
    IN_WINDOW = "in_window", "note", "A turn's measure is a window: a figure within it is taken.", "Writing a figure."
    ANOTHER_STICK = "another_stick", "caution", "An open end takes another stick.", "Letting it end shorter."
    # Limits.
    TOO_MANY_DEGREES = "too_many_degrees", "caution", "Too many degrees between pull points.", "A pull point between."
    STRAIGHT_AT_CONNECTOR = "straight_at_connector", "caution", "Too little straight for a connector.", "More straight."
    STAMP_MISSES = (
        "stamp_misses",
        "caution",
        "A stamped offset does not meet its knockout.",
        "The shoe, or a stand-off.",
    )
    KNOCKOUT = "knockout", "caution", "A knockout lies off the pipe's axis.", "A box offset, or a stand-off."
    SUPPORTS = "supports", "caution", "Straps cannot keep the distances of the rule.", "A support of another kind."
    CLOSURE = "closure", "caution", "The end comes elsewhere than where it was measured.", "Measuring again."
    # Couplings and pull points.
    MARKER_IN_BEND = "marker_in_bend", "stop", "A coupling or pull point lies in a bend.", "Moving it."
    COUPLING_IN_BEND = "coupling_in_bend", "stop", "A coupling lies in a bend, or off the run.", "Moving it."
    COUPLING_MISPLACED = "coupling_misplaced", "caution", "A coupling lies near a bend, or over a thing.", "Moving it."
    NO_COUPLING_PLACE = "no_coupling_place", "stop", "No straight has room for the couplings.", "Spreading the bends."
    # Bending it.
    SHORT_STRAIGHT = (
        "short_straight",
        "stop",
        "Too little straight for the shoe at a bend.",
        "More room.",
    )
    OVAL_STRAIGHT = (
        "oval_straight",
        "caution",
        "A bend begins within a diameter of another, where the wall is oval.",
        "More room.",
    )
    NO_ORDER = "no_order", "stop", "A piece's bends can be made in no order.", "More room, another way, or a coupling."
    ORDER_NOT_FOUND = (
        "order_not_found",
        "caution",
        "A piece has so many bends that its order was searched only so far, and none was found.",
        "A coupling, or a box between.",
    )
    BEND_LONG = "bend_long", "caution", "The shoe finds no hold near a piece's end.", "Bending it long, and trimming."
    # The pipe as bent in simulation.
    RUNS_INTO_THING = "runs_into_thing", "stop", "The bent pipe runs into a thing in the way.", "More rise or room."
    LITTLE_CLEARANCE = "little_clearance", "caution", "It clears a thing by less than asked.", "More rise or room."
    CROSSES_THING = (
        "crosses_thing",
        "caution",
        "Another leg comes back across a thing in the way, if that reaches so far.",
        "Going over it there too.",
    )
    RUNS_INTO_ITSELF = "runs_into_itself", "stop", "The bent pipe runs into itself.", "Legs that pass each other."
    # Racks of pipe.
    RACK_SPACING = "rack_spacing", "stop", "A rack's gap is not written, or is none.", "Writing a wider one."
    NOT_IN_RACK = "not_in_rack", "stop", "A pipe beside the lead cannot take a step.", "Another way for it."
    RACK_TOUCHES = "rack_touches", "stop", "Two pipes of a rack run into each other.", "Another turn, or wider."
    RACK_GAP = "rack_gap", "caution", "Two pipes come nearer than the gap asked.", "Another turn, or wider."
    # Runs of a job in one space.
    RUNS_TOUCH = "runs_touch", "stop", "A run goes through another, or what is in its way.", "Moving either."
    RUNS_TOO_NEAR = "runs_too_near", "caution", "Two runs come nearer than the crew keeps clear.", "Moving either."
    RUN_NEAR_THING = (
        "run_near_thing",
        "caution",
        "A run comes nearer to what is in another's way than that keeps from it.",
        "Moving it, or measuring how far that reaches.",
    )
    BOX_ELSEWHERE = "box_elsewhere", "caution", "A run ends elsewhere than its box was placed.", "Measuring again."


class Edit(Result):
    """One change to a run document: set a field, insert a step before the place, or take a list's item out."""

    op: Literal["set", "insert", "remove"]
    place: str
    value: Any = None


class Fix(Result):
    """A change that does away with a finding, said so that it can be chosen."""

    says: Message
    edits: tuple[Edit, ...]
    whole: bool | None = Field(None, description="Whether the whole run can be made after it; null: not tried.")


def setting(says: Message, place: str, value: Any) -> Fix:
    """A fix that sets one field."""
    return Fix(says=says, edits=(Edit(op="set", place=place, value=value),))


def taking_out(says: Message, place: str) -> Fix:
    """A fix that takes an item of a list out."""
    return Fix(says=says, edits=(Edit(op="remove", place=place),))


def inserting(says: Message, place: str, value: Any) -> Fix:
    """A fix that puts an item into a list, before the one at `place`."""
    return Fix(says=says, edits=(Edit(op="insert", place=place, value=value),))


class Finding(Result):
    """One finding. `place` is the dotted path of the field in the run document, such as `steps.1.at`."""

    code: Code = Field(description="The kind of finding; docs/findings.md lists them.")
    severity: Severity
    place: str
    says: Message
    remedy: Message = NOTHING
    fixes: tuple[Fix, ...] = Field((), description="Each does away with the finding, applied as it stands.")


def found(code: Code, place: str, /, *fixes: Fix, case: str = "", **figures: Figure) -> Finding:
    """A finding, as severe as its code; what it says and its remedy are the catalogue's, by code, case and figures."""
    key = f"{code.value}.{case}" if case else code.value
    remedy = message(f"remedy.{key}", **figures) if has_message(f"remedy.{key}") else NOTHING
    says = message(f"finding.{key}", **figures)
    return Finding(code=code, severity=code.severity, place=place, says=says, remedy=remedy, fixes=fixes)


def stops(findings: list[Finding]) -> bool:
    """Whether any of the findings means that the run cannot be made as it stands."""
    return any(finding.severity == "stop" for finding in findings)
