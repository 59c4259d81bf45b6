"""The ways in which a step can be done by what was measured for it: other angles, other numbers of bends."""

from collections.abc import Iterator
from functools import singledispatch
from typing import Any

from conduit.catalogue import Message, message
from conduit.document import (
    AnyStep,
    BoxOffsetStep,
    KickStep,
    OffsetStep,
    RolledStep,
    Saddle3Step,
    Saddle4Step,
    SweepStep,
)
from conduit.findings import Edit
from conduit.tables import CARD_ANGLES, CARD_SADDLES
from conduit.units import Degrees, Tape, format_angle, write_angle
from conduit.values import Result

SHOTS = (5, 6, 9, 10, 15, 18)
OFFSETS_AT_BOXES = (10.0, 15.0, 22.5, 30.0)


class Candidate(Result):
    """A way to do a step that is to be tried: how it is called, its angle in degrees, and the step as written.

    `then`: what changes besides; `takes_in`: degrees of another step that are counted with it then, or no more.
    """

    name: Message
    angle: Degrees
    written: dict[str, Any]
    then: tuple[Edit, ...] = ()
    takes_in: Degrees = 0.0


@singledispatch
def candidates(step: AnyStep, written: dict[str, Any], tape: Tape) -> Iterator[Candidate]:
    """The ways to do a step, by what was measured for it, as they are written in a run with this tape.

    Other angles, shots or saddles that meet the same measures; none is judged here (see `alternatives`). Of a kind that
    has but one way there is none.
    """
    return iter(())


@candidates.register
def _offsets(step: OffsetStep, written: dict[str, Any], tape: Tape) -> Iterator[Candidate]:
    return _at_angles("way.offset", written, _with(step.angle, step.card_angles))


@candidates.register
def _rolled_offsets(step: RolledStep, written: dict[str, Any], tape: Tape) -> Iterator[Candidate]:
    return _at_angles("way.rolled", written, _with(step.angle, step.card_angles))


@candidates.register
def _box_offsets(step: BoxOffsetStep, written: dict[str, Any], tape: Tape) -> Iterator[Candidate]:
    """Stamped where it is, or bent at the angles for so small an offset."""
    if step.stamped is not None:
        yield Candidate(name=message("way.stamped"), angle=0.0, written=written)
    bent = {key: value for key, value in written.items() if not key.startswith("stamped")}
    yield from _at_angles("way.box_offset", bent, _with(step.angle, OFFSETS_AT_BOXES))


@candidates.register
def _kicks(step: KickStep, written: dict[str, Any], tape: Tape) -> Iterator[Candidate]:
    for angle in CARD_ANGLES[:-1]:
        kicked = {**written, "kick_angle": write_angle(angle), "kick_back": None}
        yield Candidate(name=message("way.kick", angle=format_angle(angle)), angle=angle, written=kicked)


@candidates.register
def _sweeps(step: SweepStep, written: dict[str, Any], tape: Tape) -> Iterator[Candidate]:
    for shots in sorted({*SHOTS, step.count}):
        each = step.angle / shots
        swept = {**written, "shots": shots, "shot_angle": None}
        yield Candidate(name=message("way.shots", shots=shots, angle=format_angle(each)), angle=each, written=swept)


@candidates.register
def _over_round(step: Saddle3Step, written: dict[str, Any], tape: Tape) -> Iterator[Candidate]:
    """Three bends, or four over a thing that is as wide as it is high."""
    width, margin = (step.wide, step.over.clear) if step.over else (step.rise or 0.0, 0.0)
    kept = {key: value for key, value in written.items() if key not in ("at", "width")}
    near = max(step.at - width / 2, 0.0)
    measures = {key: tape.written(value) for key, value in (("near", near), ("width", width), ("margin", margin))}
    yield from _of_three_bends(written, _with(step.angle, step.card_angles))
    yield from _at_angles("way.four_bends", {**kept, "kind": "saddle4", **measures}, list(CARD_ANGLES))


@candidates.register
def _over_wide(step: Saddle4Step, written: dict[str, Any], tape: Tape) -> Iterator[Candidate]:
    """Four bends; or three with their centre above the middle of the thing, which come back to the line they left."""
    kept = {key: value for key, value in written.items() if key not in ("near", "margin")}
    if not step.beyond:
        three = {**kept, "kind": "saddle3", "at": tape.written(step.near + step.width / 2)}
        yield from _of_three_bends(three, sorted(CARD_SADDLES))
    yield from _at_angles("way.four_bends", written, _with(step.angle, step.card_angles))


def _of_three_bends(written: dict[str, Any], angles: list[float]) -> Iterator[Candidate]:
    for angle in angles:
        name = message("way.three_bends", angle=format_angle(angle), outer=format_angle(angle / 2))
        yield Candidate(name=name, angle=angle, written={**written, "angle": write_angle(angle)})


def _with(angle: Degrees, angles: tuple[float, ...]) -> list[float]:
    """The usual angles, and the one that was written where it is none of them."""
    return sorted({*angles, angle})


def _at_angles(key: str, written: dict[str, Any], angles: list[float]) -> Iterator[Candidate]:
    for angle in angles:
        changed = {**written, "angle": write_angle(angle)}
        yield Candidate(name=message(key, angle=format_angle(angle)), angle=angle, written=changed)
