"""A stick as corrections see it: how it is held, what may be cut off it, where its end B must come to be."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from conduit.bender import Shoe
from conduit.geometry import Vec
from conduit.plan import SLACK_ACROSS, SLACK_ALONG
from conduit.simulation import Bent, Pose, Setting, bend_pipe
from conduit.tables import Material

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
    out of its place. `sweeps`: which bends are the shots of one sweep; those that are left of it are changed alike.
    `follows`: whether the order of bending still works with the bends set so; None: nobody asks.
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
    sweeps: tuple[tuple[int, ...], ...] = ()
    follows: Callable[[Sequence[Setting]], bool] | None = None

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

    def at_end(self, point: Vec, heading: Vec) -> float:
        """Of what is forgiven an end that comes there, pointing so, how much is used; 1: all of it, more: too much."""
        miss = point.minus(self.aim.point)
        along = miss.dot(self.aim.heading)
        across = miss.along(self.aim.heading, -along).length()
        askew = heading.angle_to(self.aim.heading)
        return max(abs(along) / SLACK_ALONG, across / SLACK_ACROSS, askew / GOOD_DIRECTION)

    def off(self, bent: Bent) -> tuple[float, float]:
        """How far end B is from its aim, in inches, and its direction, in degrees."""
        return bent.miss(self.aim.point), math.degrees(bent.end.heading.angle_to(self.aim.heading))
