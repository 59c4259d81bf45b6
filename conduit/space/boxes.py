"""The boxes of a job, each placed once: from the datum, on its wall, with its size and which knockouts are used."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal

from pydantic import Field

from conduit.catalogue import message
from conduit.document import Name, OptionalLength, SignedLength, read_part
from conduit.findings import Finding
from conduit.geometry import Vec
from conduit.space.frame import JobFrame, Wall
from conduit.units import Tape, TapeStep
from conduit.values import Given

# Pipes that leave one box.
MOST_KNOCKOUTS = 40
RunEnd = Literal["A", "B"]


class Knockout(Given):
    """Which knockout a run takes: so far off the middle of its side of the box; right and up are positive."""

    run: str = Field(max_length=40, description="The run, as whoever keeps it knows it.")
    end: RunEnd
    aside: SignedLength = 0.0


class PlacedBox(Given):
    """A box as it was placed: the middle of its back, along, up and out from the datum; left, down and in negative."""

    name: Name = Field(min_length=1)
    tape: TapeStep = "1/16"
    feet: bool = False
    along: SignedLength
    up: SignedLength
    out: SignedLength = 0.0
    wall: Wall = Field("ahead", description="The wall it hangs on, as one faces the datum's wall.")
    wide: OptionalLength = Field(None, description="Left out: pipes seat where the box was placed.")
    high: OptionalLength = None
    deep: OptionalLength = None
    knockouts: tuple[Knockout, ...] = Field((), max_length=MOST_KNOCKOUTS)


def box_called(name: str) -> str:
    """A box's name, without needless spaces."""
    return " ".join(name.split())


def box_key(name: str) -> str:
    """By what boxes of one name are known, however it is spaced and cased."""
    return box_called(name).casefold()


def read_box(raw: Mapping[str, Any], place: str, findings: list[Finding]) -> "StandingBox | None":
    """A box as typed; None with findings under `place` where it cannot be read."""
    tape, feet = raw.get("tape"), raw.get("feet") is True
    called = message("space.box", box=str(raw.get("name") or "?")[:80])
    read = read_part(PlacedBox, raw, place, called, tape if isinstance(tape, str) else "1/16", findings)
    return StandingBox(read, Tape(read.tape, feet)) if read else None


@dataclass(frozen=True)
class StandingBox:
    """A box where it hangs, with the tape that it was placed by."""

    given: PlacedBox
    tape: Tape

    @cached_property
    def key(self) -> str:
        """See `box_key`."""
        return box_key(self.given.name)

    @property
    def called(self) -> str:
        """See `box_called`."""
        return box_called(self.given.name)

    @property
    def frame(self) -> JobFrame:
        """The middle of its back, as one faces its wall."""
        return JobFrame.facing(self.given.wall, Vec(self.given.along, self.given.up, self.given.out))

    def aside_of(self, run: str, end: RunEnd) -> float | None:
        """How far off the middle of its side a run's end takes its knockout; None where it was not said."""
        found = (one.aside for one in self.given.knockouts if (one.run, one.end) == (run, end))
        return next(found, None)

    def seat(self, leaving: Vec, aside: float, off_surface: float) -> Vec:
        """Where a pipe that leaves it along `leaving` (as one faces its wall) seats, as the job sees it.

        At the side that it leaves by: half the box's size from the middle, `aside` along that side (right, or up), and
        `off_surface`: how far the knockout's centre, or the pipe's axis, lies off the surface the box hangs on.
        """
        one = self.given
        wide, high, deep = one.wide or 0.0, one.high or 0.0, one.deep or 0.0
        across, upright, outward = abs(leaving.x), abs(leaving.y), abs(leaving.z)
        if outward >= max(across, upright):
            seat = Vec(aside, 0.0, deep if leaving.z > 0 else 0.0)
        elif across >= upright:
            seat = Vec(wide / 2 if leaving.x > 0 else -wide / 2, aside, off_surface)
        else:
            seat = Vec(aside, high / 2 if leaving.y > 0 else -high / 2, off_surface)
        return self.frame.placed(seat)

    def corners(self) -> tuple[list[Vec], list[Vec]]:
        """Its back and its front, four corners each, as the job sees them."""
        one = self.given
        wide, high, deep = one.wide or 0.0, one.high or 0.0, one.deep or 0.0
        sides = ((-1, -1), (1, -1), (1, 1), (-1, 1))
        back, front = ([self.frame.placed(Vec(x * wide / 2, y * high / 2, z)) for x, y in sides] for z in (0.0, deep))
        return back, front


def boxes_by_key(boxes: Sequence[StandingBox]) -> dict[str, StandingBox]:
    """Boxes by their keys; of two of one name the first."""
    known: dict[str, StandingBox] = {}
    for box in boxes:
        known.setdefault(box.key, box)
    return known
