"""Least distances between whole runs as bent, with what sits on them, and to what is in the way of others. Inches.

A pair is looked at when boxes around both pipes are near enough. With the sixty runs of a large job these are 1,770
comparisons of six figures each, some milliseconds: an index in space (an R-tree) would save less than it costs to
build. What a pair came to is worth keeping, so that after a change only the pairs of the run that changed are measured.
"""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import combinations, islice, product

from conduit.geometry import Vec
from conduit.layout import Hindrance
from conduit.simulation import Closest, where_least
from conduit.space.standing import AtBox, Body, StandingRun
from conduit.tables import FITTING_OVER, THING_REACH

# So far from a box that two pipes share they lie as near as its knockouts are, and need not touch.
NEAR_BOX = 12.0
EVEN = 1e-6


@dataclass(frozen=True)
class Meeting:
    """Where two runs come nearer than asked, surface to surface: how far along each that is, from its end A."""

    one: StandingRun
    other: StandingRun
    least: float
    asked: float
    first: float
    second: float

    @property
    def at(self) -> Vec:
        """The middle between both."""
        return self.one.point_at(self.first).plus(self.other.point_at(self.second)).times(0.5)

    def turned(self) -> "Meeting":
        """The same from the other run."""
        return Meeting(self.other, self.one, self.least, self.asked, self.second, self.first)


@dataclass(frozen=True)
class MeetingThing:
    """Where a run comes nearer to something in another's way than that run keeps from it."""

    run: StandingRun
    owner: StandingRun
    thing: Hindrance
    least: float
    along: float


@dataclass(frozen=True)
class SameSide:
    """Two runs that leave one side of one box, and it was not said by which knockouts: not measured there."""

    one: AtBox
    first: StandingRun
    second: StandingRun


Met = Meeting | MeetingThing | SameSide
MeasurePair = Callable[[StandingRun, StandingRun, float], Sequence[Met]]


def meetings_of(
    runs: Sequence[StandingRun], asked: float, measure: MeasurePair, only: str | None = None
) -> Iterator[Met]:
    """All pairs of runs that come nearer than asked, and all that is to be asked; `only`: those of one run.

    `measure` measures a pair, from a store of those that did not change if there is one. Pipes of one rack are
    measured by the rack.
    """
    for one, other in combinations(runs, 2):
        if one.rack != other.rack and (only is None or only in (one.given.key, other.given.key)):
            yield from measure(one, other, asked)


def met(one: StandingRun, other: StandingRun, asked: float) -> Sequence[Met]:
    """What is to be said of a pair."""
    return [*_runs_met(one, other, asked), *_things_met(one, other), *_things_met(other, one)]


def _runs_met(one: StandingRun, other: StandingRun, asked: float) -> Sequence[Met]:
    if one.is_apart_from(other, asked + one.thickest + other.thickest):
        return []
    shared = [(mine, theirs) for mine in one.ends.values() for theirs in other.ends.values() if _share(mine, theirs)]
    unsaid = next((pair for pair in shared if _is_unsaid(*pair)), None)
    if unsaid:
        # Where they stand beside each other is not known.
        return [SameSide(unsaid[0], one, other)]
    nearest = _sharing(one, other, asked, shared) if shared else _nearest(one, other, one.bodies, other.bodies, asked)
    return [nearest] if nearest else []


def _is_unsaid(mine: AtBox, theirs: AtBox) -> bool:
    """Whether two ends leave one side of a box, and it was not said by which knockouts."""
    return mine.side == theirs.side and not (mine.aside_known and theirs.aside_known)


def least_between(one: StandingRun, other: StandingRun) -> Meeting:
    """Where two runs come nearest, however far that is; near a box that both leave nothing is looked at."""
    keys = {at.box.key for at in one.ends.values()} & {at.box.key for at in other.ends.values()}
    mine, theirs = (
        _parted(run, [end for end, at in run.ends.items() if at.box.key in keys])[1] for run in (one, other)
    )
    return _nearest(one, other, mine, theirs, math.inf) or Meeting(one, other, math.inf, math.inf, 0.0, 0.0)


def _share(mine: AtBox, theirs: AtBox) -> bool:
    return mine.box.key == theirs.box.key


def _sharing(
    one: StandingRun, other: StandingRun, asked: float, shared: Sequence[tuple[AtBox, AtBox]]
) -> Meeting | None:
    """Where both come nearest; near a box that both leave they only must not touch."""
    # Pipe that is near a shared box, and what lies beyond it, of each.
    mine, theirs = (_parted(run, [pair[at].end for pair in shared]) for at, run in enumerate((one, other)))
    meetings = [
        _nearest(one, other, *bodies, asked)
        for bodies in ((mine[1], theirs[1]), (mine[0], theirs[1]), (mine[1], theirs[0]))
    ]
    meetings.append(_nearest(one, other, mine[0], theirs[0], 0.0))
    return min((one for one in meetings if one), key=lambda one: one.least, default=None)


