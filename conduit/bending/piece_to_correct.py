"""A stick as corrections see it: how it is held, what may be cut off it, where its end B must come to be."""

import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field

from conduit.bender import Shoe
from conduit.geometry import Vec
from conduit.plan import SLACK_ACROSS, SLACK_ALONG
from conduit.simulation import Bent, Pose, Setting, bend_pipe
from conduit.tables import Material
from conduit.units import Radians

GOOD_DIRECTION = math.radians(1)

Used = Callable[[Bent], float]


@dataclass(frozen=True)
class Cuts:
    """What is to be cut off end A and end B beside what was spared, in inches; a negative cut leaves some of that."""

    a: float = 0.0
    b: float = 0.0


UNCUT = Cuts()


@dataclass(frozen=True)
class Aim:
    """Where end B must come to be, and which way it must point."""

    point: Vec
    heading: Vec


@dataclass(frozen=True)
class PieceToCorrect:
    """The pipe that is corrected: shoe, how it is held, its length, its aim; `spare` was left on end B, `spare_a` on A.

    `start` is where its end A lies before it is trimmed, `length` from there to where end B is trimmed to.

    `passing` tells of a bent pipe how much is used of the clearance that may be lost, 1 being all of it; None: there
    is nothing to pass. `keeping`: the same of what a plan would give up. `misplaced`: how far a bend that is made lies
    out of its place. `swept`: which bends are the shots of one sweep, and what it is to sum up to; those that are
    left of it are changed alike. `follows`: whether the order of bending still works with the bends set so; None:
    nobody asks.
    """

    shoe: Shoe
    start: Pose
    length: float
    aim: Aim
    material: Material = "EMT"
    spare: float = 0.0
    spare_a: float = 0.0
    passing: Used | None = None
    keeping: Used | None = None
    misplaced: float = 0.0
    swept: Mapping[tuple[int, ...], Radians] = field(default_factory=dict)
    follows: Callable[[Sequence[Setting]], bool] | None = None

    @property
    def sweeps(self) -> Iterable[tuple[int, ...]]:
        """The shots of each sweep."""
        return self.swept

    def is_shot(self, bend: int) -> bool:
        """Whether a bend is one shot of a sweep."""
        return any(bend in sweep for sweep in self.sweeps)

    def made_with(self, bend: int, rest: Sequence[int]) -> list[int]:
        """All shots that are made of the sweep that a bend is one of; else the bend itself."""
        sweep = next((one for one in self.sweeps if bend in one), (bend,))
        return [shot for shot in sweep if shot not in rest]

    def changed_alike(self, rest: Sequence[int]) -> list[list[int]]:
        """Bends in `rest` by what is changed as one: the shots of a sweep, every other bend by itself."""
        sweep_of = {shot: sweep for sweep in self.sweeps for shot in sweep}
        alike: dict[tuple[int, ...], list[int]] = {}
        for number in rest:
            alike.setdefault(sweep_of.get(number, (number,)), []).append(number)
        return list(alike.values())

    def bent(self, settings: Sequence[Setting], cuts: Cuts = UNCUT) -> Bent:
        """The pipe, its end A cut back to where it seats."""
        held = self.start.forward(-cuts.a)
        return bend_pipe(self.length - cuts.b, settings, self.shoe, held)

    def fits(self, bent: Bent) -> bool:
        """Whether a connector along the leg, and the straps across it, forgive what is off, and all is cleared."""
        return self.at_end(bent.end.point, bent.end.heading) <= 1 and (self.passing is None or self.passing(bent) <= 1)

    def apart(self, point: Vec, heading: Vec) -> tuple[float, float, Radians]:
        """How far an end that comes there is from its aim: along, across, and askew."""
        miss = point.minus(self.aim.point)
        along = miss.dot(self.aim.heading)
        return along, miss.along(self.aim.heading, -along).length(), heading.angle_to(self.aim.heading)

    def at_end(self, point: Vec, heading: Vec) -> float:
        """Of what is forgiven an end that comes there, pointing so, how much is used; 1: all of it, more: too much."""
        along, across, askew = self.apart(point, heading)
        return max(abs(along) / SLACK_ALONG, across / SLACK_ACROSS, askew / GOOD_DIRECTION)

    def off(self, bent: Bent) -> tuple[float, float]:
        """How far end B is from its aim, in inches, and its direction, in degrees."""
        return bent.miss(self.aim.point), math.degrees(bent.end.heading.angle_to(self.aim.heading))
