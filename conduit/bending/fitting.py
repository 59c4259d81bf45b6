"""What is looked at when a stick is fitted: rings, locknuts, screws, straps, pencil; only what applies to it.

Source: docs/trade.md, Fitting. Each is ticked by a person; nothing here says that it was done.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from conduit.bender import Hook
from conduit.catalogue import Message, joined, message
from conduit.document import MeasuredRun
from conduit.plan import Plan, PlannedPiece
from conduit.tables import Limits
from conduit.units import Tape
from conduit.values import result_part

FitItem = Literal["reamed", "seated", "rings", "locknuts", "bushing", "joints", "screws", "straps", "plumb", "pencil"]
Meets = Literal["box", "open", "coupling"]
# A pipe's end stops so far short of its connector's shoulder at most: shorter, and the screw may miss it.
SHOULDER = 1 / 8


@result_part
class FitCheck:
    """One thing to look at, in words."""

    item: FitItem
    says: Annotated[Message, Field(description="What must be so.")]


@dataclass(frozen=True)
class FittedEnd:
    """An end of a piece: what it meets, and what that is called."""

    meets: Meets
    name: str


def fit_checks(plan: Plan, piece: PlannedPiece, measured: MeasuredRun, limits: Limits) -> list[FitCheck]:
    """What applies to one piece of a run, in the order in which a hand meets it."""
    return [FitCheck(item=item, says=says) for item, says in _checks(plan, piece, measured, limits)]


def _checks(
    plan: Plan, piece: PlannedPiece, measured: MeasuredRun, limits: Limits
) -> Iterator[tuple[FitItem, Message]]:
    head, ends = measured.head, ends_of(plan, piece, measured)
    boxes = [end.name for end in ends if end.meets == "box"]
    at = joined(boxes, message("fit.and"))
    yield "reamed", message("fit.reamed")
    yield "seated", message("fit.seated", shoulder=head.tape.shows(SHOULDER))
    if boxes:
        yield "rings", message("fit.rings", boxes=at, size=head.trade_size)
        yield "locknuts", message("fit.locknuts", boxes=at)
    if any(end.meets == "open" for end in ends):
        yield "bushing", message("fit.bushing")
    if any(end.meets == "coupling" for end in ends):
        yield "joints", message("fit.threads" if head.joined_by == "threaded" else "fit.joints")
    if head.joined_by == "set-screw":
        yield "screws", message("fit.screws")
    straps = [one.inches - piece.start for one in plan.supports]
    mine = [head.tape.shows(place) for place in straps if 0 <= place <= piece.length.inches]
    if mine:
        near, every = head.tape.shows(limits.support_from_box), head.tape.shows(limits.support_spacing)
        yield "straps", message("fit.straps", places=", ".join(mine), near=near, every=every)
    yield "plumb", message("fit.plumb")
    yield "pencil", message("fit.pencil")


def trimming(end: Hook, meets: Meets, by_plan: Message, tape: Tape) -> Message:
    """How an end that was left long is cut once the pipe is bent; `by_plan`: what the plan says to it."""
    if meets != "box":
        return message("trim", end=end, by_plan=by_plan)
    return message("trim.box", end=end, shoulder=tape.shows(SHOULDER), by_plan=by_plan)


def ends_of(plan: Plan, piece: PlannedPiece, measured: MeasuredRun) -> tuple[FittedEnd, FittedEnd]:
    """What the two ends of a piece meet."""
    joints = plan.couplings
    first, last = piece.number == 1, piece.number == len(plan.pieces)
    start: Meets = "open" if measured.start and measured.start.open else "box"
    end: Meets = "open" if measured.end and measured.end.open else "box"
    return (
        FittedEnd(start if first else "box" if joints[piece.number - 2].box else "coupling", piece.end_a),
        FittedEnd(end if last else "box" if joints[piece.number - 1].box else "coupling", piece.end_b),
    )
