"""Runs between two boxes that were placed: what each misses its second box by, and which of the two is out. Inches.

A run from box to box is a traverse between known points (docs/trade.md, Closing). It misses by a vector; moving either
box, or measuring the run anew, would close it. Other runs at the same boxes tell which: a box whose other runs close
stands where it was placed, one that another run misses by as much the same way does not.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from conduit.geometry import Vec
from conduit.space.boxes import StandingBox
from conduit.space.standing import AtBox, StandingRun

Out = Literal["run", "box", "either"]


@dataclass(frozen=True)
class Closed:
    """A run between two boxes: by how much, as the job sees it, it ends elsewhere than where the second was placed.

    `out`: what is out, where it misses; `box`: which box, where it is one; `unproved`: the boxes that no other run
    speaks for, where it may be either.
    """

    run: StandingRun
    to: StandingBox
    misses: Vec
    within: float
    out: Out | None = None
    box: StandingBox | None = None
    unproved: tuple[StandingBox, ...] = ()

    @property
    def closes(self) -> bool:
        """Whether it ends where it was to, within the crew's closing error."""
        return self.misses.length() <= self.within


def closings_of(runs: Sequence[StandingRun]) -> list[Closed]:
    """Every run whose boxes are both placed, with what is out where it misses."""
    found = [one for run in runs for one in _closed(run)]
    return [one if one.closes else _judged(one, found) for one in found]


def _closed(run: StandingRun) -> Iterator[Closed]:
    start, end = run.ends.get("A"), run.ends.get("B")
    if start and end:
        yield Closed(run, end.box, run.face_b.minus(end.seat), run.checked.limits.closure)


@dataclass(frozen=True)
class _Witness:
    """What the other runs say of a box: that it stands where it was placed, or that it is out by as much."""

    box: StandingBox
    stands: bool
    is_out: bool


def _judged(one: Closed, all_closed: Sequence[Closed]) -> Closed:
    witnesses = [_witness(one, at, all_closed) for at in _ends(one.run)]
    out = [each.box for each in witnesses if each.is_out and not each.stands]
    doubted = tuple(each.box for each in witnesses if not each.stands)
    if len(out) == 1:
        return replace(one, out="box", box=out[0])
    return replace(one, out="either", unproved=doubted) if doubted else replace(one, out="run")


def _ends(run: StandingRun) -> tuple[AtBox, AtBox]:
    return run.ends["A"], run.ends["B"]


def _witness(one: Closed, at: AtBox, all_closed: Sequence[Closed]) -> _Witness:
    wanted = _moves(one, at)
    others = [
        (other, place)
        for other in all_closed
        if other.run is not one.run
        for place in _ends(other.run)
        if place.box.key == at.box.key
    ]
    stands = any(other.closes for other, _ in others)
    alike = any(
        not other.closes and _moves(other, place).minus(wanted).length() <= one.within for other, place in others
    )
    return _Witness(at.box, stands, alike)


def _moves(one: Closed, at: AtBox) -> Vec:
    """By how much the box would have to be placed elsewhere for the run to close."""
    return one.misses if at.end == "B" else one.misses.times(-1)
