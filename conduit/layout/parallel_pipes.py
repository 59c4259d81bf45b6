"""Parallel pipes on common supports, worked out from one lead run (docs/trade.md, Parallel pipes).

Pipe k runs `offset` beside the lead, toward `side`. Through a turn in the rack's own plane the inner pipe
turns earlier by its offset; a parallel offset is staggered by offset × tan(θ/2); a sweep's radius shrinks
by the offset, so that all have one centre. A kicked turn gives every pipe the same 90 and a kick that
grows with the offset, so that the rack goes from its plane into another. Inches.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from conduit.bender import Shoe
from conduit.document import (
    AnyStep,
    BendStep,
    CouplingStep,
    KickStep,
    MeasuredRun,
    OffsetStep,
    PullPointStep,
    ShoeFigures,
    SweepStep,
)
from conduit.geometry import DIRECTIONS, Direction, Vec, segment_distance
from conduit.layout.centreline import Path, points_along, tangent_length
from conduit.tables import OUTSIDE_DIAMETER, TradeSize

CHORD = math.radians(2)


class RackRefused(ValueError):
    """A rack cannot be made of the lead run; the message says at which step and why."""


@dataclass(frozen=True)
class RackPipe:
    """One pipe of a rack: its number (from 1), how far beside the lead it runs, and its run as it would be measured."""

    number: int
    offset: float
    measured: MeasuredRun


@dataclass(frozen=True)
class RackPlan:
    """How the rack is to be: sizes of the pipes beside the lead, the gap between neighbours, and its ways.

    `kicked` are the steps (from 0) that turn with growing kicks, `lift` the direction in which they lift and
    `setback` the lead's; the others turn side by side.
    """

    side: Direction
    sizes: tuple[TradeSize, ...]
    gap: float
    kicked: frozenset[int] = frozenset()
    lift: Direction = "up"
    setback: float = 12.0


def rack_of(
    lead: MeasuredRun, lead_shoe: Shoe, plan: RackPlan, shoes: dict[TradeSize, ShoeFigures | None]
) -> list[RackPipe]:
    """The lead (bent on `lead_shoe`) and every pipe beside it, numbered from 1, as measured runs of their own.

    Each lies the clear gap beside the one before; its steps are the lead's, moved so that the gap stays
    (docs/trade.md, Parallel pipes). Raises RackRefused where the lead is not finished, or a step cannot be followed.
    """
    if not lead.start or not lead.end or any(step is None for step in lead.steps):
        raise RackRefused("the lead run is not finished")
    pipes, offset = [], 0.0
    sizes: tuple[TradeSize, ...] = (lead.head.trade_size, *plan.sizes)
    diameters = [OUTSIDE_DIAMETER[lead.head.material][size] for size in sizes]
    for number, size in enumerate(sizes):
        if number:
            offset += diameters[number - 1] / 2 + plan.gap + diameters[number] / 2
        shoe = lead.head.shoe if size == lead.head.trade_size else shoes.get(size)
        head = replace(lead.head, trade_size=size, shoe=shoe, name=f"{lead.head.name} {number + 1}".strip())
        beside = _Beside(offset, diameters[number] / 2, lead_shoe)
        steps, end_at = _steps_beside(lead, plan, beside)
        end = lead.end.model_copy(update={"at": end_at})
        pipes.append(RackPipe(number + 1, offset, replace(lead, head=head, steps=tuple(steps), end=end)))
    return pipes


@dataclass(frozen=True)
class _Beside:
    """A pipe beside the lead: by how much, half its own diameter, and the lead's shoe."""

    offset: float
    own_half: float
    lead_shoe: Shoe

    @property
    def lead_half(self) -> float:
        """Half the lead's diameter."""
        return self.lead_shoe.diameter / 2


@dataclass
class _LeadWalk:
    """Where the walk along the lead stands: heading, the side on which the others lie, the datum's shift."""

    heading: Vec
    side: Vec
    # From the lead's datum to its last vertex, along the heading; nothing on the first leg.
    behind: float = 0.0
    # How much further along the heading this pipe's own vertex lies than the lead's.
    shift: float = 0.0


def _steps_beside(lead: MeasuredRun, plan: RackPlan, pipe: _Beside) -> tuple[list[AnyStep], float]:
    """The steps of a pipe beside the lead, all measured to and from centres; and where it ends."""
    start, end = lead.start, lead.end
    if not start or not end or end.at is None:
        raise RackRefused("the lead run is not finished")
    walk = _LeadWalk(DIRECTIONS[start.heading], DIRECTIONS[plan.side])
    if abs(walk.side.dot(walk.heading)) > 0.1:
        raise RackRefused("the rack's side must be across the first heading")
    steps: list[AnyStep] = []
    for number, step in enumerate(lead.steps):
        steps += _step_beside(step, number, walk, plan, pipe)
    return steps, end.at - walk.behind - walk.shift


