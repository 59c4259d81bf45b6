"""The smallest changes of marks, angles, rolls and cuts that bring end B back to its place and direction.

Non-linear least squares with a small damping (Gauss–Newton, Levenberg): x are the changes, each divided by its weight
so that they are dimensionless and of one size; e(x) is the error of end B in place and direction, as the simulation
has it, six numbers in inches. At each round the Jacobian J = ∂e/∂x is worked out in closed form
(`CorrectionSearch.slopes`) and the step is taken that solves

    minimise ‖J δ + e‖² + λ ‖x + δ‖²,   λ = DAMPING²,

so that of all changes that bring the end back the one with the least norm is approached. It ends when a step is below
SETTLED, or after ROUNDS.
"""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from conduit.bender import Hook
from conduit.bending.piece_to_correct import Cuts, PieceToCorrect
from conduit.geometry import Vec, least_norm
from conduit.simulation import Bent, Bow, Setting, arc_of

# The weights: a change by this much counts as an inch of a mark.
ANGLE_FOR_AN_INCH = math.radians(2)
ROLL_FOR_AN_INCH = math.radians(2)
CUT_FOR_AN_INCH = 0.25
# The weight of direction against place in the error: a degree counts as a quarter inch.
INCHES_PER_RADIAN = 0.25 / math.radians(1)
ROUNDS, DAMPING = 25, 1e-3
# Inches: far below what a pencil or a tape shows.
SETTLED = 1e-5
# Of a change that is larger than a person would make, so much is tried.
PARTS = (1.0, 0.75, 0.5, 0.25)

Change = list[float]
NOWHERE = Vec(0.0, 0.0, 0.0)


def _column(place: Vec, direction: Vec) -> Change:
    return [*place, *direction.times(INCHES_PER_RADIAN)]


