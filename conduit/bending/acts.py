"""What acts at the bench do to what is kept of a stick. Who did them, and the cut list's part, are not its business."""

from collections.abc import Sequence
from typing import Literal

from pydantic import BaseModel, Field, ValidationError

from conduit.as_typed import AsWritten
from conduit.bending.run_bench import RunBench, StickKept, as_arranged
from conduit.bending.schema import Arranged, BendAsMade
from conduit.bending.sheet import NoSuchStick
from conduit.catalogue import Message, message, said_by
from conduit.document import Typed, spelled, tape_in
from conduit.units import UnreadableLength, parse_length

# A pipe that is so much too long or too short, in inches, still seats.
NEAR_ENOUGH = 1 / 32


class CannotBeDone(Exception):
    """An act that cannot be done; the message says why. The others are still done."""


class ActToDo(BaseModel):
    """Something done at the bench, as far as it changes what is kept of a stick; what else it says is passed over."""

    key: str
    kind: Literal[
        "arrange", "cut", "uncut", "fitted", "unfitted", "scrapped", "bent", "unbent", "left", "checked", "unchecked"
    ]
    piece: int = Field(ge=1)
    arranged: AsWritten = {}
    bend: int = Field(1, ge=1)
    angle: float = Field(1.0, gt=0, lt=180)
    tape: Typed | None = None
    turned: float = Field(0.0, ge=-90, le=90)
    again: bool = False


def after(bench: RunBench, act: ActToDo) -> StickKept:
    """What is kept of a stick after an act. Raises CannotBeDone, NoSuchStick."""
    if act.piece not in bench.pieces():
        raise CannotBeDone(message("stick.no_piece", piece=act.piece))
    stick = bench.sticks.get(act.piece) or StickKept(piece=act.piece)
    match act.kind:
        case "arrange":
            return stick.model_copy(update={"arranged": arranged_anew(bench, stick, act.arranged)})
        case "bent":
            return _begun(bench, _bent(bench, stick, act))
        case "unbent" | "left":
            return stick.model_copy(update={"made": _about_bend(stick, act)})
        case "scrapped":
            return StickKept(piece=stick.piece)
        case "uncut" if not stick.made:
            return stick.model_copy(update={"cut": False, "document": None, "limits": None, "number_then": None})
        case "uncut" | "unfitted":
            return stick
        case _:
            return _begun(bench, stick.model_copy(update={"cut": stick.cut or act.kind == "cut"}))


def _begun(bench: RunBench, stick: StickKept) -> StickKept:
    """From now on it is what was laid out, whatever is changed in the run."""
    if stick.document is not None:
        return stick
    return stick.model_copy(update={"document": bench.document, "limits": bench.limits})


def tape_by(bench: RunBench, stick: StickKept) -> str:
    """The tape that a stick is measured by: its run's, as it was when it was begun."""
    return tape_in(stick.document or bench.document)


def tape_read(bench: RunBench, stick: StickKept, bend: int, tape: Typed | None) -> float | None:
    """What the tape read after a bend, in inches; None where it was not read. Raises CannotBeDone."""
    if tape is None or not str(tape).strip():
        return None
    try:
        return parse_length(tape, tape_by(bench, stick))
    except UnreadableLength as error:
        raise CannotBeDone(message("bench.bend.tape_unreadable", bend=bend, tape=tape, why=said_by(error))) from error


def with_reading(made: Sequence[BendAsMade], reading: BendAsMade) -> tuple[BendAsMade, ...]:
    """The bends made with one more; one that is read again keeps its turn."""
    if all(one.bend != reading.bend for one in made):
        return (*made, reading)
    return tuple(reading if one.bend == reading.bend else one for one in made)


def _bent(bench: RunBench, stick: StickKept, act: ActToDo) -> StickKept:
    before = next((one for one in stick.made if one.bend == act.bend), None)
    if before and not act.again:
        raise CannotBeDone(message("bench.bend.entered", bend=act.bend, angle=f"{before.angle:g}"))
    tape = tape_read(bench, stick, act.bend, act.tape)
    made = with_reading(stick.made, BendAsMade(bend=act.bend, angle=act.angle, tape=tape, turned=act.turned))
    if not bench.bend_with(stick, act.bend, made).made:
        raise NoSuchStick(message("stick.no_bend", piece=act.piece, bend=act.bend))
    return stick.model_copy(update={"made": made})


def _about_bend(stick: StickKept, act: ActToDo) -> tuple[BendAsMade, ...]:
    if act.kind == "unbent":
        return tuple(one for one in stick.made if one.bend != act.bend)
    if all(one.bend != act.bend for one in stick.made):
        raise CannotBeDone(message("bench.bend.not_entered", bend=act.bend))
    return tuple(one.model_copy(update={"left": True}) if one.bend == act.bend else one for one in stick.made)


def arranged_anew(bench: RunBench, stick: StickKept, written: AsWritten) -> AsWritten:
    """How a stick is arranged from now on, as it is kept.

    On a shoe of its own, what is left to spare on one that is cut already is what it is too long by. Raises
    CannotBeDone, NoSuchStick.
    """
    tape = tape_by(bench, stick)
    try:
        arranged = Arranged.model_validate(written, context={"tape": tape})
    except ValidationError as error:
        fault = error.errors()[0]
        place = ".".join(str(part) for part in fault["loc"])
        raise CannotBeDone(f"{place}: {fault['msg']}") from error
    typed = {key: written.get(key) for key in ("spare", "spare_a")}
    kept = {key: spelled(key, spare, tape) or spare for key, spare in typed.items()}
    if arranged.shoe != as_arranged(stick.arranged).shoe:
        kept |= _on_shoe(bench, stick, arranged)
    return {**arranged.model_dump(mode="json"), **kept}


def _on_shoe(bench: RunBench, stick: StickKept, arranged: Arranged) -> dict[str, str | None]:
    """What is left to spare on a stick that takes another shoe."""
    if stick.made:
        raise CannotBeDone(message("bench.shoe.bends_made"))
    sheet = bench.of(stick).sheet(stick.own_number, arranged)
    if not stick.cut:
        return {}
    before, tape = bench.sheet(stick.piece), bench.now.measured.head.tape
    over = before.cut.inches - sheet.cut.inches + (sheet.spare.inches if sheet.spare else 0.0)
    if over < -NEAR_ENOUGH:
        told: dict[str, str | Message] = {"cut": before.cut.reads, "wanted": sheet.length.reads}
        raise CannotBeDone(message("bench.shoe.cut_otherwise", **told))
    return {"spare": tape.written(tape.rounded(over)) if over > NEAR_ENOUGH else None}