def _parted(run: StandingRun, ends: Sequence[str]) -> tuple[list[Body], list[Body]]:
    """What of a run lies near those of its ends, and what does not."""
    long = run.bent.length
    low = min(NEAR_BOX, long) if "A" in ends else 0.0
    high = max(long - NEAR_BOX, low) if "B" in ends else long
    near = [*run.bodies_within(0.0, low), *run.bodies_within(high, long)]
    return near, run.bodies_within(low, high)


def _nearest(
    one: StandingRun, other: StandingRun, mine: Sequence[Body], theirs: Sequence[Body], asked: float
) -> Meeting | None:
    """Where bodies of both come nearest, if that is nearer than asked; of each the first is its pipe."""
    if not mine or not theirs:
        return None
    # All that sits on pipes sits on their centrelines: where these are far apart the rest is not looked at.
    pipes = _closest(one, other, mine[0], theirs[0], asked + 2 * FITTING_OVER)
    if not pipes:
        return None
    best = pipes if pipes.least < asked - EVEN else None
    for here, there in islice(product(mine, theirs), 1, None):
        if best and best.least < 0:
            break
        best = _closest(one, other, here, there, best.least if best else asked - EVEN) or best
    return replace(best, asked=asked) if best else None


def _closest(one: StandingRun, other: StandingRun, here: Body, there: Body, under: float) -> Meeting | None:
    """Where two bodies come nearest, if that is under so much."""
    thick = here.radius + there.radius
    if here.curve.is_clear_of(there.curve, thick + under):
        return None
    closest: Closest | None = here.curve.closest(there.curve, thick + under)
    if not closest or closest.distance >= thick + under:
        return None
    return Meeting(one, other, closest.distance - thick, under, closest.first, closest.second)


def _things_met(run: StandingRun, owner: StandingRun) -> Iterator[MeetingThing]:
    """What is in the way of `owner` and nearer to `run` than `owner` keeps from it; not `run` itself, by its name."""
    for thing in owner.things:
        if thing.name.strip().casefold() == run.name.strip().casefold() != "":
            continue
        solid = Solid.of(thing, owner)
        within = run.diameter / 2 + thing.clear - EVEN
        if solid.is_clear_of(run, within):
            continue
        place, distance = where_least(run.bent, solid.distance_from(run), 0.0, run.bent.length)
        if distance < within:
            yield MeetingThing(run, owner, thing, distance - run.diameter / 2, place)


@dataclass(frozen=True)
class Solid:
    """A thing in the way where it stands: along a leg, up from its surface, and across it so far to each side."""

    foot: Vec
    along: Vec
    toward: Vec
    near: float
    far: float
    height: float
    reach: float
    is_round: bool

    @classmethod
    def of(cls, thing: Hindrance, owner: StandingRun) -> "Solid":
        """A thing in a run's way. What reaches nobody knows how far to the sides is taken as far as it is drawn."""
        return cls(
            owner.frame.placed(thing.foot),
            owner.frame.turned(thing.along),
            owner.frame.turned(thing.toward),
            thing.near,
            thing.ends,
            thing.height,
            THING_REACH if thing.reach is None else min(thing.reach, THING_REACH),
            thing.shape == "round",
        )

    def distance(self, point: Vec) -> float:
        """How far a point is from it; 0 within."""
        off = point.minus(self.foot)
        x, y = off.dot(self.along), off.dot(self.toward)
        side = max(abs(off.dot(self.along.cross(self.toward))) - self.reach, 0.0)
        if self.is_round:
            radius = self.height / 2
            section = max(math.hypot(x - (self.near + self.far) / 2, y - radius) - radius, 0.0)
        else:
            section = math.hypot(max(self.near - x, x - self.far, 0.0), max(y - self.height, -y, 0.0))
        return math.hypot(section, side)

    def distance_from(self, run: StandingRun) -> Callable[[float], float]:
        """Of places along a run's pipe."""
        return lambda s: self.distance(run.point_at(s))

    def is_clear_of(self, run: StandingRun, within: float) -> bool:
        """Whether a run's pipe is farther off than that by its box alone."""
        middle = self.foot.along(self.along, (self.near + self.far) / 2).along(self.toward, self.height / 2)
        around = math.hypot((self.far - self.near) / 2, self.height / 2, self.reach)
        return run.is_farther_from(middle, within + around)