@dataclass(frozen=True)
class CorrectionSearch:
    """Which numbers may be changed: marks, angles and rolls, each of several bends alike, then the cuts at `ends`."""

    settings: Sequence[Setting]
    alike: Sequence[Sequence[int]]
    ends: tuple[str, ...]
    piece: PieceToCorrect

    @property
    def size(self) -> int:
        """How many numbers may be changed."""
        return 3 * len(self.alike) + len(self.ends)

    def changed(self, by: Change) -> tuple[list[Setting], Cuts]:
        """The settings and cuts with a change made."""
        changed, count = list(self.settings), len(self.alike)
        for place, bends in enumerate(self.alike):
            moved, bent, rolled = by[place : 3 * count : count]
            for number in bends:
                one = changed[number]
                angle, roll = one.angle + bent * ANGLE_FOR_AN_INCH, one.roll + rolled * ROLL_FOR_AN_INCH
                changed[number] = replace(one, mark=one.mark + moved, angle=angle, roll=roll)
        cut = [one * CUT_FOR_AN_INCH for one in by[3 * count :]]
        cuts = dict(zip(self.ends, cut, strict=True))
        return changed, Cuts(cuts.get("A", 0.0), cuts.get("B", 0.0))

    def error(self, bent: Bent) -> Change:
        """Place (three, inches) and direction (three, as inches) of end B less the aim's."""
        aim = self.piece.aim
        return _column(bent.end.point.minus(aim.point), bent.end.heading.minus(aim.heading))

    def slopes(self, bent: Bent, settings: Sequence[Setting]) -> list[Change]:
        """How the error changes with each number that may be changed, a column each.

        What lies behind an arc keeps its shape. A mark that is moved shifts it along the leg before the arc and
        back along the leg after; more angle turns it about the arc's centre, and draws it back along the leg after
        by the length that went into the arc. Rolled, it turns about the leg before, and back about the leg after,
        as the frame that later rolls are against goes through the arc without twist.
        """
        order = sorted(range(len(settings)), key=lambda number: arc_of(settings[number], self.piece.shoe).start)
        bows = dict(zip(order, bent.bows, strict=True))
        columns = [self._columns(bent, bows, bends) for bends in self.alike]
        cut = {"A": bent.start.heading, "B": bent.end.heading}
        cuts = [_column(cut[end].times(-CUT_FOR_AN_INCH), NOWHERE) for end in self.ends]
        return [*(one[what] for what in range(3) for one in columns), *cuts]

    def _columns(self, bent: Bent, bows: Mapping[int, Bow], bends: Sequence[int]) -> list[Change]:
        """The slopes for mark, angle and roll of bends that are changed alike: theirs together."""
        theirs = [self._columns_of(bent, bows[number], self.settings[number].hook) for number in bends]
        return [[sum(figures) for figures in zip(*alike, strict=True)] for alike in zip(*theirs, strict=True)]

    def _columns_of(self, bent: Bent, bow: Bow, hook: Hook) -> list[Change]:
        radius = self.piece.shoe.radius
        axis = bow.heading.cross(bow.inside)
        from_centre = bent.end.point.minus(bow.entry.along(bow.inside, radius))
        shifted = bow.heading.minus(bow.onward)
        turned = axis.cross(from_centre).along(bow.onward, -radius)
        if hook == "B":
            # The arc then begins earlier by as much as it grows.
            turned = turned.along(shifted, -radius)
        tilted = bow.heading.cross(bent.end.heading).minus(bow.onward.cross(bent.end.heading))
        swung = bow.heading.cross(bent.end.point.minus(bow.entry))
        rolled = swung.minus(bow.onward.cross(bent.end.point.minus(bow.exit)))
        bends = axis.cross(bent.end.heading)
        return [
            _column(shifted, NOWHERE),
            _column(turned.times(ANGLE_FOR_AN_INCH), bends.times(ANGLE_FOR_AN_INCH)),
            _column(rolled.times(ROLL_FOR_AN_INCH), tilted.times(ROLL_FOR_AN_INCH)),
        ]

    def smallest(self) -> Change:
        """The smallest change that brings end B nearest to its aim: Gauss-Newton with fixed damping.

        Each round takes x + δ as the least-norm solution of J (x + δ) = J x − e, damped by λ, for the error e, its
        slopes J and the change so far x, so that error and changes are made small together. It ends when the step is
        below `SETTLED` inches, or after `ROUNDS`.
        """
        by = [0.0] * self.size
        for _ in range(ROUNDS if self.size else 0):
            settings, cuts = self.changed(by)
            bent = self.piece.bent(settings, cuts)
            slopes = self.slopes(bent, settings)
            aimed = [-one for one in self.error(bent)]
            for change, column in zip(by, slopes, strict=True):
                aimed = [one + change * slope for one, slope in zip(aimed, column, strict=True)]
            # Damping keeps the changes small where many would do.
            before, by = by, least_norm(slopes, aimed, DAMPING**2)
            if max(abs(now - then) for now, then in zip(by, before, strict=True)) < SETTLED:
                break
        return by


def least_change(settings: Sequence[Setting], rest: Sequence[int], piece: PieceToCorrect) -> tuple[list[Setting], Cuts]:
    """The smallest changes of the rest and of the cuts; an end that would have to grow is left as it is."""
    ends: tuple[str, ...] = ("A", "B")
    while True:
        search = CorrectionSearch(settings, piece.changed_alike(rest), ends, piece)
        better, cuts = search.changed(search.smallest())
        spared = ("A", cuts.a, piece.spare_a), ("B", cuts.b, piece.spare)
        short = [end for end, cut, spare in spared if cut < -spare - 1e-9]
        if not short:
            return better, cuts
        ends = tuple(end for end in ends if end not in short)


def parts_of(
    settings: Sequence[Setting], better: Sequence[Setting], cuts: Cuts
) -> Iterator[tuple[list[Setting], Cuts]]:
    """A change whole, and smaller parts of it that bring the end only nearer."""
    for part in PARTS:
        changed = [
            replace(
                one,
                mark=one.mark + part * (then.mark - one.mark),
                angle=one.angle + part * (then.angle - one.angle),
                roll=one.roll + part * (then.roll - one.roll),
            )
            for one, then in zip(settings, better, strict=True)
        ]
        yield changed, Cuts(part * cuts.a, part * cuts.b)
