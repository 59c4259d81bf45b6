"""A closing error put on the legs that are doubted: all, one, or some of them (docs/trade.md, Closing)."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from typing import Any

from pydantic import Field

from conduit.catalogue import NOTHING, Message, joined, message
from conduit.document import MeasuredRun
from conduit.findings import Edit, Fix
from conduit.geometry import Vec
from conduit.layout import Layout, closure_of
from conduit.plan.checked_run import check_run
from conduit.plan.schema import Measure
from conduit.plan.traverse import Leg, adjusted
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import Tape
from conduit.values import Result


class ClosingLeg(Result):
    """A leg of the run, and by how much its measure would be longer, or shorter."""

    place: str
    called: Message
    at: Measure
    longer: bool
    by: Measure | None = Field(description="None where it stays as it is.")


class SharedClosing(Result):
    """What a run misses its box by, shared over chosen legs."""

    legs: list[ClosingLeg]
    misses: Measure
    left: Measure = Field(description="What it would still miss the box by.")
    fix: Fix | None = Field(description="The change; none where the chosen legs cannot lessen it.")
    why_not: Message


def closing_of(
    raw: Mapping[str, Any], places: Collection[str], limits: Limits = DEFAULT_LIMITS
) -> SharedClosing | None:
    """A run's closing error shared over the legs at `places`; None where its end box was not measured on its own.

    Nothing is changed: the change comes back as a fix. Raises UnreadableDocument.
    """
    checked = check_run(raw, limits)
    measured, layout = checked.measured, checked.layout
    error = closure_of(layout, measured) if layout else None
    if layout is None or error is None:
        return None
    tape, legs = measured.head.tape, legs_of(layout, measured)
    chosen = [leg for leg in legs if leg.place in places]
    shares = _shares(measured, chosen, error)
    moves, left = {leg.place: share for leg, share in zip(chosen, shares, strict=True)}, error
    for leg in chosen:
        left = left.along(leg.heading, moves[leg.place])
    fix = next(_moving("fix.share_these", chosen, shares, tape), None)
    why_not = NOTHING if fix else message("closing.another_way" if chosen else "closing.choose")
    return SharedClosing(
        legs=[
            ClosingLeg(
                place=leg.place,
                called=leg.called,
                at=Measure.of(leg.at, tape),
                longer=moves.get(leg.place, 0.0) > 0,
                by=Measure.of(abs(moves[leg.place]), tape) if moves.get(leg.place) else None,
            )
            for leg in legs
        ],
        misses=Measure.of(error.length(), tape),
        left=Measure.of(left.length(), tape),
        fix=fix,
        why_not=why_not,
    )


def legs_of(layout: Layout, measured: MeasuredRun) -> list[Leg]:
    """The legs whose measures say how far the run goes: to each turn, and to the end."""
    found = [
        Leg(f"steps.{number}.{by}", message("step.lower", number=number + 1), getattr(step, by), datum.heading)
        for number, (step, datum) in enumerate(zip(measured.steps, layout.datums, strict=False))
        if step and step.turns
        for by in [step.placed_by]
    ]
    end = measured.end
    if end and end.at is not None:
        found.append(Leg("end.at", message("part.end.lower"), end.at, layout.datums[-1].heading))
    return found


def shared_over(measured: MeasuredRun, legs: Sequence[Leg], error: Vec) -> Iterator[Fix]:
    """The fix that shares an error over all legs, in divisions of the tape; none where it moves none of them."""
    return _moving("fix.share", legs, _shares(measured, legs, error), measured.head.tape)


def put_on(measured: MeasuredRun, leg: Leg, error: Vec) -> Iterator[Fix]:
    """The same with one leg alone."""
    return _moving("fix.put_on", [leg], _shares(measured, [leg], error), measured.head.tape, leg=leg.called)


def _moving(key: str, legs: Sequence[Leg], moves: Sequence[float], tape: Tape, **told: str) -> Iterator[Fix]:
    moved = [(leg, move) for leg, move in zip(legs, moves, strict=True) if abs(move) > 1e-9 and leg.at + move > 0]
    if moved:
        signs = (("+" if move > 0 else "−", tape.shows(abs(move))) for _, move in moved)
        moves_told = joined(
            (
                message("fix.move", leg=leg.called, sign=sign, by=by)
                for (leg, _), (sign, by) in zip(moved, signs, strict=True)
            ),
            ", ",
        )
        edits = [Edit(op="set", place=leg.place, value=tape.written(leg.at + move)) for leg, move in moved]
        yield Fix(says=message(key, moves=moves_told, **told), edits=tuple(edits))


def _shares(measured: MeasuredRun, legs: Sequence[Leg], error: Vec) -> list[float]:
    return [measured.head.tape.rounded(move) for move in adjusted(legs, error)] if legs else []
