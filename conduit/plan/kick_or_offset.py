"""A kick chosen instead of an offset before a 90, and the other way round (docs/trade.md, Kick)."""

import math
from collections.abc import Iterator
from functools import singledispatch
from typing import Any

from conduit.catalogue import message
from conduit.document import AnyStep, BendStep, KickStep, MeasuredRun, OffsetStep, rise_of
from conduit.findings import Edit
from conduit.plan.candidates import Candidate
from conduit.units import write_angle

# Flat on the new level before the 90; to begin with.
STRETCH = 12.0
USUAL_ANGLE = 30.0
WHERE_IT_TURNS: frozenset[str] = frozenset(("turn", "to", "at"))


def kick_or_offset(measured: MeasuredRun, written: list[Any], number: int) -> Iterator[Candidate]:
    """The other of both for step `number`, where it is an offset with a 90 after it, or a 90 kicked before.

    Both bring the 90's back to the same place. A kick does where the 90 stands at the edge of the new level: one bend.
    To lie flat on it for a stretch takes an offset: two.
    """
    step = measured.steps[number]
    return _instead(step, measured, written, number) if step else iter(())


@singledispatch
def _instead(step: AnyStep, measured: MeasuredRun, written: list[Any], number: int) -> Iterator[Candidate]:
    """The other of a kick and an offset; nothing instead of any other kind."""
    return iter(())


@_instead.register
def _of_offset(step: OffsetStep, measured: MeasuredRun, written: list[Any], number: int) -> Iterator[Candidate]:
    after = measured.steps[number + 1] if number + 1 < len(measured.steps) else None
    if _is_plain_ninety(after):
        yield _kick(step, measured, written[number + 1], number)


@_instead.register
def _of_kick(step: KickStep, measured: MeasuredRun, written: list[Any], number: int) -> Iterator[Candidate]:
    if step.when == "before":
        yield _offset(step, measured, written[number], number)


def _is_plain_ninety(step: AnyStep | None) -> bool:
    return isinstance(step, BendStep) and step.angle == 90 and step.to != "wall" and step.next_from == "back"


def _turned(written: dict[str, Any]) -> dict[str, Any]:
    """Where a 90 stands and which way it turns, as it was typed."""
    return {key: value for key, value in written.items() if key in WHERE_IT_TURNS}


def _kick(step: OffsetStep, measured: MeasuredRun, ninety: dict[str, Any], number: int) -> Candidate:
    rise = measured.head.tape.written(rise_of(step, measured.head.stand_off))
    kick: dict[str, Any] = {
        "kind": "kick90",
        **_turned(ninety),
        "toward": step.toward,
        "rise": rise,
        "kick_angle": write_angle(step.angle),
    }
    return Candidate(
        name=message("way.kick_instead"),
        angle=step.angle,
        written=kick,
        then=(Edit(op="remove", place=f"steps.{number + 1}"),),
        takes_in=90.0,
    )


def _offset(step: KickStep, measured: MeasuredRun, kick: dict[str, Any], number: int) -> Candidate:
    angle = min(step.kick_angle or math.degrees(math.atan2(step.rise, step.setback)), USUAL_ANGLE)
    at = measured.head.tape.written(max(step.at - STRETCH, 0.0))
    raised = {"kind": "offset", "toward": step.toward, "rise": kick.get("rise"), "ref": "raised_by", "at": at}
    return Candidate(
        name=message("way.offset_instead"),
        angle=angle,
        written={**raised, "angle": write_angle(round(angle * 4) / 4)},
        then=(Edit(op="insert", place=f"steps.{number + 1}", value={**_turned(kick), "kind": "bend"}),),
        takes_in=-90.0,
    )