def _step_beside(
    step: AnyStep | None, number: int, walk: _LeadWalk, plan: RackPlan, pipe: _Beside
) -> Iterator[AnyStep]:
    match step:
        case BendStep() if step.angle == 90:
            yield _turn(step, number, walk, plan, pipe)
        case SweepStep():
            yield _sweep(step, number, walk, pipe)
        case OffsetStep():
            yield _offset(step, walk, pipe)
        case CouplingStep() | PullPointStep():
            yield step.model_copy(update={"at": step.at - walk.behind - walk.shift})
        case _:
            raise RackRefused(f"step {number + 1}: a rack goes along with 90s, offsets and sweeps only")


def _centre(step: BendStep | SweepStep, half: float) -> float:
    wall = step.stand_off if isinstance(step, BendStep) and step.to == "wall" else 0.0
    return step.at - (0.0 if step.to == "centre" else half) - wall


def _earlier(walk: _LeadWalk, toward: Vec, offset: float) -> float:
    """How much sooner the pipe turns than the lead: by its offset, where the turn is in the rack's plane."""
    return walk.side.dot(toward) * offset


def _after_turn(walk: _LeadWalk, turn: Vec, pipe: _Beside, from_back: bool) -> None:
    within = walk.side.dot(turn)
    walk.shift = within * pipe.offset
    if abs(within) > 0.5:
        walk.side = walk.heading.times(-within)
    walk.heading = turn
    walk.behind = pipe.lead_half if from_back else 0.0


def _turn(step: BendStep, number: int, walk: _LeadWalk, plan: RackPlan, pipe: _Beside) -> AnyStep:
    turn = DIRECTIONS[step.turn]
    at = _centre(step, pipe.lead_half) - walk.behind - walk.shift
    if number in plan.kicked:
        return _kicked(step, number, at, walk, plan, pipe)
    at -= _earlier(walk, turn, pipe.offset)
    _after_turn(walk, turn, pipe, step.next_from == "back")
    return step.model_copy(update={"at": at, "to": "centre", "next_from": "centre", "stand_off": 0.0})


def _kicked(step: BendStep, number: int, at: float, walk: _LeadWalk, plan: RackPlan, pipe: _Beside) -> AnyStep:
    """The same 90 for all, lifted by a kick that grows with the offset and stands back by as much more."""
    turn, lift = DIRECTIONS[step.turn], DIRECTIONS[plan.lift]
    if abs(walk.side.dot(turn)) < 0.5 or abs(lift.dot(turn)) > 0.1 or abs(lift.dot(walk.heading)) > 0.1:
        raise RackRefused(f"step {number + 1}: a kicked turn goes toward the rack's side and lifts across it")
    walk.shift = walk.side.dot(turn) * pipe.offset
    walk.behind = pipe.lead_half if step.next_from == "back" else 0.0
    walk.heading, walk.side = turn, lift
    if pipe.offset == 0:
        return step.model_copy(update={"at": at, "to": "centre", "next_from": "centre", "stand_off": 0.0})
    # A kick's next leg is measured from the pipe's own back; our other measures are from centres.
    walk.shift -= pipe.own_half
    back = plan.setback + pipe.offset
    rise = pipe.offset
    return KickStep(kind="kick90", toward=plan.lift, rise=rise, turn=step.turn, to="centre", at=at, kick_back=back)


def _sweep(step: SweepStep, number: int, walk: _LeadWalk, pipe: _Beside) -> AnyStep:
    turn = DIRECTIONS[step.turn]
    earlier = _earlier(walk, turn, pipe.offset)
    at = _centre(step, pipe.lead_half) - walk.behind - walk.shift - earlier
    if step.radius - earlier <= 0:
        raise RackRefused(f"step {number + 1}: the inner pipes would have no radius left; sweep wider")
    _after_turn(walk, turn, pipe, from_back=True)
    # A sweep's next leg is measured from the pipe's own back.
    walk.shift -= pipe.own_half
    return step.model_copy(update={"at": at, "to": "centre", "radius": step.radius - earlier})


def _offset(step: OffsetStep, walk: _LeadWalk, pipe: _Beside) -> AnyStep:
    """Placed by its middle, which is the same on every shoe."""
    angle = math.radians(step.angle)
    rise = step.rise if step.rise is not None else 0.0
    if step.over is not None:
        raise RackRefused("an offset in a rack needs its rise written, as the pipes do not stand on one surface")
    reach = tangent_length(pipe.lead_shoe.radius, angle)
    half_run = rise / math.tan(angle) / 2
    middle = {"raised_by": -reach - half_run, "starts_at": reach + half_run, "centred_at": 0.0}[step.ref]
    stagger = walk.side.dot(DIRECTIONS[step.toward]) * pipe.offset * math.tan(angle / 2)
    at = step.at + middle - walk.behind - walk.shift - stagger
    return step.model_copy(update={"at": at, "ref": "centred_at"})


def least_distance(one: Path, other: Path) -> float:
    """Least distance between two pipes' centrelines; arcs taken as chords of 2°, a hair inside."""
    return min(segment_distance(a, b, c, d) for a, b in _chords(one) for c, d in _chords(other))


def _chords(path: Path) -> Sequence[tuple[Vec, Vec]]:
    points = [point for line in points_along(path, CHORD) for point in line]
    return [(a, b) for a, b in pairwise(points) if a != b]
