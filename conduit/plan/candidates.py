"""The ways in which a step can be done by what was measured for it: other angles, other numbers of bends."""

from collections.abc import Iterator
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


def candidates(step: AnyStep, written: dict[str, Any], tape: Tape) -> Iterator[Candidate]:
    """The ways to do a step, by what was measured for it, as they are written in a run with this tape.

    Other angles, shots or saddles that meet the same measures; none is judged here (see `alternatives`).
    """
    match step:
        case OffsetStep() | RolledStep():
            key = "way.offset" if isinstance(step, OffsetStep) else "way.rolled"
            yield from _at_angles(key, written, _with(step.angle, CARD_ANGLES))
        case BoxOffsetStep():
            if step.stamped is not None:
                yield Candidate(name=message("way.stamped"), angle=0.0, written=written)
            bent = {key: value for key, value in written.items() if not key.startswith("stamped")}
            yield from _at_angles("way.box_offset", bent, _with(step.angle, OFFSETS_AT_BOXES))
        case Saddle3Step() | Saddle4Step():
            yield from _saddles(step, written, tape)
        case KickStep():
            for angle in CARD_ANGLES[:-1]:
                kicked = {**written, "kick_angle": write_angle(angle), "kick_back": None}
                name = message("way.kick", angle=format_angle(angle))
                yield Candidate(name=name, angle=angle, written=kicked)
        case SweepStep():
            for shots in sorted({*SHOTS, step.count}):
                each = step.angle / shots
                swept = {**written, "shots": shots, "shot_angle": None}
                name = message("way.shots", shots=shots, angle=format_angle(each))
                yield Candidate(name=name, angle=each, written=swept)


def _with(angle: Degrees, angles: tuple[float, ...]) -> list[float]:
    """The usual angles, and the one that was written where it is none of them."""
    return sorted({*angles, angle})


def _at_angles(key: str, written: dict[str, Any], angles: list[float]) -> Iterator[Candidate]:
    for angle in angles:
        changed = {**written, "angle": write_angle(angle)}
        yield Candidate(name=message(key, angle=format_angle(angle)), angle=angle, written=changed)


def _saddles(step: Saddle3Step | Saddle4Step, written: dict[str, Any], tape: Tape) -> Iterator[Candidate]:
    three, four = _as_three(step, written, tape), _as_four(step, written, tape)
    angles = _with(step.angle, tuple(CARD_SADDLES)) if isinstance(step, Saddle3Step) else sorted(CARD_SADDLES)
    # Three bends come back to the line that they left.
    comes_back = isinstance(step, Saddle3Step) or not step.beyond
    for angle in angles if comes_back else ():
        name = message("way.three_bends", angle=format_angle(angle), outer=format_angle(angle / 2))
        yield Candidate(name=name, angle=angle, written={**three, "angle": write_angle(angle)})
    angles = _with(step.angle, CARD_ANGLES) if isinstance(step, Saddle4Step) else list(CARD_ANGLES)
    yield from _at_angles("way.four_bends", four, angles)


def _as_three(step: Saddle3Step | Saddle4Step, written: dict[str, Any], tape: Tape) -> dict[str, Any]:
    """A four-bend saddle's measures as a three-bend saddle's: its centre is the middle of the thing."""
    if isinstance(step, Saddle3Step):
        return written
    kept = {key: value for key, value in written.items() if key not in ("near", "margin")}
    return {**kept, "kind": "saddle3", "at": tape.written(step.near + step.width / 2)}


def _as_four(step: Saddle3Step | Saddle4Step, written: dict[str, Any], tape: Tape) -> dict[str, Any]:
    """A three-bend saddle's measures as a four-bend saddle's: the thing is as wide as it is high."""
    if isinstance(step, Saddle4Step):
        return written
    width, margin = (step.wide, step.over.clear) if step.over else (step.rise or 0.0, 0.0)
    kept = {key: value for key, value in written.items() if key not in ("at", "width")}
    near = max(step.at - width / 2, 0.0)
    measures = {key: tape.written(value) for key, value in (("near", near), ("width", width), ("margin", margin))}
    return {**kept, "kind": "saddle4", **measures}
